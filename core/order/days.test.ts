import { differenceInCalendarDays, formatISO, addDays as reference } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, daysFrom } from './days'

describe('days are those of the calendar', () => {
  it.each([
    ['2024-02-28', 1, '2024-02-29'],
    ['2023-02-28', 1, '2023-03-01'],
    ['2100-02-28', 1, '2100-03-01'],
    ['2026-12-31', 1, '2027-01-01'],
    ['2026-03-28', 2, '2026-03-30'],
    ['2026-10-24', 2, '2026-10-26'],
    ['2026-01-31', 30, '2026-03-02'],
    ['2026-03-01', -1, '2026-02-28'],
  ])('%s and %i days is %s', (day, days, then) => {
    expect(addDays(day, days)).toBe(then)
    expect(daysFrom(day, then)).toBe(days)
  })
  it('as date-fns reckons them, whatever the time zone', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1990-01-02'), max: new Date('2190-01-01'), noInvalidDate: true }),
        fc.integer({ min: -400, max: 400 }),
        (date, days) => {
          const day = formatISO(date, { representation: 'date' })
          const then = formatISO(reference(date, days), { representation: 'date' })
          expect(addDays(day, days)).toBe(then)
          expect(daysFrom(day, then)).toBe(differenceInCalendarDays(reference(date, days), date))
        },
      ),
    )
  })
})
