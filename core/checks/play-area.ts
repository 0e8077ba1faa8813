import { z } from 'zod'
import { reachOf } from '../headset/area'
import { headsetSource } from '../headset/headset'
import { playArea } from './aspects'
import { check, reason } from './check'
import { metresField } from './finding'
import { runPart } from './situation'

/** The lead of a headset reaches every corner of its play area at head height, where the area stands on a floor. */
export const playAreaCheck = check({
  name: 'play area',
  reasons: {
    'play-area': reason({ corners: z.int(), short: metresField }, ({ corners, short }, { metres }) =>
      corners === 0
        ? 'The lead reaches every corner of the play area at head height.'
        : `At head height the lead does not reach ${corners === 1 ? 'one corner' : `${corners} corners`} of the play area: ${metres(short)} are missing to the farthest.`,
    ),
  },
  remedies: ['longer'],
  reads: [playArea],
  source: headsetSource,
  *find({ index, laid }) {
    for (const { device } of [laid.from, laid.to]) {
      const reach = reachOf(index, device, laid.run)
      if (!reach) continue
      const beyond = reach.corners.filter(({ short }) => short > 0)
      const short = Math.max(0, ...beyond.map((corner) => corner.short))
      yield {
        grade: beyond.length > 0 ? 'blocked' : 'clear',
        part: runPart(laid.run),
        reason: { code: 'play-area', corners: beyond.length, short },
        remedies: beyond.length > 0 ? [{ code: 'longer', length: laid.run.route.length + short }] : [],
        caution: 'trip',
      }
    }
  },
})
