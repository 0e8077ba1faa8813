import fc from 'fast-check'
import ICAL from 'ical.js'
import { expect, it } from 'vitest'
import { calendarDays } from '../../core/order/calendar'
import { addDays } from '../../core/order/days'
import { indexPlan } from '../../core/plan/site-index'
import { demo } from '../../tests/support/demo-plan'
import { calendarFile } from './calendar-file'

/** The same file as ical.js reads it. */
const readBack = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component)
    const { startDate, endDate } = event
    return {
      uid: event.uid,
      title: event.summary,
      text: event.description,
      on: startDate.toString(),
      until: endDate.toString(),
      wholeDay: startDate.isDate,
    }
  })

it('every day comes back as it was, whatever its words, over ends of months and leap days', () => {
  const day = fc.record({
    uid: fc.stringMatching(/^[a-z0-9-]{1,20}$/),
    on: fc.integer({ min: 0, max: 40_000 }).map((days) => addDays('2024-02-28', days)),
    title: fc
      .string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 120 })
      .filter((each) => each.trim() === each && each !== ''),
    text: fc
      .string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 120 })
      .filter((each) => each.trim() === each && each !== ''),
  })
  fc.assert(
    fc.property(fc.array(day, { minLength: 1, maxLength: 5 }), (days) => {
      expect(readBack(calendarFile(days))).toEqual(
        days.map(({ uid, on, title, text }) => ({
          uid: `${uid}@hallway`,
          title,
          text,
          on,
          until: addDays(on, 1),
          wholeDay: true,
        })),
      )
    }),
  )
})

it('the demo has a delivery to come and a lead to prove or send back', () => {
  const days = readBack(calendarFile(calendarDays(indexPlan(demo))))
  expect(days.map(({ on, title }) => `${on} ${title}`)).toEqual([
    '2026-11-20 Expected: 2 x DisplayPort lead, HBR3, 3 m',
    '2026-12-04 Last day to send back: 1 x Type-C, 40 Gb/s mark, 100 W, 0.8 m',
    '2026-12-02 Prove it or send it back: 1 x Type-C, 40 Gb/s mark, 100 W, 0.8 m',
  ])
})
