import { createEvents, type EventAttributes } from 'ics'
import { calendarDays } from '../../../core/order/calendar'
import { addDays, type Day } from '../../../core/order/days'
import { indexPlan } from '../../../core/plan/site-index'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/dues-file'

const dayOf = (day: Day): [number, number, number] => {
  const [year = 0, month = 0, date = 0] = day.split('-').map(Number)
  return [year, month, date]
}

/** The days of a site's orders as an iCalendar file (RFC 5545): whole days, which no time zone moves. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const days = calendarDays(indexPlan(copy.plan))
  const events = days.map(
    ({ uid, on, title, text }): EventAttributes => ({
      uid: `${uid}@hallway`,
      productId: 'hallway/orders',
      title,
      description: text,
      start: dayOf(on),
      end: dayOf(addDays(on, 1)),
    }),
  )
  const made = createEvents(events)
  if (made.error) throw made.error
  return new Response(made.value, {
    headers: {
      'Content-Type': 'text/calendar; charset=utf-8',
      'Content-Disposition': `attachment; filename="${params.site}-orders.ics"`,
    },
  })
}
