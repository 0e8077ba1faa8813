import { useEffect, useState } from 'react'
import type { Day } from '../../core/order/days'

/** The day it is where the reader is. Until scripts run it is the server's, in UTC. */
export function useToday(atServer: Day): Day {
  const [today, setToday] = useState(atServer)
  useEffect(() => setToday(dayOf(new Date())), [])
  return today
}

/** The calendar's day of a moment, by the clock of whoever looks. */
export function dayOf(moment: Date): Day {
  const two = (figure: number): string => String(figure).padStart(2, '0')
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`
}

/** The day it is in UTC, for a page that is made where nobody knows where its reader is. */
export const utcToday = (): Day => new Date().toISOString().slice(0, 10)
