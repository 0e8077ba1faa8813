import { z } from 'zod'
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
  *find({ laid, picture, uplink }) {
    if (uplink.mode === null) return
    const { payload, name, source } = linkModeFacts[uplink.mode]
    const inside = uplink.admissions.filter(
      ({ need, overUsb }) => need.kind !== 'picture' || overUsb || picture.link?.via === 'tunnel',
    )
    if (inside.length < 2) return
    const { down, up } = uplink.left
    yield {
      grade: 'note',
      part: runPart(laid.run),
      measured: { have: payload, need: payload - down, unit: 'bit/s' },
      reason: { code: 'shared', link: name, count: inside.length, down, up },
      source,
    }
  },
})
