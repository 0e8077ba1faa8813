import { calendarDays } from '../../../core/order/calendar'
import { indexPlan } from '../../../core/plan/site-index'
import { calendarFile } from '../../order/calendar-file'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/dues-file'

/** The days of a site's orders for a calendar. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return new Response(calendarFile(calendarDays(indexPlan(copy.plan))), {
    headers: {
      'Content-Type': 'text/calendar; charset=utf-8',
      'Content-Disposition': `attachment; filename="${params.site}-orders.ics"`,
    },
  })
}
