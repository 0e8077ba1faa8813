import { createEvents } from 'ics'
import type { CalendarDay } from '../../core/order/calendar'
import { addDays, type Day } from '../../core/order/days'

const dayOf = (day: Day): [number, number, number] => {
  const [year = 0, month = 0, date = 0] = day.split('-').map(Number)
  return [year, month, date]
}

/** Days as an iCalendar file (RFC 5545): whole days, which no time zone moves. */
export function calendarFile(days: readonly CalendarDay[]): string {
  const { error, value } = createEvents(
    days.map(({ uid, on, title, text }) => ({
      uid: `${uid}@hallway`,
      productId: 'hallway/orders',
      title,
      description: text,
      start: dayOf(on),
      end: dayOf(addDays(on, 1)),
    })),
  )
  if (error) throw error
  return value ?? ''
}
