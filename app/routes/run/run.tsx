import { Box, Flex, Text } from '@chakra-ui/react'
import { useEffect } from 'react'
import { data, Form, isRouteErrorResponse, redirect, useSearchParams } from 'react-router'
import { directNeeds } from '../../../core/plan/change'
import { removeRun, revisionOfRun } from '../../../server/sites/runs'
import { AWAY_MESSAGE, load, save } from '../../stored.server'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import type { Route } from './+types/run'
import { ConflictNotice } from './conflict-notice'
import { textsOf } from './run-form'
import { RunPage } from './run-page'
import { type RunSaveAnswer, saveRunForm } from './save-run.server'

/** The revision the form is made from. The plan itself comes with the site. */
export async function loader({ params }: Route.LoaderArgs) {
  const base = await load((knex) => revisionOfRun(knex, params.site, params.run))
  if (base === null) throw data(null, { status: 404 })
  return { base }
}

export async function action({ request, params }: Route.ActionArgs) {
  const wanted = await request.clone().formData()
  if (wanted.get('intent') !== 'delete') return saveRunForm(request, params.site, params.run)
  const removed = await save((knex) => removeRun(knex, params.site, params.run))
  if (removed === null)
    return data<RunSaveAnswer>({ result: { status: 'error', error: { '': [AWAY_MESSAGE] } } }, { status: 503 })
  if (removed.outcome === 'gone') return redirect(`/sites/${params.site}`)
  return redirect(`/sites/${params.site}?${new URLSearchParams({ removed: removed.token, tag: removed.tag })}`)
}

export default function RunRoute({ loaderData, actionData, params }: Route.ComponentProps) {
  const { plan, revision } = useSite()
  const unit = useUnit()
  const run = plan.runs.find((candidate) => candidate.id === params.run)
  if (!run) return <ErrorView status={404} />
  const needs = directNeeds(plan, run)
  return (
    <RunPage
      key={`${run.id} ${revision}`}
      plan={plan}
      before={run}
      texts={textsOf(run, needs, unit)}
      base={loaderData.base}
      lastResult={actionData?.result}
      notice={
        actionData?.conflict ? (
          <ConflictNotice conflict={actionData.conflict} plan={plan} run={run} needs={needs} />
        ) : (
          <Done tag={run.tag} />
        )
      }
    >
      <Form method="post">
        <Flex mt="5" pt="4" borderTop="1px solid" borderColor="line" align="center" gap="4">
          <input type="hidden" name="intent" value="delete" />
          <QuietButton color="blocked" borderColor="blocked">
            Delete this run
          </QuietButton>
          <Text fontSize="sm" color="quiet">
            It can be put back.
          </Text>
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
    const timer = setTimeout(() => setParams({}, { replace: true, preventScrollReset: true }), 6000)
    return () => clearTimeout(timer)
  }, [done, setParams])
  if (!done) return null
  return (
    <Notice tone="clear" py="2">
      <Box>
        {tag} is {done === 'restored' ? 'back' : 'saved'}.
      </Box>
    </Notice>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <ErrorView status={isRouteErrorResponse(error) ? error.status : 500} />
}
