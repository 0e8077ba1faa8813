import { z } from 'zod'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { fromMemory } from '../standards/source'
import { check, reason } from './check'
import { runPart, showsPicture } from './situation'

/** What a picture on the pins of a type-C connector leaves beside it: four lanes only USB 2.0, two lanes a one-lane link. */
export const lanesCheck = check({
  name: 'lanes',
  reasons: {
    'lanes-left': reason(
      { lanes: z.literal([1, 2, 4]), beside: z.enum(LINK_MODES) },
      ({ lanes, beside }) =>
        `The picture takes ${lanes === 1 ? 'one lane' : `${lanes} lanes`} of the type-C connector; beside it ${linkModeFacts[beside].name} is left.`,
    ),
  },
  remedies: [],
  reads: [],
  source: fromMemory('USB Type-C alternate mode, pin assignments C and D'),
  *find({ laid, picture, uplink, crossings }) {
    const spec = picture.link?.via === 'displayport' ? picture.link.spec : null
    const onDataPins = laid.from.port.connector === 'type-c' && laid.to.port.connector === 'type-c'
    if (spec?.family !== 'displayport' || !onDataPins || uplink.mode === null) return
    if (!crossings.some(showsPicture)) return
    const reason = { code: 'lanes-left', lanes: spec.lanes, beside: uplink.mode } as const
    yield { grade: 'note', part: runPart(laid.run), reason }
  },
})
