import { streamRate } from '../picture/timing'
import { NEED_KINDS, type Need } from '../plan/need'
import type { Policy } from '../plan/policy'
import type { BitsPerSecond } from '../quantity/rate'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import { displayPortLane } from '../standards/picture-links'
import type { Source } from '../standards/source'
import { admitPictures, type PictureEnds, tunnelOf } from '../tunnel/tunnel'
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

/** A need as it crosses a run; for a picture, what its first and last ports speak to each other through the tunnel. */
export type Crossed = { need: Need; way: Way; ends?: PictureEnds }

/** Most docks and hosts of a tunnel speak this; taken where a survey does not say. */
const USUAL_ENDS: PictureEnds = { link: 'hbr3', lanes: 4 }

/**
 * Admits needs to a run one after another: pictures first, then what cannot wait, storage last (common practice; docks
 * serve pictures first). Each finds what the earlier ones have left in its direction. Pictures in a tunnel reserve by the site's
 * policy and load the way they flow; storage is written one way and read the other, not at once; USB 2.0 has one wire for both ways.
 */
export function admit(
  crossings: readonly Crossed[],
  mode: LinkMode | null,
  picture: PictureLink | null,
  reservation: Policy['reservation'],
): Admission[] {
  const inOrder = crossings
    .filter(({ need }) => need.kind !== 'power')
    .sort((one, other) => precedence(one.need, other.need))
  const taken = { down: 0, up: 0 }
  const pictures = inOrder.flatMap((crossed) =>
    crossed.need.kind === 'picture' ? [{ ...crossed, need: crossed.need }] : [],
  )
  const admitted =
    picture?.via === 'tunnel' && mode
      ? throughTunnel(pictures, picture, mode, reservation, taken)
      : besideData(pictures, picture)
  for (const { need, way } of inOrder) {
    if (need.kind !== 'picture') admitted.push(admitData(need, way, mode, taken))
  }
  return admitted
}

type CrossedPicture = Crossed & { need: Extract<Need, { kind: 'picture' }> }

function throughTunnel(
  pictures: readonly CrossedPicture[],
  link: PictureLink,
  mode: LinkMode,
  reservation: Policy['reservation'],
  taken: Record<Way, number>,
): Admission[] {
  const wanted = pictures.map(({ need, ends = USUAL_ENDS }) => ({ mode: need.mode, ends }))
  const plan = admitPictures(tunnelOf(linkModeFacts[mode].line), wanted, reservation)
  let reserved = 0
  return pictures.map(({ need, way }, at) => {
    const admitted = plan.pictures[at]
    if (!admitted) throw new Error('the tunnel lost a picture')
    taken[way] += admitted.wanted
    const open =
      reservation === 'stream' && admitted.fits
        ? admitted.available
        : Math.min(admitted.step?.payload ?? 0, admitted.available)
    const step = admitted.step
      ? `, at DisplayPort ${displayPortLane[admitted.step.link].name} x${admitted.step.lanes},`
      : ''
    const before = reserved
    reserved += admitted.reserved
    return {
      need,
      wanted: admitted.wanted,
      before,
      have: open,
      carrier: { name: `${link.name}${step}`, source: link.source, picture: true },
    }
  })
}

function besideData(pictures: readonly CrossedPicture[], link: PictureLink | null): Admission[] {
  let before = 0
  return pictures.map(({ need }) => {
    const wanted = streamRate(need.mode)
    const have = Math.max(0, (link?.payload ?? 0) - before)
    const admission: Admission = {
      need,
      wanted,
      before,
      have,
      carrier: link && { name: link.name, source: link.source, picture: true },
    }
    before += wanted
    return admission
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
