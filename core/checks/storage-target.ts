import { atMost } from '../quantity/limit'
import { linkModeFacts } from '../standards/link-modes'
import { EARLY_TUNNEL_PCIE, predictStorage, type StorageChain } from '../storage/storage'
import type { Finding } from './finding'
import { type Check, runPart, type Situation } from './situation'

/** Whether a disk will really reach what is asked: the drive, its lanes, its bridge and the protocol each take their share. */
export const storageTargetCheck: Check = {
  name: 'storage target',
  *findings({ laid, crossings, admissions, data, policy }: Situation): Iterable<Finding> {
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
      const way = write.high * asked.read <= read.high * asked.write ? 'write' : 'read'
      const slower = way === 'write' ? write : read
      const wanted = asked[way]
      yield {
        check: 'storage target',
        grade: atMost(wanted, slower.low) ? 'clear' : atMost(wanted, slower.high) ? 'tight' : 'blocked',
        part: runPart(laid.run),
        needId: need.id,
        have: slower.high,
        need: wanted,
        unit: 'bit/s',
        reason: {
          code: 'storage-band',
          low: slower.low,
          high: slower.high,
          way,
          limitedBy: slower.limitedBy,
          overhead: linkModeFacts[data.mode].tunnel ? policy.storageOverhead : null,
        },
        remedies: atMost(wanted, slower.low) ? [] : [{ code: 'expect-less' }],
        source,
      }
    }
  },
}
