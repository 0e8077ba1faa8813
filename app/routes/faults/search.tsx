import { Heading } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { leadingFinding } from '../../../core/checks/assess'
import { sentence } from '../../../core/checks/sentences'
import { symptomsOfTests } from '../../../core/faults/from-tests'
import { standingOfSearch } from '../../../core/faults/search'
import { seenIn } from '../../../core/faults/seen-in'
import { symptomFacts } from '../../../core/faults/symptoms'
import { tryNames } from '../../../core/faults/try-names'
import { observationText } from '../../../core/observe/observation'
import { socketAt } from '../../../core/plan/site-index'
import { proofOf } from '../../../core/prove/proof'
import type { Run } from '../../../core/vocabulary/run'
import type { Symptom } from '../../../core/vocabulary/search'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { plainField, TextAreaField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { handOf } from '../../who.server'
import { HistoryLink } from '../history/history-link'
import type { Route } from './+types/search'
import { Causes, Stretches } from './causes-view'
import { Ended, EndForm } from './end-view'
import { SymptomChoice } from './faults'
import look from './faults.module.css'
import { AnyWrong } from './ladder-view'
import { NextTry, OtherTries } from './next-view'
import { draftSearch, LONGEST_LOG, passedOver, saidIn } from './search-action.server'
import { assessedSite, laddersOf, sceneAt, searchIn } from './search-view.server'
import { Stops } from './stops-view'

/** How the search stands: worked out on the server, which has what was seen. */
export async function loader({ params }: Route.LoaderArgs) {
  const assessed = await assessedSite(params.site)
  const { plan } = assessed.index
  const { search, run } = searchIn(plan, params.search)
  const seen = seenIn(plan, search)
  return {
    standing: standingOfSearch(sceneAt(assessed, run), search, seen),
    symptoms: seen.symptoms.map((each) => ({
      id: each.id,
      at: each.at,
      by: each.by ?? null,
      words: observationText(each),
      line: each.line ?? null,
    })),
    tries: seen.tries.map((each) => ({
      id: each.id,
      at: each.at,
      by: each.by ?? null,
      what: each.what,
      words: observationText(each),
      also: each.also ?? [],
      note: each.note ?? null,
    })),
    tested: symptomsOfTests(proofOf(assessed, run)).filter(
      (symptom) => !seen.symptoms.some(({ what }) => what === symptom),
    ),
    ladders: laddersOf(assessed, run, search.since),
  }
}

/** Something seen, read or tried, a stop dealt with, an end. Each is saved by itself. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_LOG })
  const pasted = await saidIn(form)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, (copy) => draftSearch(copy, params.search, form, pasted, hand))
  if (saved?.outcome === 'saved')
    return redirect(
      addressWith(`/sites/${params.site}/faults/${params.search}`, { took: saved.id, ...passedOver(pasted) }),
    )
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** One search: what must be dealt with first, what to try next and why, what may be wrong, what was seen and tried. */
export default function SearchPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const search = plan.searches.find(({ id }) => id === params.search)
  const run = search && index.runs.get(search.run)
  if (!search || !run) return <ErrorView status={404} />
  const { standing, symptoms, tries, ladders, tested } = loaderData
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  const halted = standing.stops.some(({ cleared }) => cleared === null)
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        What is wrong with {run.tag}?
      </Heading>
      <p>
        {from.device.name}, {from.port.name} to {to.device.name}, {to.port.name}.{' '}
        <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={text.link}>
          The run
        </RouterLink>
        {' ·\u00a0'}
        <RouterLink to={`/sites/${plan.site.id}/faults/${search.id}/afar`} className={text.link}>
          For somebody who is there
        </RouterLink>
      </p>
      <Took />
      <PassedOver />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {search.ended && <Ended run={run} ended={search.ended} standing={standing} />}
      {!search.ended && <Stops stops={standing.stops} />}
      {!search.ended && <BlockedByPlan run={run} />}
      {!search.ended && !halted && <AnyWrong ladders={ladders} tried={tries.length} />}
      {!search.ended && <NextTry standing={standing} />}
      <Stretches stretches={standing.stretches} />
      <Causes standing={standing} />
      <section className={look.section} aria-labelledby="seen">
        <h2 id="seen">What was seen</h2>
        <Lines lines={symptoms} empty="Nothing was noted yet." open={!search.ended} />
        {!search.ended && <Tested symptoms={tested} />}
        {!search.ended && <Looks standing={standing} />}
        {!search.ended && <TellMore />}
      </section>
      <section className={look.section} aria-labelledby="tried">
        <h2 id="tried">What was tried</h2>
        <Lines
          lines={tries.map((each) => ({
            ...each,
            words: `${standing.outdated.includes(each.id) ? 'Does not count any more: the run was changed. ' : ''}${tryNames[each.what]}${each.also.map((other) => ` and ${tryNames[other]} at once`).join('')}: ${each.words}${each.note ? `. ${each.note}` : ''}`,
            line: null,
          }))}
          empty="Nothing was tried yet."
          open={!search.ended}
        />
        {standing.misfit && (
          <Notice tone="note">
            This does not fit the rest: “{standing.misfit.words}”. Look at it again, or take it back.
          </Notice>
        )}
      </section>
      {!search.ended && !halted && <OtherTries standing={standing} />}
      {!search.ended && <EndForm standing={standing} />}
      <HistoryLink list="searches" id={search.id} />
    </>
  )
}

/** What Match calls blocked is told before any search: then it works as little as it was planned to. */
function BlockedByPlan({ run }: { run: Run }) {
  const { plan, assessment } = useSite()
  const unit = useUnit()
  const verdict = assessment.runs.find(({ id }) => id === run.id)
  const finding = verdict?.grade === 'blocked' ? leadingFinding(verdict.findings) : null
  if (!finding) return null
  return (
    <Notice tone="blocked">
      Match calls this run blocked, so it can hardly work: {sentence(finding, unit)}{' '}
      <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={text.link}>
        What would do
      </RouterLink>
    </Notice>
  )
}

type Line = { id: string; at: string; by: string | null; words: string; line: string | null }

function Lines({ lines, empty, open }: { lines: readonly Line[]; empty: string; open: boolean }) {
  if (lines.length === 0) return <p className={text.quiet}>{empty}</p>
  return (
    <ul className={look.lines}>
      {lines.map(({ id, at, by, words, line }) => (
        <li key={id}>
          <span>
            {words}
            {line && <code className={look.line}>{line}</code>}
            <span className={text.quiet}>
              {' '}
              <Moment at={at} />
              {by && `, ${by}`}
            </span>
          </span>
          {open && (
            <Form method="post" preventScrollReset>
              <MadeFrom />
              <input type="hidden" name="observation" value={id} />
              <QuietButton small grave name="intent" value="take-back" aria-label={`Take back: ${words}`}>
                Take back
              </QuietButton>
            </Form>
          )}
        </li>
      ))}
    </ul>
  )
}

/** Lines of what was pasted that nobody understood, named and not guessed at. */
function PassedOver() {
  const [params] = useSearchParams()
  const passed = Number(params.get('passed') ?? 0)
  if (!Number.isInteger(passed) || passed < 1) return null
  return (
    <p className={text.quiet}>
      {passed === 1 ? 'One line was' : `${passed} lines were`} passed over, such as:{' '}
      {(params.get('such') ?? '').slice(0, 80)}
    </p>
  )
}

/** What tests of this run have shown already: taken over with a press. */
function Tested({ symptoms }: { symptoms: readonly Symptom[] }) {
  if (symptoms.length === 0) return null
  return (
    <Form method="post" preventScrollReset className={look.answers}>
      <MadeFrom />
      {symptoms.map((symptom) => (
        <input key={symptom} type="hidden" name="symptom" value={symptom} />
      ))}
      <span>Tests of this run have shown: {symptoms.map((symptom) => symptomFacts[symptom].saw).join('; ')}.</span>
      <QuietButton small name="intent" value="tell">
        Take that over
      </QuietButton>
    </Form>
  )
}

/** Other symptoms that would tell something: a look costs next to nothing. */
function Looks({ standing: { looks } }: Pick<Route.ComponentProps['loaderData'], 'standing'>) {
  if (looks.length === 0) return null
  return (
    <>
      <h3 className={look.sub}>Is this so as well?</h3>
      <ul className={look.lines}>
        {looks.map(({ symptom, saw, look: at }) => (
          <li key={symptom}>
            <span>
              {saw}? <span className={text.quiet}>{at}</span>
            </span>
            <Form method="post" preventScrollReset className={look.answers}>
              <MadeFrom />
              <input type="hidden" name="intent" value="look" />
              <input type="hidden" name="symptom" value={symptom} />
              <QuietButton small name="told" value="yes" aria-label={`Yes: ${saw}`}>
                Yes
              </QuietButton>
              <QuietButton small name="told" value="no" aria-label={`No: ${saw}`}>
                No
              </QuietButton>
            </Form>
          </li>
        ))}
      </ul>
    </>
  )
}

function TellMore() {
  const busy = useNavigation().state === 'submitting'
  return (
    <details>
      <summary className={text.link}>Tell more of what you see</summary>
      <Form method="post" preventScrollReset className={look.begin}>
        <MadeFrom />
        <SymptomChoice />
        <TextAreaField
          field={{ ...plainField('pasted'), id: 'more-pasted' }}
          label="Or paste what the computer says"
          rows={4}
        />
        <TextAreaField field={{ ...plainField('saw'), id: 'more-saw' }} label="Or in your own words" rows={2} />
        <QuietButton name="intent" value="tell" loading={busy}>
          Write it down
        </QuietButton>
      </Form>
    </details>
  )
}
