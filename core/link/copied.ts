import { atHand, type CopySeries, figureTally, mostOf, type Read, reliedOn, type Speaking } from '../observe/figures'
import type { Learned } from '../observe/learned'
import { pairOf, type Spot } from '../observe/spot'
import { portKey, type SiteIndex } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import { linkModeFacts } from '../standards/link-modes'
import type { LaidLead, LaidRun } from './lay'

type Way = CopySeries['measure']

/** The most that copies go at, one way, by what was measured: on this very run, or of a lead that was the limit. */
export type CopyCap = {
  /** What is relied on. */
  rate: BitsPerSecond
  /** The fastest it went here: between the two it comes and goes. */
  most: BitsPerSecond
  reading: Read<Way>
  /** How often so much was reached here, and how often it was not. */
  counted: (asked: BitsPerSecond) => { held: number; failed: number }
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
export function copyCap(laid: LaidRun, { learned, devices }: Site, way: Way): CopyCap | null {
  const own = atHand(
    laid.seen.figures.filter((series): series is CopySeries => series.measure === way),
    laid.here,
  )
  const onRun = capOf(own, () => 'all')
  if (onRun) return { ...onRun, lead: null, elsewhere: null, unexplained: false }
  const pair = pairOf(spotOfRun(laid))
  let least: CopyCap | null = null
  for (const lead of laid.leads) {
    const cap = leadCap(lead, learned, way, pair) ?? slowOf(lead, devices, way)
    if (cap && (least === null || cap.rate < least.rate)) least = cap
  }
  return least
}

const spotOfRun = ({ from, to }: LaidRun): Spot => ({
  port: portKey({ device: from.device.id, port: from.port.id }),
  far: portKey({ device: to.device.id, port: to.port.id }),
})

type Cap = Pick<CopyCap, 'rate' | 'most' | 'reading' | 'counted'>

/** The least that the series of one place are relied on for, and the most they reached; null where none of them counts against anything. */
function capOf(all: readonly CopySeries[], speaking: (series: CopySeries) => Speaking): Cap | null {
  let least: { series: CopySeries; rate: BitsPerSecond } | null = null
  for (const series of all) {
    const rate = reliedOn(series, speaking(series))
    if (rate !== null && (least === null || rate < least.rate)) least = { series, rate }
  }
  if (least === null) return null
  const { series, rate } = least
  return {
    rate,
    most: Math.max(...all.map((each) => mostOf(each).rate)),
    reading: series.last,
    counted: (asked) => {
      const { held, atOnce } = figureTally(series, asked, speaking(series))
      return { held, failed: atOnce }
    },
  }
}

function leadCap(lead: LaidLead, learned: Learned, way: Way, here: string | null): CopyCap | null {
  const copies = lead.known.copies.filter(({ measure }) => measure === way)
  if (copies.length === 0) return null
  const byPair = new Map<string | null, CopySeries[]>()
  for (const copy of copies) {
    const pair = pairOf(copy.spot)
    byPair.set(pair, [...(byPair.get(pair) ?? []), copy])
  }
  const speaking = (series: CopySeries): Speaking => (othersDidBetter(series, lead, learned) ? 'unknown' : 'lead')
  const own = byPair.get(here)
  if (own) {
    const there = capOf(own, speaking)
    return there && { ...there, lead, elsewhere: null, unexplained: false }
  }
  let least: Cap | null = null
  for (const list of byPair.values()) {
    const cap = capOf(list, speaking)
    if (cap && (least === null || cap.rate < least.rate)) least = cap
  }
  return (
    least && {
      ...least,
      lead,
      elsewhere: { most: Math.max(...copies.map((series) => mostOf(series).rate)) },
      unexplained: false,
    }
  )
}

type Site = Pick<SiteIndex, 'learned' | 'devices'>

/** No faster than USB 2.0, and nobody said what held it back: what is made of it follows from the disk it was copied to. */
export function isOddlySlow(series: CopySeries): boolean {
  const { limit = 'unknown', rate } = mostOf(series)
  return limit === 'unknown' && rate <= linkModeFacts.usb2.payload
}

/**
 * A copy no faster than USB 2.0 to a disk that does far more, of which nobody said what held it back, and no other was faster: something is wrong, and it may be the
 * lead.
 */
function slowOf({ known, ...rest }: LaidLead, devices: Site['devices'], way: Way): CopyCap | null {
  const copies = known.copies.filter(({ measure }) => measure === way)
  const [series] = [...copies].sort((one, other) => mostOf(other).rate - mostOf(one).rate)
  if (!series || !isOddlySlow(series)) return null
  const most: Read<Way> = mostOf(series)
  const disk = devices.get(series.spot.far?.split('/')[0] ?? '')?.disk
  if (!disk || disk[way] < most.rate * DISK_IS_FASTER) return null
  return {
    rate: most.rate,
    most: most.rate,
    reading: most,
    counted: () => ({ held: 0, failed: series.times }),
    lead: { known, ...rest },
    elsewhere: null,
    unexplained: true,
  }
}

/** Other leads copied clearly faster between these very sockets: then this one was the limit, though nobody said so. */
function othersDidBetter(series: CopySeries, { cable }: Pick<LaidLead, 'cable'>, learned: Learned): boolean {
  const pair = pairOf(series.spot)
  if (pair === null) return false
  for (const [other, best] of learned.copied.get(`${series.measure} ${pair}`) ?? [])
    if (other !== cable.id && best > mostOf(series).rate * CLEARLY_FASTER) return true
  return false
}
