import { z } from 'zod'
import { type BatteryCourse, batteryCourse, drawAt, headsetSource } from '../headset/headset'
import { arrivesAt, powerLink } from '../link/power-link'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { formatWatts } from '../quantity/watts'
import { batteries, wire } from './aspects'
import { check, reason } from './check'
import { feeds } from './feeds-aspect'
import type { Verdict } from './finding'
import { portPart } from './situation'

/** A battery that drains lasts the hours that are asked, or it does not; where nobody says how many it is tight. */
function gradeOf(course: BatteryCourse, hours: number | undefined): Verdict {
  if (course.course !== 'drains') return 'clear'
  if (hours === undefined) return 'tight'
  return atLeast(course.hours, hours) ? 'clear' : 'blocked'
}

const courseFigure = z.discriminatedUnion('course', [
  z.strictObject({ course: z.literal('drains'), hours: z.number() }),
  z.strictObject({ course: z.literal('holds') }),
  z.strictObject({ course: z.literal('charges'), hoursToCeiling: z.number() }),
])

/** Whether a headset's battery holds, charges or drains on what arrives over the run while it is worn. */
export const batteryCheck = check({
  name: 'battery',
  reasons: {
    battery: reason({ course: courseFigure, hours: z.number().nullable() }, ({ course, hours }, { have, need }) => {
      const figures = `${formatWatts(have)} arrive and ${formatWatts(need)} are drawn`
      if (course.course === 'holds') return `The battery holds: ${figures}.`
      if (course.course === 'charges') return `The battery charges, to about 92 %: ${figures}.`
      return `The battery drains though it is plugged in, and lasts about ${decimal(course.hours, 1)} h${hours === null ? '' : ` of the ${decimal(hours, 1)} h that are asked`}: ${figures}.`
    }),
  },
  remedies: ['stronger-supply'],
  reads: [batteries, feeds, wire],
  source: headsetSource,
  *find({ index, laid, crossings }) {
    const { battery } = laid.to.device
    if (!battery || laid.leads.length === 0) return
    // what was followed stands in place of what is predicted
    if (laid.seen.figures.some(({ measure, before }) => measure === 'battery' && !before)) return
    for (const { need, lastMile } of crossings) {
      if (need.kind !== 'headset' || !lastMile) continue
      const link = powerLink(index, laid, 'down')
      const taken = arrivesAt(link, Math.min(link.watts, laid.to.port.takes ?? link.watts)).watts
      const draw = drawAt(battery, need.refresh)
      const course = batteryCourse({ capacity: battery.wattHours, draw, supply: taken })
      const grade = gradeOf(course, need.hours)
      yield {
        grade,
        part: portPart(laid.from),
        needId: need.id,
        measured: { have: taken, need: draw, unit: 'W' },
        reason: { code: 'battery', course, hours: need.hours ?? null },
        remedies: grade === 'clear' ? [] : [{ code: 'stronger-supply', watts: draw }],
      }
    }
  },
})
