import type { Learned } from '../observe/learned'
import type { Copy } from '../observe/learnt'
import { pairOf, type Spot } from '../observe/spot'
import { portKey, type SiteIndex } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import { linkModeFacts } from '../standards/link-modes'
import type { LaidLead, LaidRun } from './lay'

/** The most that copies go at, one way, by what was measured: on this very run, or of a lead that was the limit. */
export type CopyCap = {
  rate: BitsPerSecond
  reading: Copy
  /** The lead that is the limit; null: it was measured on this run, whatever the limit was. */
  lead: LaidLead | null
  /** It was measured between other sockets, and the fastest it went elsewhere. */
  elsewhere: { most: BitsPerSecond } | null
  /** Nobody said what held it back, and neither the disk nor anything known of the lead does. */
  unexplained: boolean
}

/** A disk that does this many times what was copied did not hold it back (common practice). */
const DISK_IS_FASTER = 2

/** Copies vary: a lead is the limit where another copied so much faster between the same two sockets (common practice). */
const CLEARLY_FASTER = 1.1

/** What was measured of copies one way over a run; null where nothing was, or nothing that says how much is the most. */
export function copyCap(laid: LaidRun, { learned, devices }: Site, way: Copy['way']): CopyCap | null {
  const own = lastOf(laid.seen.copies.filter((copy) => copy.way === way))
  if (own) return { rate: own.rate, reading: own, lead: null, elsewhere: null, unexplained: false }
  const pair = pairOf(spotOfRun(laid))
  let least: CopyCap | null = null
  for (const lead of laid.leads) {
    const cap = capOf(lead, learned, way, pair) ?? slowOf(lead, devices, way)
    if (cap && (least === null || cap.rate < least.rate)) least = cap
  }
  return least
}

const spotOfRun = ({ from, to }: LaidRun): Spot => ({
  port: portKey({ device: from.device.id, port: from.port.id }),
  far: portKey({ device: to.device.id, port: to.port.id }),
})

function capOf(lead: LaidLead, learned: Learned, way: Copy['way'], here: string | null): CopyCap | null {
  const copies = lead.known.copies.filter((copy) => copy.way === way)
  if (copies.length === 0) return null
  const byPair = new Map<string | null, Copy[]>()
  for (const copy of copies) {
    const pair = pairOf(copy.spot)
    byPair.set(pair, [...(byPair.get(pair) ?? []), copy])
  }
  const own = byPair.get(here)
  const there = own && cappedAt(own, (copy) => wasLimit(copy, lead, learned))
  if (own) return there ? { rate: there.rate, reading: there, lead, elsewhere: null, unexplained: false } : null
  let least: Copy | null = null
  for (const list of byPair.values()) {
    const cap = cappedAt(list, (copy) => wasLimit(copy, lead, learned))
    if (cap && (least === null || cap.rate < least.rate)) least = cap
  }
  return (
    least && {
      rate: least.rate,
      reading: least,
      lead,
      elsewhere: { most: Math.max(...copies.map(({ rate }) => rate)) },
      unexplained: false,
    }
  )
}

type Site = Pick<SiteIndex, 'learned' | 'devices'>

/** No faster than USB 2.0, and nobody said what held it back: what is made of it follows from the disk it was copied to. */
export const isOddlySlow = ({ limit, rate }: Copy): boolean => limit === 'unknown' && rate <= linkModeFacts.usb2.payload

/**
 * A copy no faster than USB 2.0 to a disk that does far more, of which nobody said what held it back, and no other was faster: something is wrong, and it may be the
 * lead.
 */
function slowOf({ known, ...rest }: LaidLead, devices: Site['devices'], way: Copy['way']): CopyCap | null {
  const copies = known.copies.filter((copy) => copy.way === way)
  const [reading] = [...copies].sort((one, other) => other.rate - one.rate)
  if (!reading || !isOddlySlow(reading)) return null
  const disk = devices.get(reading.spot.far?.split('/')[0] ?? '')?.disk
  if (!disk || disk[way] < reading.rate * DISK_IS_FASTER) return null
  return { rate: reading.rate, reading, lead: { known, ...rest }, elsewhere: null, unexplained: true }
}

/** The lead was the limit of a copy: somebody said so, or other leads did clearly better between these very sockets. */
export function wasLimit(
  { limit, way, rate, spot }: Copy,
  { cable }: Pick<LaidLead, 'cable'>,
  learned: Learned,
): boolean {
  if (limit === 'lead') return true
  const pair = pairOf(spot)
  if (pair === null) return false
  for (const [other, best] of learned.copied.get(`${way} ${pair}`) ?? [])
    if (other !== cable.id && best > rate * CLEARLY_FASTER) return true
  return false
}

/** The most between two sockets: the last copy of which the lead was the limit, unless a later one went faster. */
function cappedAt(copies: readonly Copy[], isLimit: (copy: Copy) => boolean): Copy | null {
  let cap: Copy | null = null
  for (const copy of copies) {
    if (cap !== null && copy.rate > cap.rate && copy.at > cap.at) cap = null
    if (isLimit(copy) && (cap === null || copy.at > cap.at || copy.rate < cap.rate)) cap = copy
  }
  return cap
}

function lastOf(copies: readonly Copy[]): Copy | null {
  let last: Copy | null = null
  for (const copy of copies)
    if (last === null || copy.at > last.at || (copy.at === last.at && copy.rate < last.rate)) last = copy
  return last
}
