import { Heading, Text } from '@chakra-ui/react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { leadCable } from '../../../core/plan/site-index'
import { proofsOf, RUN_STATES, type RunProof, type RunState } from '../../../core/prove/proof'
import { BEFORE_NOTED, staleWords } from '../../../core/prove/proof-words'
import { runSoaksOf, type SoakStanding } from '../../../core/prove/run-soak'
import { soaksTold } from '../../../core/prove/soak-timeline'
import { stateWords, testName } from '../../../core/prove/test-words'
import type { Run } from '../../../core/vocabulary/run'
import { loadSite } from '../../stored.server'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { PlainInput } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/prove'
import look from './prove.module.css'
import { SoakClock } from './soak-clock'
import { MOST_SOAKS_SHOWN, SoakTimeline } from './soak-timeline'

/** The time by the server's clock, by which soaks are counted, and the newest of them: what was seen stays here. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const soaks = soaksTold(copy.plan)
  return { now: new Date().toISOString(), count: soaks.length, soaks: soaks.slice(0, MOST_SOAKS_SHOWN) }
}

/** What waits for a person comes first. */
const ORDER: readonly RunState[] = ['failed', 'stale', 'laid', 'proved', 'planned', 'accepted']
const groupTitles: Record<RunState, string> = {
  failed: 'A test failed',
  stale: 'To be proved again',
  laid: 'To be proved',
  proved: 'Proved, to be accepted',
  planned: 'Not laid yet',
  accepted: 'Accepted',
}
/** Rows of a group that are shown at once; the search narrows them. */
const MOST_SHOWN = 60

/** Prove: how far every run has come, and what goes on now. */
export default function Prove({ loaderData }: Route.ComponentProps) {
  const { plan, index, assessed } = useSite()
  const [params] = useSearchParams()
  const query = (params.get('q') ?? '').trim().toLowerCase()
  const proofs = proofsOf(assessed)
  const soaks = runSoaksOf(plan.soaks, new Date(loaderData.now))
  const counts = new Map(RUN_STATES.map((state) => [state, 0]))
  for (const { state } of proofs.values()) counts.set(state, (counts.get(state) ?? 0) + 1)
  const rows = plan.runs.flatMap((run) => {
    const proof = proofs.get(run.id)
    const ends = [run.from.device, run.to.device].map((id) => index.devices.get(id)?.name ?? id)
    return proof && [run.tag, ...ends].join(' ').toLowerCase().includes(query) ? [{ run, proof, ends }] : []
  })
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Prove
      </Heading>
      <Text mb="2">
        A run is proved in its place, against what Match predicts: {counts.get('accepted')} of {plan.runs.length}{' '}
        accepted, {counts.get('proved')} proved, {counts.get('laid')} to be proved, {counts.get('failed')} failed,{' '}
        {counts.get('stale')} stale, {counts.get('planned')} not laid yet.
      </Text>
      <p>
        <RouterLink to={`/sites/${plan.site.id}/record`} className={text.link}>
          What held so far, and what we advise
        </RouterLink>
        {' ·\u00a0'}
        <RouterLink to={`/sites/${plan.site.id}/compare`} className={text.link}>
          Before and after
        </RouterLink>
        {' ·\u00a0'}
        <RouterLink to={`/sites/${plan.site.id}/test-plan`} className={text.link}>
          Plan of tests
        </RouterLink>
      </p>
      <Soaks soaks={soaks} now={loaderData.now} />
      <SoakTimeline now={loaderData.now} count={loaderData.count} shown={loaderData.soaks} />
      {plan.runs.length === 0 ? (
        <Text>
          There is no run yet.{' '}
          <RouterLink to={`/sites/${plan.site.id}`} className={text.link}>
            Lay one under Match
          </RouterLink>
          .
        </Text>
      ) : (
        <Form role="search" className={row.form} style={{ maxWidth: '28rem' }}>
          <div>
            <PlainInput name="q" defaultValue={query} aria-label="Find runs to prove" placeholder="Tag or device" />
          </div>
          <QuietButton>Find</QuietButton>
        </Form>
      )}
      {query !== '' && rows.length === 0 && <Text>No run is called that.</Text>}
      {ORDER.map((state) => (
        <Group key={state} state={state} rows={rows.filter(({ proof }) => proof.state === state)} />
      ))}
    </>
  )
}

function Soaks({ soaks, now }: { soaks: readonly SoakStanding[]; now: string }) {
  const { plan, index } = useSite()
  if (soaks.length === 0) return null
  return (
    <section aria-labelledby="soaks">
      <h2 id="soaks" className={text.half}>
        Soaks under way
      </h2>
      <ul className={look.soaks}>
        {soaks.map((standing) => {
          const { soak, over } = standing
          const drops = soak.drops?.length ?? 0
          return (
            <li key={soak.id} className={look.soak} data-over={over || undefined} data-dropped={drops > 0 || undefined}>
              <RouterLink to={`/sites/${plan.site.id}/prove/${soak.run}`} className={`${text.link} ${text.mono}`}>
                {index.runs.get(soak.run)?.tag ?? soak.run}
              </RouterLink>{' '}
              <SoakClock key={soak.since + now} standing={standing} />
              {drops > 0 && `, dropped ${drops === 1 ? 'once' : `${drops} times`}`}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

type Row = { run: Run; proof: RunProof; ends: string[] }

function Group({ state, rows }: { state: RunState; rows: readonly Row[] }) {
  const { plan, index } = useSite()
  if (rows.length === 0) return null
  const table = (
    <RuledTable
      label={groupTitles[state]}
      columns={['Run', 'From and to', 'Leads', 'Tests', 'What to know']}
      widths={['5rem', '34%', '9rem', '9rem', 'auto']}
      cards
    >
      {rows.slice(0, MOST_SHOWN).map(({ run, proof, ends }) => (
        <tr key={run.id}>
          <td className={text.whole}>
            <RouterLink
              to={`/sites/${plan.site.id}/prove/${run.id}`}
              className={`${text.link} ${text.mono} ${text.strong}`}
            >
              {run.tag}
            </RouterLink>
          </td>
          <td>
            {ends[0]} <span className={text.quiet}>to {ends[1]}</span>
          </td>
          <td className={`${text.mono} ${text.tiny}`}>
            {run.leads.map((lead) => leadCable(index, lead).tag).join(' + ') || 'none yet'}
          </td>
          <td className={text.whole}>
            {proof.passed} of {proof.asked}
            {proof.failed > 0 && <span className={text.warn}>, {proof.failed} failed</span>}
          </td>
          <td>
            <Know run={run} proof={proof} />
          </td>
        </tr>
      ))}
    </RuledTable>
  )
  return (
    <section className={look.section} aria-labelledby={`group-${state}`}>
      <h2 id={`group-${state}`}>
        {groupTitles[state]} <span className={text.quiet}>{rows.length}</span>
      </h2>
      <p className={text.quiet}>
        {stateWords[state].says}{' '}
        {state === 'stale' && (
          <RouterLink to={`/sites/${plan.site.id}/test-plan?only=stale`} className={text.link}>
            Prove them again in one go
          </RouterLink>
        )}
      </p>
      {table}
      {rows.length > MOST_SHOWN && (
        <p className={text.quiet}>and {rows.length - MOST_SHOWN} more: find them by name.</p>
      )}
    </section>
  )
}

/** The one thing about a run that matters here. */
function Know({ run, proof }: { run: Run; proof: RunProof }) {
  const { plan, index } = useSite()
  const { state, accepted, laid, tests } = proof
  const [failed] = tests.filter((test) => test.failed && !test.waived)
  if (failed)
    return (
      <>
        Failed: {testName(index, failed.test, run)}.{' '}
        <RouterLink to={`/sites/${plan.site.id}/faults?run=${run.id}`} className={text.link}>
          Find the fault<span className={text.hidden}> of {run.tag}</span>
        </RouterLink>
      </>
    )
  const [stale, ...more] = staleWords(index, run, proof)
  if (stale)
    return (
      <>
        {stale}
        {more.length > 0 && `, and ${more.length} more`}
      </>
    )
  if (accepted)
    return (
      <>
        {state !== 'accepted' && 'accepted '}
        <Moment at={accepted.at} dayOnly />
        {accepted.by && `, ${accepted.by}`}
        {accepted.less && `, with less: ${accepted.less}`}
        {!accepted.rests && `, ${BEFORE_NOTED}`}
      </>
    )
  if (tests.some(({ result }) => result?.easier)) return <>Not everything ran at once.</>
  if (laid)
    return (
      <>
        laid <Moment at={laid.at} dayOnly />
        {laid.by && `, ${laid.by}`}
      </>
    )
  return null
}
