import { askedEachWay } from '../link/admission'
import { linkModeFacts } from '../standards/link-modes'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

/** Where several needs share a run: what of it is spoken for, and what is left each way. */
export const sharedUplinkCheck: Check = {
  name: 'shared uplink',
  *findings({ laid, data, picture, crossings, admissions }: Situation): Iterable<Finding> {
    if (data.mode === null) return
    const { payload, name, source } = linkModeFacts[data.mode]
    const wayOf = new Map(crossings.map(({ need, way }) => [need.id, way]))
    const inside = admissions.filter(({ need }) => need.kind !== 'picture' || picture.link?.via === 'tunnel')
    if (inside.length < 2) return
    // storage is written one way and read the other
    const spoken = (way: 'down' | 'up'): number =>
      inside.reduce((sum, { need, wanted }) => {
        const own = wayOf.get(need.id) ?? way
        return sum + (need.kind === 'storage' ? askedEachWay(need, own)[way] : own === way ? wanted : 0)
      }, 0)
    const down = spoken('down')
    yield {
      check: 'shared uplink',
      grade: 'note',
      part: runPart(laid.run),
      have: payload,
      need: down,
      unit: 'bit/s',
      reason: {
        code: 'shared',
        link: name,
        count: inside.length,
        down: Math.max(0, payload - down),
        up: Math.max(0, payload - spoken('up')),
      },
      remedies: [],
      source,
    }
  },
}
