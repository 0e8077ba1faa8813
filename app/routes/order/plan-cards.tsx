import type { Decision } from '../../../core/order/decide'
import type { OrderPlan } from '../../../core/order/solution'
import { ORDER_PLANS, type OrderPlanName } from '../../../core/order/wishes'
import { decimal } from '../../../core/quantity/parsed'
import type { Answers } from '../../order/use-solved'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import look from './order.module.css'
import { planWords, whyImpossible } from './order-words'

/** The plans beside each other, each with what it costs and what it leaves. */
export function PlanCards({
  decisions,
  working,
  shown,
  show,
  money,
  runs,
}: {
  decisions: Answers<Decision>
  working: boolean
  shown: OrderPlanName
  show: (name: OrderPlanName) => void
  money: (sum: number) => string
  runs: number
}) {
  return (
    <ul className={look.plans}>
      {ORDER_PLANS.map((name) => {
        const at = decisions.get(name)
        const found = orderOf(at)
        return (
          <li key={name} className={look.plan} data-shown={shown === name || undefined}>
            <b>{planWords[name].name}</b>
            <span className={`${text.small} ${text.quiet}`}>{planWords[name].by}</span>
            {at === null && <span>This could not be worked out.</span>}
            {at?.state === 'impossible' && <span>{whyImpossible[at.why]}</span>}
            {found && <PlanFacts order={found} money={money} runs={runs} />}
            <span className={`${text.small} ${text.quiet}`}>{stateWords(at, working)}</span>
            {found && (
              <div className={look.tools}>
                <QuietButton type="button" small aria-pressed={shown === name} onClick={() => show(name)}>
                  {shown === name ? 'Shown below' : 'Show it'}
                </QuietButton>
              </div>
            )}
          </li>
        )
      })}
    </ul>
  )
}

export const orderOf = (at: Decision | null | undefined): OrderPlan | null => (at && 'order' in at ? at.order : null)

function stateWords(at: Decision | null | undefined, working: boolean): string {
  if (at === undefined) return working ? 'waits for its turn' : 'not worked out'
  if (at === null || at.state === 'impossible') return ''
  const left = at.gap === null ? null : decimal(at.gap * 100, 1)
  if (at.state === 'better') return left === null ? 'a first answer' : `so far; at most ${left} % could be saved`
  return left === '0' ? `proved the best, ${decimal(at.seconds, 1)} s` : `at most ${left} % could be saved still`
}

function PlanFacts({ order, money, runs }: { order: OrderPlan; money: (sum: number) => string; runs: number }) {
  const spare = order.purchases.reduce((sum, each) => sum + each.spare, 0)
  const pieces = order.purchases.reduce((sum, each) => sum + each.count, 0)
  const fromDrawer = [...order.chosen.values()].filter(({ articles }) => articles.length === 0).length
  return (
    <>
      <span className={look.price}>{money(order.cost)}</span>
      <ul className={look.facts}>
        <li>
          {pieces} to buy, {order.articles} {order.articles === 1 ? 'article' : 'articles'}
          {spare > 0 && `, ${spare} spare`}
        </li>
        <li>
          {fromDrawer} of {runs} runs without buying
        </li>
        <li>
          {order.tight.length} tight, {order.risky.length} at a risk
        </li>
        {order.unserved.length > 0 && <li>{order.unserved.length} with nothing that serves them</li>}
      </ul>
    </>
  )
}
