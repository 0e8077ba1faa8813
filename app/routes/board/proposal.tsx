import { Heading, Text } from '@chakra-ui/react'
import { type ReactNode, useMemo, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import type { Finding } from '../../../core/checks/checks'
import { sentence } from '../../../core/checks/sentences'
import type { Turned } from '../../../core/checks/turned'
import { gradeWords } from '../../../core/checks/wording'
import type { LeadProposal as Proposal } from '../../../core/match/lead-proposal'
import { decimal } from '../../../core/quantity/parsed'
import type { WayForRun } from '../../../core/remedy/each'
import { moveSentence } from '../../../core/remedy/words'
import type { CableKind } from '../../../core/vocabulary/cable'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { DoorGlyph, GradeMark } from '../../ui/grade'
import { LongTable, type RowProps } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Take } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { type AnswerSoFar, useAsked } from '../../ui/use-asked'
import look from './proposal.module.css'

type Props = { runs: readonly string[]; close: () => void }

/** What is worked out for many runs, how far it is, and a way to stop it. */
function Panel({
  title,
  waiting,
  failed,
  close,
  children,
}: {
  title: string
  waiting: string | null
  failed: boolean
  close: () => void
  children: ReactNode
}) {
  return (
    <section aria-labelledby="proposal-heading" aria-busy={waiting !== null} className={look.panel}>
      <div className={look.head}>
        <Heading as="h2" size="md" id="proposal-heading">
          {title}
        </Heading>
        <QuietButton type="button" small onClick={close}>
          {waiting === null ? 'Not now' : 'Stop'}
        </QuietButton>
      </div>
      <p role="status">{waiting}</p>
      {failed && <Text color="blocked">This could not be worked out. Reload the page.</Text>}
      {children}
    </section>
  )
}

const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`

/** The best from the drawer for many runs. */
export function BestLeads({ runs, close }: Props) {
  const question = useMemo(() => ({ runs }), [runs])
  return (
    <LeadProposal
      runs={runs}
      close={close}
      asked={useAsked('leads', question)}
      title="The best from the drawer"
      none="No free cable in the drawer would improve any of these runs."
      some="a lead that is free in the drawer"
    />
  )
}

/** One kind of cable for many runs, for whoever knows which. */
export function OneKind({ runs, kind, close }: Props & { kind: CableKind }) {
  const question = useMemo(() => ({ runs, kind: kind.id }), [runs, kind.id])
  return (
    <LeadProposal
      runs={runs}
      close={close}
      asked={useAsked('kind', question)}
      title={kind.name}
      none="It plugs into none of these runs, or is not sold long enough for them."
      some="it, at the shortest length sold that spans the route"
    />
  )
}

/** Leads for many runs, shown before it is done: each run with its lead and what that makes of it. */
function LeadProposal({
  runs,
  close,
  asked: { step, last, done },
  title,
  none,
  some,
}: Props & { asked: AnswerSoFar<Proposal>; title: string; none: string; some: string }) {
  const unit = useUnit()
  const [left, setLeft] = useState(false)
  const proposal = step === 'answered' ? last : null
  return (
    <Panel
      title={title}
      waiting={step === 'asking' ? `Looking: ${done} of ${counted(runs.length, 'run', 'runs')}.` : null}
      failed={step === 'failed'}
      close={close}
    >
      {proposal && (
        <>
          <p>
            {proposal.leads.length === 0
              ? none
              : `${counted(proposal.leads.length, 'run gets', 'runs get')} ${some}. Nothing has been changed yet.`}
          </p>
          <Worse worse={proposal.worse} />
          {proposal.leads.length > 0 && (
            <>
              <div className={look.take}>
                <Take name="choose leads" about={proposal.leads.map(({ tag }) => tag)} edits={proposal.edits} main>
                  {`Lay ${counted(proposal.leads.length, 'lead', 'leads')}`}
                </Take>
              </div>
              <LongTable
                label="Leads proposed"
                columns={['Run', 'Lead', 'Before', 'Then']}
                rows={proposal.leads}
                keyOf={({ run }) => run}
              >
                {(row, props) => (
                  <tr key={row.run} {...props}>
                    <td>
                      <RunLink run={row.run} tag={row.tag} />
                    </td>
                    <td className={text.mono}>{row.cable}</td>
                    <td>
                      <GradeMark grade={row.before} size="xs" />
                    </td>
                    <td>
                      <GradeMark grade={row.after} size="xs" />
                    </td>
                  </tr>
                )}
              </LongTable>
            </>
          )}
          {proposal.left.length > 0 && (
            <>
              <p>
                <QuietButton type="button" small onClick={() => setLeft(!left)} aria-expanded={left}>
                  {left ? 'Hide' : 'Show'} the {counted(proposal.left.length, 'run', 'runs')} it does nothing for
                </QuietButton>
              </p>
              {left && (
                <LongTable
                  label="Runs left as they are"
                  columns={['Run', 'Verdict', 'Why']}
                  rows={proposal.left}
                  keyOf={({ run }) => run}
                >
                  {(row, props) => (
                    <tr key={row.run} {...props}>
                      <td>
                        <RunLink run={row.run} tag={row.tag} />
                      </td>
                      <td>
                        <GradeMark grade={row.grade} size="xs" />
                      </td>
                      <td>{row.leading ? sentence(row.leading, unit) : ''}</td>
                    </tr>
                  )}
                </LongTable>
              )}
            </>
          )}
        </>
      )}
    </Panel>
  )
}

/** One way out for each of many runs: what it would be, and what it would cost together. */
export function WaysOfAll({ runs, close }: Props) {
  const question = useMemo(() => ({ runs }), [runs])
  const { step, last, done } = useAsked('waysOfAll', question)
  const { plan, index } = useSite()
  const unit = useUnit()
  const answers = (step === 'answered' ? last : null)?.map(({ run, found }) => ({ run, found, way: found.ways[0] }))
  const price = answers?.reduce((sum, { way }) => sum + (way?.price ?? 0), 0) ?? 0
  const unpriced = answers?.filter(({ way }) => way?.price === null).length ?? 0
  const helped = answers?.filter(({ way }) => way !== undefined).length ?? 0
  return (
    <Panel
      title="A way out for each"
      waiting={step === 'asking' ? `Trying small changes: ${done} of ${counted(runs.length, 'run', 'runs')}.` : null}
      failed={step === 'failed'}
      close={close}
    >
      {answers && (
        <>
          <p>
            {counted(helped, 'run has', 'runs have')} a way out. No lead goes to two of them. To buy:{' '}
            {decimal(price, 2)} {plan.policy.currency}
            {unpriced > 0 ? `, and ${counted(unpriced, 'price', 'prices')} to be asked` : ''}.
          </p>
          <LongTable
            label="Ways out"
            columns={['Run', 'Then', 'What to do', '']}
            rows={answers}
            keyOf={({ run }) => run}
          >
            {({ run, found, way }, props: RowProps) => {
              const tag = index.runs.get(run)?.tag ?? run
              const words = way?.moves.map((move) => moveSentence(move, unit)) ?? []
              return (
                <tr key={run} {...props}>
                  <td>
                    <RunLink run={run} tag={tag} />
                  </td>
                  <td>{way ? <GradeMark grade={way.after} size="xs" /> : <DoorGlyph grade="blocked" />}</td>
                  <td>{way ? words.join(' ') : nothingHelps(found, (finding) => sentence(finding, unit))}</td>
                  <td>
                    {way && (
                      <Take
                        name="follow advice"
                        about={[tag, ...words]}
                        edits={way.edits}
                        label={`Do it: ${words.join(' ')}`}
                      >
                        Do it
                      </Take>
                    )}
                  </td>
                </tr>
              )
            }}
          </LongTable>
        </>
      )}
    </Panel>
  )
}

/** Why a run has no way out: what could still be tried, or what stands in the way. */
function nothingHelps({ prove, elsewhere, closest }: WayForRun['found'], say: (finding: Finding) => string): string {
  if (prove.length > 0) return `Prove ${prove.join(' and ')} on the bench: evidence is all that is missing.`
  if (elsewhere) return `${elsewhere.cable} would do, and lies in ${elsewhere.run}.`
  return `No small change helps. ${closest ? say(closest.leading) : ''}`
}

function RunLink({ run, tag }: { run: string; tag: string }) {
  const { plan } = useSite()
  return (
    <RouterLink to={`/sites/${plan.site.id}/runs/${run}`} className={`${text.link} ${text.mono} ${text.strong}`}>
      {tag}
    </RouterLink>
  )
}

/** What gets worse elsewhere, where anything does. */
function Worse({ worse }: { worse: readonly Turned[] }) {
  if (worse.length === 0) return null
  return (
    <p className={look.worse}>
      Worse for it:{' '}
      {worse
        .slice(0, 8)
        .map(({ label, to }) => `${label} (${gradeWords[to]})`)
        .join(', ')}
      {worse.length > 8 ? ` and ${worse.length - 8} more` : ''}.
    </p>
  )
}
