import { bestMode, linkModeFacts } from '../standards/link-modes'
import { fromMemory } from '../standards/source'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

const source = fromMemory('USB Type-C alternate mode, pin assignments C and D')

/** What a picture on the pins of a type-C connector leaves beside it: four lanes only USB 2.0, two lanes a one-lane link. */
export const lanesCheck: Check = {
  name: 'lanes',
  *findings({ laid, data, picture, crossings }: Situation): Iterable<Finding> {
    const spec = picture.link?.via === 'displayport' ? picture.link.spec : null
    const onDataPins = laid.from.port.connector === 'type-c' && laid.to.port.connector === 'type-c'
    if (spec?.family !== 'displayport' || !onDataPins || data.mode === null) return
    if (!crossings.some(({ need }) => need.kind === 'picture')) return
    // the other two lanes carry one lane each way: the x2 modes need all four
    const oneLane = bestMode((['usb2', 'gen1x1', 'gen2x1'] as const).filter((mode) => isWithin(mode, data.mode)))
    yield {
      check: 'lanes',
      grade: 'note',
      part: runPart(laid.run),
      have: null,
      need: null,
      unit: null,
      reason: {
        code: 'lanes-left',
        lanes: spec.lanes,
        beside: spec.lanes === 4 || oneLane === null ? 'usb2' : oneLane,
      },
      remedies: [],
      source,
    }
  },
}

const isWithin = (mode: 'usb2' | 'gen1x1' | 'gen2x1', best: Situation['data']['mode']): boolean =>
  best !== null && linkModeFacts[mode].line <= linkModeFacts[best].line
