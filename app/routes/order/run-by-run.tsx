import { Heading } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { leadTag } from '../../../core/change/differences'
import type { Choice, WantingRun } from '../../../core/order/choices'
import type { OrderPlan } from '../../../core/order/solution'
import { formatLength } from '../../../core/quantity/length'
import { moveSentence } from '../../../core/remedy/words'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { InlineSelect } from '../../ui/field'
import { GradeMark } from '../../ui/grade'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './order.module.css'
import { riskWords } from './order-words'
import { useStoredLeads } from './stored-leads'

/** What lies in a run by a choice, in words: "C-0021", "Dock lead, 2 m", and what is set up beside it. */
export function useLeadsOf(): (choice: Choice) => string {
  const { plan } = useSite()
  const unit = useUnit()
  const stored = useStoredLeads()
  return ({ leads, setUp }) =>
    [
      leads
        .map((lead) =>
          'kind' in lead
            ? `${leadTag(plan, lead)}, ${formatLength(lead.length, unit)}`
            : (stored.get(lead.cable) ?? leadTag(plan, lead)),
        )
        .join(' + ') || 'plug in socket',
      ...(setUp?.words ?? []).map((each) => moveSentence(each, unit)),
    ].join('. ')
}

/** What each run gets, with its risk, and what else it could have. */
export function RunTable({
  order,
  wanting,
  against,
  kept,
  keep,
  ask,
}: {
  order: OrderPlan
  wanting: readonly WantingRun[]
  against: OrderPlan | null
  kept: ReadonlySet<string>
  keep: (choice: string) => void
  /** Asks what choosing otherwise for a run would cost. */
  ask: (run: string) => void
}) {
  const { plan } = useSite()
  const leadsOf = useLeadsOf()
  const rows = wanting.flatMap(({ run, tag, now, choices }) => {
    const choice = order.chosen.get(run)
    return choice ? [{ run, tag, now, choice, choices }] : []
  })
  return (
    <section className={look.block} aria-labelledby="runs-heading">
      <Heading as="h2" size="md" mb="2" id="runs-heading">
        Run by run
      </Heading>
      <LongTable
        label="What each run gets"
        columns={['Run', 'Now', 'Gets', 'Then', 'Risk', 'Instead']}
        rows={rows}
        keyOf={({ run }) => run}
      >
        {({ run, tag, now, choice, choices }, props) => {
          const other = against?.chosen.get(run)
          return (
            <tr key={run} {...props}>
              <td className={look.tag}>
                <RouterLink
                  to={`/sites/${plan.site.id}/runs/${run}`}
                  className={`${text.link} ${text.mono} ${text.strong}`}
                >
                  {tag}
                </RouterLink>
              </td>
              <td>
                <GradeMark grade={now} size="xs" />
              </td>
              <td>
                {leadsOf(choice)}
                {kept.has(choice.id) && <span className={text.quiet}>, kept by you</span>}
                {other && other.id !== choice.id && (
                  <span className={`${text.block} ${text.small} ${text.quiet}`}>balanced: {leadsOf(other)}</span>
                )}
              </td>
              <td>
                <GradeMark grade={choice.grade} size="xs" />
              </td>
              <td>{choice.risks.map((risk) => riskWords[risk]).join(', ')}</td>
              <td>
                {choices.length > 1 && (
                  <>
                    <InlineSelect
                      aria-label={`Keep another lead for ${tag}`}
                      value=""
                      onChange={({ currentTarget }) => keep(currentTarget.value)}
                    >
                      <option value="">{choices.length === 2 ? '1 other' : `${choices.length - 1} others`}</option>
                      {choices
                        .filter(({ id }) => id !== choice.id)
                        .map((each) => (
                          <option key={each.id} value={each.id}>
                            {leadsOf(each)} ({each.grade})
                          </option>
                        ))}
                    </InlineSelect>{' '}
                    <QuietButton type="button" small aria-label={`What else costs for ${tag}`} onClick={() => ask(run)}>
                      What else costs
                    </QuietButton>
                  </>
                )}
              </td>
            </tr>
          )
        }}
      </LongTable>
    </section>
  )
}
