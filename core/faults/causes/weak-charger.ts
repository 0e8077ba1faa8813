import { commonPractice } from '../../standards/source'
import { busWatts } from '../../vocabulary/need'
import type { CauseKind } from '../cause'
import { devicePart } from '../scene'

/** A supply that gives less than the device asks for. */
export const weakCharger: CauseKind = {
  *of({ laid: { from }, crossings }) {
    if (crossings.some(({ need }) => need.kind === 'power' || busWatts(need) !== undefined))
      yield {
        part: devicePart(from.device),
        odds: 0.7,
        source: commonPractice("a weaker supply than the device's own charges slowly"),
      }
  },
  shows: { 'charges slowly': 0.7, 'headset drains': 0.6, 'no power': 0.12, drops: 0.05 },
  words: (part) => `${part} gives less power than is asked of it.`,
  followUp: 'better charger',
}
