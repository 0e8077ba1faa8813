import { z } from 'zod'
import { atMost } from '../quantity/limit'
import { formatBytesPerSecond } from '../quantity/rate'
import { linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { EARLY_TUNNEL_PCIE, LIMITS, type Limit, predictStorage, type StorageChain } from '../storage/storage'
import { disks } from './aspects'
import { check, reason } from './check'
import { runPart } from './situation'

const limitNames: Record<Limit, string> = {
  link: 'the link',
  share: 'what is left of the link',
  pcie: 'the lanes inside the enclosure',
  drive: 'the drive itself',
}

/** Whether a disk will really reach what is asked: the drive, its lanes, its bridge and the protocol each take their share. */
export const storageTargetCheck = check({
  name: 'storage target',
  reasons: {
    'storage-band': reason(
      {
        low: z.number(),
        high: z.number(),
        way: z.enum(['write', 'read']),
        limitedBy: z.enum(LIMITS),
        overhead: z.strictObject({ low: z.number(), high: z.number() }).nullable(),
      },
      ({ low, high, way, limitedBy, overhead }, { need }) =>
        `Expect ${formatBytesPerSecond(low)} to ${formatBytesPerSecond(high)} (${way}), limited by ${limitNames[limitedBy]}${overhead ? `, with this site's overhead of ${overhead.low * 100} to ${overhead.high * 100} %` : ''}; ${formatBytesPerSecond(need)} are asked.`,
    ),
  },
  remedies: ['expect-less'],
  reads: [disks],
  source: commonPractice('what copies over a link really come to'),
  *find({ laid, crossings, admissions, data, policy }) {
    if (data.mode === null) return
    for (const { need, lastMile } of crossings) {
      const disk = laid.to.device.disk
      if (need.kind !== 'storage' || !lastMile || !disk) continue
      const left = admissions.find((admission) => admission.need.id === need.id)?.have ?? 0
      const [generation, lanes] = (disk.pcie ?? '').split('x').map(Number)
      const chain: StorageChain = {
        mode: data.mode,
        share: { write: left, read: left },
        drive: { write: disk.write, read: disk.read },
        pcie: generation && lanes ? { generation: generation as 3, lanes: lanes as 4 } : undefined,
        bridge: disk.bridge,
        ceiling: linkModeFacts[data.mode].tunnel && laid.from.port.thunderbolt === 3 ? EARLY_TUNNEL_PCIE : undefined,
        overhead: policy.storageOverhead,
      }
      const { write, read, source } = predictStorage(chain)
      const back = need.back ?? need.rate
      const asked = need.to === laid.to.device.id ? { write: need.rate, read: back } : { write: back, read: need.rate }
      // what this run was measured at stands in place of what it should do
      if (laid.seen.copies.length > 0) continue
      const way: 'write' | 'read' = write.high * asked.read <= read.high * asked.write ? 'write' : 'read'
      const { low, high, limitedBy } = way === 'write' ? write : read
      const wanted = asked[way]
      const overhead = linkModeFacts[data.mode].tunnel ? policy.storageOverhead : null
      yield {
        grade: atMost(wanted, low) ? 'clear' : atMost(wanted, high) ? 'tight' : 'blocked',
        part: runPart(laid.run),
        needId: need.id,
        measured: { have: high, need: wanted, unit: 'bit/s' },
        reason: { code: 'storage-band', low, high, way, limitedBy, overhead },
        remedies: atMost(wanted, low) ? [] : [{ code: 'expect-less' }],
        source,
      }
    }
  },
})
