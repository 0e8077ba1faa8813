import { streamRate } from '../picture/timing'
import { NEED_KINDS, type Need } from '../plan/need'
import type { BitsPerSecond } from '../quantity/rate'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Source } from '../standards/source'
import type { PictureLink } from './picture-link'

/** What one need finds on a run: what is left for it, and what it asks. */
export type Admission = {
  need: Need
  have: BitsPerSecond
  wanted: BitsPerSecond
  /** What earlier needs have taken, in the same figures as `have`. */
  before: BitsPerSecond
  /** The link that carries it; null where there is none. */
  carrier: { name: string; source: Source; picture: boolean } | null
}

type Way = 'down' | 'up'

/** Data sheets of sensors and of plain data links name the mark on the plug; files, streams and frames are payload. */
const namesLineRate = (need: Need): boolean => need.kind === 'data' || need.kind === 'sensor' || need.kind === 'audio'

/**
 * Admits needs to a run one after another: pictures first, then what cannot wait, storage last (common practice; docks
 * serve pictures first). Each finds what the earlier ones have left in its direction. Pictures in a tunnel load the way they
 * flow; storage is written one way and read the other, not at once; USB 2.0 has one wire for both ways.
 */
export function admit(
  crossings: readonly { need: Need; way: Way }[],
  mode: LinkMode | null,
  picture: PictureLink | null,
): Admission[] {
  const taken = { down: 0, up: 0 }
  let pictures = 0
  const inOrder = crossings
    .filter(({ need }) => need.kind !== 'power')
    .sort((one, other) => precedence(one.need, other.need))
  return inOrder.map(({ need, way }) => {
    if (need.kind === 'picture') {
      const wanted = streamRate(need.mode)
      const admission: Admission = {
        need,
        wanted,
        before: pictures,
        have: Math.max(0, (picture?.payload ?? 0) - pictures),
        carrier: picture && { name: picture.name, source: picture.source, picture: true },
      }
      pictures += wanted
      if (picture?.via === 'tunnel') taken[way] += wanted
      return admission
    }
    return admitData(need, way, mode, taken)
  })
}

function admitData(
  need: Exclude<Need, { kind: 'picture' }>,
  way: Way,
  mode: LinkMode | null,
  taken: Record<Way, number>,
): Admission {
  const wanted = 'rate' in need ? need.rate : 0
  if (mode === null) return { need, wanted, before: 0, have: 0, carrier: null }
  const { line, payload, name, source } = linkModeFacts[mode]
  const scale = namesLineRate(need) ? line / payload : 1
  const ways: Way[] = need.kind === 'storage' || mode === 'usb2' ? ['down', 'up'] : [way]
  const before = Math.max(...ways.map((direction) => taken[direction]))
  for (const direction of ways) taken[direction] += wanted / scale
  return {
    need,
    wanted,
    before: before * scale,
    have: Math.max(0, payload - before) * scale,
    carrier: { name, source, picture: false },
  }
}

function precedence(one: Need, other: Need): number {
  return NEED_KINDS.indexOf(one.kind) - NEED_KINDS.indexOf(other.kind) || (one.id < other.id ? -1 : 1)
}
