import { reachOf } from '../headset/area'
import { headsetSource } from '../headset/headset'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

/** The lead of a headset reaches every corner of its play area at head height, where the area stands on a floor. */
export const playAreaCheck: Check = {
  name: 'play area',
  *findings({ index, laid }: Situation): Iterable<Finding> {
    for (const { device } of [laid.from, laid.to]) {
      const reach = reachOf(index, device, laid.run)
      if (!reach) continue
      const beyond = reach.corners.filter(({ short }) => short > 0)
      const short = Math.max(0, ...beyond.map((corner) => corner.short))
      yield {
        check: 'play area',
        grade: beyond.length > 0 ? 'blocked' : 'clear',
        part: runPart(laid.run),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'play-area', corners: beyond.length, short },
        remedies: beyond.length > 0 ? [{ code: 'longer', length: laid.run.route.length + short }] : [],
        source: headsetSource,
        caution: 'trip',
      }
    }
  },
}
