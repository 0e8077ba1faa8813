import { z } from 'zod'
import { isCopies } from '../observe/figures'
import { atMost } from '../quantity/limit'
import { formatBytesPerSecond } from '../quantity/rate'
import { linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import {
  LIMITS,
  type Limit,
  pcieCeiling,
  predictStorage,
  type StorageChain,
  type StoragePrediction,
} from '../storage/storage'
import type { Device } from '../vocabulary/device'
import { disks } from './aspects'
import { check, reason } from './check'
import { type Crossing, runPart, type Situation } from './situation'

const limitNames: Record<Limit, string> = {
  link: 'the link',
  share: 'what is left of the link',
  pcie: 'the lanes inside the enclosure',
  drive: 'the drive itself',
}

/**
 * Whether a disk will really reach what is asked: every link on its path, what pictures leave of it, the drive, its lanes, its bridge and the protocol each
 * take their share. Each run tells what it does to it; the narrowest of them is what a need comes to.
 */
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
  *find(situation) {
    const { laid, crossings, uplink, policy } = situation
    const { mode } = uplink
    // what this run was measured at stands in place of what it should do
    if (mode === null || laid.seen.figures.some(isCopies)) return
    for (const crossing of crossings) {
      const { need, way, lastMile, usb2, disk } = crossing
      if (need.kind !== 'storage') continue
      const here = usb2 ? 'usb2' : mode
      const { tunnel } = linkModeFacts[here]
      // without a drive at its end, a plain link promises what the rate check says
      if (!(lastMile && disk) && !tunnel) continue
      const bands = bandOf(situation, crossing)
      if (!bands) continue
      const { write, read, source } = bands
      const back = need.back ?? need.rate
      const asked = way === 'down' ? { write: need.rate, read: back } : { write: back, read: need.rate }
      const worse: 'write' | 'read' = write.high * asked.read <= read.high * asked.write ? 'write' : 'read'
      const { low, high, limitedBy } = worse === 'write' ? write : read
      const wanted = asked[worse]
      const grade = atMost(wanted, low) ? 'clear' : atMost(wanted, high) ? 'tight' : 'blocked'
      // further up only what holds it back is worth a word
      if (!lastMile && grade === 'clear') continue
      const overhead = tunnel ? policy.storageOverhead : null
      yield {
        grade,
        part: runPart(laid.run),
        needId: need.id,
        measured: { have: high, need: wanted, unit: 'bit/s' },
        reason: { code: 'storage-band', low, high, way: worse, limitedBy, overhead },
        remedies: grade === 'clear' ? [] : [{ code: 'expect-less' }],
        source,
      }
    }
  },
})

/** What copies over a run come to, each way, by its link, what is left of it, and the disk where it ends there; null where nothing carries them. */
export function bandOf(
  { laid, uplink, policy }: Pick<Situation, 'laid' | 'uplink' | 'policy'>,
  { need, lastMile, usb2, disk }: Crossing,
): StoragePrediction | null {
  const { mode } = uplink
  const found = uplink.admissions.find((each) => each.need.id === need.id && each.carrier)?.found
  if (mode === null || !found) return null
  const here = usb2 ? 'usb2' : mode
  return predictStorage({
    mode: here,
    share: { write: found.down, read: found.up },
    ...(lastMile ? endOf(disk) : { bridge: disk?.bridge }),
    ceiling: pcieCeiling(here, laid.from.port),
    overhead: policy.storageOverhead,
  })
}

/** What the disk itself allows, as `predictStorage` takes it. */
function endOf(disk: Device['disk']): Pick<StorageChain, 'drive' | 'pcie' | 'bridge'> {
  if (!disk) return {}
  return { drive: { write: disk.write, read: disk.read }, pcie: lanesOf(disk), bridge: disk.bridge }
}

/** The lanes inside an enclosure, where somebody described them: "3x4" is four of generation 3. */
export function lanesOf(disk: Device['disk']): StorageChain['pcie'] {
  const [generation, lanes] = (disk?.pcie ?? '').split('x').map(Number)
  return generation && lanes ? { generation: generation as 3, lanes: lanes as 4 } : undefined
}
