import { useEffect, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { type Due, duesOf, nearness } from '../../../core/order/follow'
import { byId } from '../../../core/plan/lookup'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { dayOf } from '../../ui/use-today'
import { lineName } from './order-words'

/** What has to be decided or sent back next, wherever somebody looks at the whole site. */
export function DueNotice() {
  const { plan, index } = useSite()
  const unit = useUnit()
  const [today, setToday] = useState<string | null>(null)
  useEffect(() => setToday(dayOf(new Date())), [])
  const [next, ...later] = plan.orderLines.length === 0 ? [] : duesOf(index).filter(({ what }) => what !== 'arrives')
  const line = next && byId(plan.orderLines).get(next.line)
  if (!next || !line) return null
  const near = today === null ? 'later' : nearness(next, today)
  return (
    <Notice tone={near === 'later' ? 'note' : near === 'over' ? 'blocked' : 'tight'} slim>
      {dueWords[next.what]} {next.on}
      {near === 'over' && ' (late)'}
      {near === 'near' && ' (soon)'}: {lineName(plan, line, unit)}
      {next.unproved > 0 && `, ${next.unproved} not proved yet`}.{' '}
      <RouterLink to={`/sites/${plan.site.id}/orders`} className={text.link}>
        {later.length > 0
          ? `Orders, and ${later.length} more ${later.length === 1 ? 'day' : 'days'} to keep`
          : 'Orders'}
      </RouterLink>
    </Notice>
  )
}

const dueWords: Record<Due['what'], string> = {
  arrives: 'Expected on',
  decide: 'Decide what is kept by',
  'last day to send back': 'Send back by',
}
