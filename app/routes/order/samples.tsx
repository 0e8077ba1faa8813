import { Heading } from '@chakra-ui/react'
import { useMemo } from 'react'
import { articleParts } from '../../../core/order/articles'
import type { WantingRun } from '../../../core/order/choices'
import type { Market } from '../../../core/order/model'
import type { OrderPlan } from '../../../core/order/solution'
import { tryFirst, withSamples } from '../../../core/order/try-first'
import type { Wishes } from '../../../core/order/wishes'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import text from '../../theme/text.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { PlanOrder } from './bought'
import look from './order.module.css'

/** Samples bought first for the hardest run, with what that costs on the average beside buying at once. */
export function Samples({
  order,
  wanting,
  market,
  wishes,
  money,
  today,
}: {
  order: OrderPlan
  wanting: readonly WantingRun[]
  market: Market
  wishes: Wishes
  money: (sum: number) => string
  today: string
}) {
  const { index } = useSite()
  const unit = useUnit()
  const trial = useMemo(() => tryFirst(wanting, order, market, wishes), [wanting, order, market, wishes])
  const decided = useMemo(
    () => (trial ? withSamples(order, trial, wanting, market, wishes, today) : null),
    [order, trial, wanting, market, wishes, today],
  )
  // a lone sample for a lone run is what would be bought anyway
  if (!trial || trial.group.length + trial.samples.length === 2) return null
  const tagOf = (run: string): string => index.runs.get(run)?.tag ?? run
  const percent = (odds: number): string => `${decimal(odds * 100, 0)} %`
  return (
    <section className={look.block} aria-labelledby="samples-heading">
      <Heading as="h2" size="md" mb="1" id="samples-heading">
        Try first
      </Heading>
      <p>
        {trial.group.length === 1
          ? `${tagOf(trial.run)} would get a lead of a kind that was hardly tried here.`
          : `${trial.group.length} runs would get leads of kinds that were hardly tried here. ${tagOf(trial.run)} is the hardest of them.`}{' '}
        {trial.samples.length === 1
          ? 'One sample is bought first.'
          : `${trial.samples.length} samples are bought first.`}{' '}
        What holds is kept, the rest goes back, and the other runs are bought for after that.
      </p>
      <ul className={look.note}>
        <li>
          Samples first: <b className={text.mono}>{money(trial.expected)}</b> for these runs on average
        </li>
        <li>
          Bought at once, untried: <b className={text.mono}>{money(trial.untried)}</b> on average
        </li>
        <li>
          If nothing holds ({percent(trial.none)}): {money(trial.fallback)} for what is known to do
        </li>
      </ul>
      <RuledTable
        label="What is bought to try"
        columns={['Sample', 'Price', 'Odds that it holds', 'If not', 'All these runs with it']}
        cards
      >
        {trial.samples.map(({ kind, article, price, odds, back, group }) => (
          <tr key={kind}>
            <td>
              {index.kinds.get(kind)?.name ?? kind}, {formatLength(articleParts(article).length, unit)}
            </td>
            <td className={text.mono}>{money(price)}</td>
            <td>{percent(odds)}</td>
            <td>{back ? 'goes back' : 'the money is lost'}</td>
            <td className={text.mono}>{money(group)}</td>
          </tr>
        ))}
      </RuledTable>
      <p className={`${text.small} ${text.quiet} ${look.note}`}>
        Odds follow from what was tried here. What nobody tried counts as {percent(wishes.holds)}, which you can change
        above. Delivery is not counted here.
      </p>
      {decided && <PlanOrder decided={decided}>Plan it with samples first</PlanOrder>}
    </section>
  )
}
