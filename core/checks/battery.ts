import { type BatteryCourse, batteryCourse, headsetSource } from '../headset/headset'
import { arriving } from '../link/supply'
import { atLeast } from '../quantity/limit'
import type { Finding, Verdict } from './finding'
import { type Check, portPart, type Situation } from './situation'

/** A battery that drains lasts the hours that are asked, or it does not; where nobody says how many it is tight. */
function gradeOf(course: BatteryCourse, hours: number | undefined): Verdict {
  if (course.course !== 'drains') return 'clear'
  if (hours === undefined) return 'tight'
  return atLeast(course.hours, hours) ? 'clear' : 'blocked'
}

/** Whether a headset's battery holds, charges or drains on what arrives over the run while it is worn. */
export const batteryCheck: Check = {
  name: 'battery',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    const { battery } = laid.to.device
    if (!battery || laid.leads.length === 0) return
    for (const { need, lastMile } of crossings) {
      if (need.kind !== 'headset' || !lastMile) continue
      const taken = Math.min(arriving(laid, laid.from, laid.to).watts, laid.to.port.takes ?? Number.POSITIVE_INFINITY)
      const course = batteryCourse({ capacity: battery.wattHours, draw: battery.draw, supply: taken })
      yield {
        check: 'battery',
        grade: gradeOf(course, need.hours),
        part: portPart(laid.from),
        needId: need.id,
        have: taken,
        need: battery.draw,
        unit: 'W',
        reason: { code: 'battery', course, hours: need.hours ?? null },
        remedies: gradeOf(course, need.hours) !== 'clear' ? [{ code: 'stronger-supply', watts: battery.draw }] : [],
        source: headsetSource,
      }
    }
  },
}
