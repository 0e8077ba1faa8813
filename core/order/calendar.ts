import { byId } from '../plan/lookup'
import type { SiteIndex } from '../plan/site-index'
import { formatLength } from '../quantity/length'
import { addDays, type Day } from './days'
import { type Due, duesOf, WARN_DAYS } from './follow'

/** A whole day in a calendar. */
export type CalendarDay = { uid: string; on: Day; title: string; text: string }

const titles: Record<Due['what'], string> = {
  arrives: 'Expected',
  decide: 'Decide what is kept',
  'last day to send back': 'Last day to send back',
}

/** The days of a site's orders for a calendar; the last day to send something back is told two days before as well. */
export function calendarDays(index: SiteIndex): CalendarDay[] {
  const { plan } = index
  const lines = byId(plan.orderLines)
  return duesOf(index).flatMap((due): CalendarDay[] => {
    const line = lines.get(due.line)
    if (!line) return []
    const name = `${line.count} x ${byId(plan.kinds).get(line.kind)?.name ?? line.kind}, ${formatLength(line.length)}`
    const order = byId(plan.orders).get(due.order)?.name ?? due.order
    const day = (suffix: string, on: Day, title: string): CalendarDay => ({
      uid: `${plan.site.id}-${due.line}-${due.what.replaceAll(' ', '-')}${suffix}`,
      on,
      title: `${title}: ${name}`,
      text: `${plan.site.name}, ${order}.${due.unproved > 0 && due.what !== 'arrives' ? ` ${due.unproved} not proved yet.` : ''}`,
    })
    return [
      day('', due.on, titles[due.what]),
      ...(due.what === 'last day to send back'
        ? [day('-soon', addDays(due.on, -WARN_DAYS), 'Prove it or send it back')]
        : []),
    ]
  })
}
