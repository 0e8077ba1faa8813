import { useMemo } from 'react'
import { Link as RouterLink } from 'react-router'
import type { OrderQuestion } from '../../../core/order/decide'
import type { OrderPlan } from '../../../core/order/solution'
import { useSolved } from '../../order/use-solved'
import text from '../../theme/text.module.css'
import { useSite } from '../../ui/site-context'
import { useAsked } from '../../ui/use-asked'
import type { Deciding } from '../../workers/order.worker'
import look from './order.module.css'
import { orderOf } from './plan-cards'
import { useLeadsOf } from './run-by-run'
import type { Elsewhere } from './stored-leads'

const EFFORT = { gap: 0.002, seconds: 20 }

/** What being ready for a named upgrade costs more than what is needed today, and which runs it gives something else. */
export function StepUp({
  upgrade,
  elsewhere: { stores, told },
  question,
  order,
  money,
}: {
  upgrade: string
  elsewhere: Elsewhere
  question: OrderQuestion
  order: OrderPlan
  money: (sum: number) => string
}) {
  const { plan, index } = useSite()
  const leadsOf = useLeadsOf()
  const asked = useMemo(() => ({ upgrade: null, stores, told }), [stores, told])
  const { step, last: wanting } = useAsked('choices', asked)
  const questions = useMemo(
    () =>
      step === 'answered' && wanting
        ? [{ key: 'today', ask: 'order', question: { ...question, wanting, effort: EFFORT } } satisfies Deciding]
        : null,
    [step, wanting, question],
  )
  const today = orderOf(useSolved(questions).answers.get('today'))
  const name = plan.upgrades.find(({ id }) => id === upgrade)?.name ?? upgrade
  if (!today) return <p role="status">Working out what {name} costs more than what is needed today.</p>
  const other = [...order.chosen].flatMap(([run, choice]) => {
    const before = today.chosen.get(run)
    return before?.id === choice.id
      ? []
      : [{ run, words: `${before ? leadsOf(before) : 'nothing'} today, ${leadsOf(choice)} then` }]
  })
  const more = order.cost - today.cost
  const served = new Set(today.unserved)
  const lost = order.unserved.filter((run) => !served.has(run)).map((run) => index.runs.get(run)?.tag ?? run)
  return (
    <div role="status" className={look.note}>
      <p>
        Ready for {name}: <b className={text.mono}>{money(order.cost)}</b>. For today alone:{' '}
        <b className={text.mono}>{money(today.cost)}</b>. The step up costs{' '}
        <b className={text.mono}>{more < 0.005 ? 'nothing more' : money(more)}</b>
        {other.length === 0
          ? ', and changes no run.'
          : ` and serves ${other.length === 1 ? 'this run' : 'these runs'}:`}
      </p>
      {lost.length > 0 && (
        <p>
          <b>
            Nothing serves {lost.length === 1 ? 'this run' : 'these runs'} then: {lost.join(' ')}.
          </b>{' '}
          What would is not in the price.
        </p>
      )}
      {other.length > 0 && (
        <ul>
          {other.slice(0, 20).map(({ run, words }) => (
            <li key={run}>
              <RouterLink to={`/sites/${plan.site.id}/runs/${run}`} className={`${text.link} ${text.mono}`}>
                {index.runs.get(run)?.tag ?? run}
              </RouterLink>
              : {words}
            </li>
          ))}
          {other.length > 20 && <li>and {other.length - 20} more</li>}
        </ul>
      )}
    </div>
  )
}
