import { Heading } from '@chakra-ui/react'
import { useMemo } from 'react'
import type { Choice, WantingRun } from '../../../core/order/choices'
import type { OrderQuestion } from '../../../core/order/decide'
import type { OrderPlan } from '../../../core/order/solution'
import { decimal } from '../../../core/quantity/parsed'
import { useSolved } from '../../order/use-solved'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import type { Deciding } from '../../workers/order.worker'
import look from './order.module.css'
import { riskWords } from './order-words'
import { orderOf } from './plan-cards'
import { useLeadsOf } from './run-by-run'

/** So many other choices of a run are priced, those that are clear first. */
const MOST_PRICED = 12
/** Near enough for a difference that is told in money. */
const EFFORT = { gap: 0.002, seconds: 10 }

/** What choosing otherwise for one run costs: everything decided again, with each other choice kept in turn. */
export function Otherwise({
  question,
  order,
  run: { run, tag, choices },
  money,
  keep,
  close,
}: {
  question: OrderQuestion
  order: OrderPlan
  run: WantingRun
  money: (sum: number) => string
  keep: (choice: string) => void
  close: () => void
}) {
  const { plan } = useSite()
  const leadsOf = useLeadsOf()
  const taken = order.chosen.get(run)
  const others = useMemo(
    () =>
      choices
        .filter(({ id }) => id !== taken?.id)
        .sort((one, other) => Number(one.grade === 'tight') - Number(other.grade === 'tight'))
        .slice(0, MOST_PRICED),
    [choices, taken],
  )
  const questions = useMemo(() => others.map((choice): Deciding => keptOf(question, choice)), [others, question])
  const { answers, working } = useSolved(questions)
  const difference = (sum: number): string =>
    Math.abs(sum) < 0.005 ? 'the same' : `${sum > 0 ? '+' : '−'}${money(Math.abs(sum))}`
  return (
    <section className={look.block} aria-labelledby="otherwise-heading" id="otherwise">
      <Heading as="h2" size="md" mb="1" id="otherwise-heading">
        {tag}: what else costs
      </Heading>
      <p role="status">
        {taken && `It gets ${leadsOf(taken)}. `}
        {working
          ? 'The whole order is decided again with each of the others.'
          : 'Each difference is of the whole order.'}
        {choices.length - 1 > MOST_PRICED && ` The first ${MOST_PRICED} of ${choices.length - 1} are shown.`}
      </p>
      <RuledTable
        label={`What else ${tag} could have`}
        columns={['Instead', 'Then', 'Risk', `In all, ${plan.policy.currency}`, '']}
        cards
      >
        {others.map((choice) => {
          const answer = answers.get(choice.id)
          const other = orderOf(answer)
          return (
            <tr key={choice.id}>
              <td>{leadsOf(choice)}</td>
              <td>
                <GradeMark grade={choice.grade} size="xs" />
              </td>
              <td>{choice.risks.map((risk) => riskWords[risk]).join(', ')}</td>
              <td className={text.mono}>
                {answer === undefined && (working ? '…' : 'not worked out')}
                {answer === null && 'not worked out'}
                {answer?.state === 'impossible' && 'not possible with the rest'}
                {answer?.state !== 'impossible' && other && difference(decimalled(other.cost - order.cost))}
              </td>
              <td>
                <QuietButton
                  type="button"
                  small
                  aria-label={`Keep ${leadsOf(choice)} for ${tag}`}
                  onClick={() => keep(choice.id)}
                >
                  Keep this
                </QuietButton>
              </td>
            </tr>
          )
        })}
      </RuledTable>
      <QuietButton type="button" small onClick={close}>
        Close
      </QuietButton>
    </section>
  )
}

const decimalled = (sum: number): number => Number(decimal(sum, 2))

/** The same question with one choice kept; another that was kept for the run gives way. */
const keptOf = (question: OrderQuestion, { id, run }: Choice): Deciding => ({
  key: id,
  ask: 'order',
  question: {
    ...question,
    wishes: {
      ...question.wishes,
      fixed: [...question.wishes.fixed.filter((each) => !each.startsWith(`${run}/`)), id],
    },
    effort: EFFORT,
  },
})
