/** A day as plans keep it: "2026-11-25". Days are those of the calendar, whatever the clock and its time zone. */
export type Day = string

const MS_A_DAY = 86_400_000
const noon = (day: Day): number => Date.parse(`${day}T12:00:00Z`)

/** The day so many days after another; the day itself is not counted. */
export const addDays = (day: Day, days: number): Day => new Date(noon(day) + days * MS_A_DAY).toISOString().slice(0, 10)

/** How many days later one day is than another; negative where it is earlier. */
export const daysFrom = (from: Day, to: Day): number => Math.round((noon(to) - noon(from)) / MS_A_DAY)
