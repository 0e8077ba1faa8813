import { Box, Flex, Text } from '@chakra-ui/react'
import { useEffect } from 'react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { revisionOf } from '../../../core/change/change'
import { deleteRun } from '../../../core/change/changes/run'
import { searchOf } from '../../../core/change/changes/searches'
import { observationsOf } from '../../../core/observe/learned'
import type { Observation } from '../../../core/observe/observation'
import { directNeeds } from '../../../core/plan/direct-needs'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { laidCables, type Run } from '../../../core/vocabulary/run'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { ClashNotice } from '../../ui/clash-notice'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { useKept } from '../../ui/use-kept'
import { HistoryLink } from '../history/history-link'
import { type SeenOf, saveRetraction, saveSeen } from '../seen/save-seen.server'
import type { Route } from './+types/run'
import { Recipes } from './recipes'
import { textsOf } from './run-form'
import { RunPage, runFormId } from './run-page'
import { RunSeen } from './run-seen'
import { type RunSaveAnswer, saveRunForm } from './save-run.server'

/** Whether there is such a run. What it is comes with the site. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!copy.plan.runs.some(({ id }) => id === params.run)) throw data(null, { status: 404 })
  return { observations: observationsOf(copy.plan, { run: params.run }) }
}

export async function action({ request, params }: Route.ActionArgs) {
  const wanted = await readForm(request)
  const intent = wanted.get('intent')
  const here = `/sites/${params.site}/runs/${params.run}`
  if (intent === 'seen') {
    return saveSeen(request, wanted, { site: params.site, done: `${here}?done=read` }, (plan) =>
      seenOfRun(plan, params.run),
    )
  }
  if (intent === 'retract')
    return saveRetraction(request, wanted, { site: params.site, done: `${here}?done=retracted` }, (plan) => {
      const run = byId(plan.runs).get(params.run)
      return run ? { subject: { run: run.id }, tag: run.tag } : null
    })
  if (intent !== 'delete') return saveRunForm(request, wanted, params.site, params.run)
  const deleted = await change(request, wanted, params.site, ({ plan }) => {
    const run = plan.runs.find(({ id }) => id === params.run)
    if (!run) return refused('run', 'the run is no longer there')
    return deleteRun(plan, baseOf(wanted), run)
  })
  if (deleted?.outcome === 'saved')
    return redirect(addressWith(`/sites/${params.site}`, { removed: deleted.id, tag: deleted.what?.about[0] }))
  const { problem, status } = whyNotSaved(deleted)
  return data<RunSaveAnswer>({ result: { status: 'error', error: { '': [problem] } } }, { status })
}

/** A run as it lies now, with the cables in it; one that has none yet cannot be observed. */
function seenOfRun(plan: Plan, id: string): SeenOf | null {
  const run = byId(plan.runs).get(id)
  if (!run) return null
  const leads = laidCables(run)
  if (leads.length === 0 || leads.length < run.leads.length) return null
  return { subject: { run: id, leads }, tag: run.tag, from: run.from, to: run.to, run: id }
}

export default function RunRoute({ actionData, loaderData, params }: Route.ComponentProps) {
  const { plan } = useSite()
  const run = plan.runs.find((candidate) => candidate.id === params.run)
  if (!run) return <ErrorView status={404} />
  const { observations } = loaderData
  return <RunEditor key={run.id} run={run} observations={observations} answer={actionData} />
}

function RunEditor({
  run,
  observations,
  answer,
}: {
  run: Run
  observations: readonly Observation[]
  answer: Route.ComponentProps['actionData']
}) {
  const { plan, place, revisions } = useSite()
  const unit = useUnit()
  const needs = directNeeds(plan, run)
  const stamp = [
    unit,
    revisionOf({ revisions }, 'runs', run.id),
    ...needs.map(({ id }) => `${id} ${revisionOf({ revisions }, 'needs', id)}`),
  ].join()
  const { made, behind, type, round } = useKept({ stamp, run, needs, place })
  // a form that nobody has typed into is as good as one made now
  const base = behind ? made.place : place
  const problem = answer && 'of' in answer ? answer.problem : undefined
  const clash = answer?.clash
  const id = runFormId(run)
  return (
    <RunPage
      key={round}
      plan={plan}
      before={made.run}
      texts={textsOf(made.run, made.needs, unit)}
      base={base}
      lastResult={answer?.result}
      onType={type}
      notice={
        clash ? (
          <ClashNotice what="run" form={id} theirs={`/sites/${plan.site.id}/runs/${run.id}`} {...clash} />
        ) : (
          <>
            <Done tag={run.tag} />
            {behind && (
              <Notice tone="note" slim>
                This run was changed meanwhile. What you typed is still here; saving keeps both, or asks where both of
                you changed the same.
              </Notice>
            )}
          </>
        )
      }
    >
      <FaultLinks run={run} />
      <Recipes run={run} />
      <RunSeen run={run} observations={observations} problem={problem} />
      <Form method="post">
        <Flex mt="5" pt="4" borderTop="1px solid" borderColor="line" align="center" gap="4" wrap="wrap">
          <input type="hidden" name="intent" value="delete" />
          <MadeFrom />
          <QuietButton grave>Delete this run</QuietButton>
          <Text fontSize="sm" color="quiet">
            You can undo this.
          </Text>
          <RouterLink to={`/sites/${plan.site.id}/runs/new?like=${run.id}`} className={text.link}>
            More like this
          </RouterLink>
          <HistoryLink list="runs" id={run.id} />
        </Flex>
      </Form>
    </RunPage>
  )
}

/** Says once that something was done; the address is cleaned so that a reload does not say it again. */
function Done({ tag }: { tag: string }) {
  const [params, setParams] = useSearchParams()
  const done = params.get('done')
  useEffect(() => {
    if (!done) return
    const clean = (now: URLSearchParams) => {
      now.delete('done')
      return now
    }
    const timer = setTimeout(() => setParams(clean, { replace: true, preventScrollReset: true }), 6000)
    return () => clearTimeout(timer)
  }, [done, setParams])
  if (!done) return null
  return (
    <Notice tone="clear" slim>
      <Box>
        {done === 'read'
          ? `What you saw of ${tag} is saved.`
          : done === 'retracted'
            ? 'Taken back. It no longer counts.'
            : `${tag} is saved.`}
      </Box>
    </Notice>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}

/** Where somebody goes when it does not work as it should. */
function FaultLinks({ run }: { run: Run }) {
  const { plan } = useSite()
  const open = searchOf(plan, run.id)
  const home = `/sites/${plan.site.id}`
  return (
    <p>
      <RouterLink to={open ? `${home}/faults/${open.id}` : `${home}/faults?run=${run.id}`} className={text.link}>
        {open ? 'A fault is searched here' : 'Something is wrong with it'}
      </RouterLink>
      {' ·\u00a0'}
      <RouterLink to={`${home}/runs/${run.id}/faults`} className={text.link}>
        What would I see if something were wrong?
      </RouterLink>
    </p>
  )
}
