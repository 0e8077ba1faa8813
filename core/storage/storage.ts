import { type BitsPerSecond, GIGABIT, MEGABYTE_PER_SECOND } from '../quantity/rate'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import { commonPractice, fromMemory, type Source } from '../standards/source'
import type { Port } from '../vocabulary/device'

/** From the flash to the host: everything a file passes on its way. Rates in bit/s; left out, a part is no limit. */
export type StorageChain = {
  mode: LinkMode
  /** What a tunnel has left for this disk, each way. */
  share?: { write: BitsPerSecond; read: BitsPerSecond }
  drive?: { write: BitsPerSecond; read: BitsPerSecond }
  pcie?: { generation: 3 | 4 | 5; lanes: 1 | 2 | 4 }
  /** A poor bridge chip loses a fifth (common practice). */
  bridge?: 'good' | 'poor'
  /** Share lost to protocol: a band, not a figure. */
  overhead?: { low: number; high: number }
  /** A ceiling of the host's own on what PCIe gets in its tunnel. */
  ceiling?: BitsPerSecond
  /** Copies at once, which share all but the drive's own limit. */
  users?: number
}

export type Band = { low: BitsPerSecond; high: BitsPerSecond; limitedBy: Limit }
export const LIMITS = ['link', 'share', 'pcie', 'drive'] as const
/** What holds a copy back. */
export type Limit = (typeof LIMITS)[number]
export type StoragePrediction = { write: Band; read: Band; source: Source }

/** What PCIe gets at most through the tunnel of an early host, overhead already off (Thunderbolt 3 controllers, from memory). */
export const EARLY_TUNNEL_PCIE: BitsPerSecond = 22 * GIGABIT

/** What a host's own controller allows PCIe of a mode; undefined where it is no limit. */
export const pcieCeiling = (mode: LinkMode, { thunderbolt }: Pick<Port, 'thunderbolt'>): BitsPerSecond | undefined =>
  linkModeFacts[mode].tunnel && thunderbolt === 3 ? EARLY_TUNNEL_PCIE : undefined

export const USUAL_OVERHEAD = { low: 0.2, high: 0.25 }
const POOR_BRIDGE = 0.8
/** Lane rate after 128b/130b coding (PCI Express 3 to 5, from memory). */
const lanePayload: Record<3 | 4 | 5, BitsPerSecond> = {
  3: (8 * GIGABIT * 128) / 130,
  4: (16 * GIGABIT * 128) / 130,
  5: (32 * GIGABIT * 128) / 130,
}

/** What lanes of PCIe carry together, before the protocol. */
export const pcieRate = ({ generation, lanes: count }: NonNullable<StorageChain['pcie']>): BitsPerSecond =>
  lanePayload[generation] * count

/** What disks are seen to do over USB, low to high (common practice); tunnels are computed from the lanes and the overhead band. */
const seenOverUsb: Partial<Record<LinkMode, [number, number]>> = {
  usb2: [30, 42],
  gen1x1: [400, 460],
  gen1x2: [800, 920],
  gen2x1: [950, 1060],
  gen2x2: [1900, 2100],
}

const seen = commonPractice('disk rates seen over each USB mode')
const lanes = fromMemory('PCI Express lane rates; overhead of 20 to 25 % is common practice')

/**
 * The band of MB/s to expect, write and read apart. Over plain USB it is what disks are seen to do in that mode; through a tunnel
 * it is the least of the link, the share left of it, and the lanes inside the enclosure, less the protocol's overhead. The drive's own
 * rate and the bridge chip bound both.
 */
export function predictStorage(chain: StorageChain): StoragePrediction {
  const source = linkModeFacts[chain.mode].tunnel ? lanes : seen
  return { write: band(chain, 'write'), read: band(chain, 'read'), source }
}

function band(chain: StorageChain, way: 'write' | 'read'): Band {
  const users = chain.users ?? 1
  const seenRates = seenOverUsb[chain.mode]
  const bridge = chain.bridge === 'poor' ? POOR_BRIDGE : 1
  const bounds: [Limit, BitsPerSecond, BitsPerSecond][] = []
  if (seenRates) {
    const [low, high] = seenRates
    bounds.push(['link', (low * MEGABYTE_PER_SECOND * bridge) / users, (high * MEGABYTE_PER_SECOND * bridge) / users])
    if (chain.share) bounds.push(['share', chain.share[way] / users, chain.share[way] / users])
  } else {
    const { low, high } = chain.overhead ?? USUAL_OVERHEAD
    const net = (limit: Limit, raw: BitsPerSecond) =>
      bounds.push([limit, (raw * (1 - high) * bridge) / users, (raw * (1 - low) * bridge) / users])
    net('link', linkModeFacts[chain.mode].payload)
    if (chain.share) net('share', chain.share[way])
    if (chain.pcie) net('pcie', pcieRate(chain.pcie))
  }
  if (chain.ceiling) bounds.push(['pcie', chain.ceiling / users, chain.ceiling / users])
  if (chain.drive) bounds.push(['drive', chain.drive[way] / users, chain.drive[way] / users])
  const narrow = bounds.reduce((least, next) => (next[2] < least[2] ? next : least))
  return { low: Math.min(...bounds.map(([, low]) => low)), high: narrow[2], limitedBy: narrow[0] }
}

/** Seconds to move `bytes`, from the high end of a band to the low: quickest first. Infinite rates never occur; a shut link takes null. */
export function jobSeconds(
  bytes: number,
  { low, high }: Pick<Band, 'low' | 'high'>,
): { quickest: number | null; slowest: number | null } {
  const at = (rate: BitsPerSecond): number | null => (rate > 0 ? (bytes * 8) / rate : null)
  return { quickest: at(high), slowest: at(low) }
}
