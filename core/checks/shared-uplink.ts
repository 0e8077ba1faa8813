import { z } from 'zod'
import { askedEachWay } from '../link/admission'
import { formatRate } from '../quantity/rate'
import { linkModeFacts } from '../standards/link-modes'
import { check, reason } from './check'
import { craft } from './finding'
import { runPart } from './situation'

/** Where several needs share a run: what of it is spoken for, and what is left each way. */
export const sharedUplinkCheck = check({
  name: 'shared uplink',
  reasons: {
    shared: reason(
      { link: z.string(), count: z.int(), down: z.number(), up: z.number() },
      ({ link, count, down, up }) =>
        `${count} needs share ${link}; ${down === 0 ? 'nothing is' : `${formatRate(down)} are`} left toward the device end and ${formatRate(up)} back.`,
    ),
  },
  remedies: [],
  reads: [],
  source: craft,
  *find({ laid, data, picture, crossings, admissions }) {
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
      grade: 'note',
      part: runPart(laid.run),
      measured: { have: payload, need: down, unit: 'bit/s' },
      reason: {
        code: 'shared',
        link: name,
        count: inside.length,
        down: Math.max(0, payload - down),
        up: Math.max(0, payload - spoken('up')),
      },
      source,
    }
  },
})
