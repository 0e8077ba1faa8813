import { type Came, isGood } from '../observe/came'
import { type LinkSeries, type LinkStanding, seenOfMode } from '../observe/links'
import { seenOfPicture } from '../observe/pictures'
import type { Here } from '../observe/spot'
import type { BitsPerSecond } from '../quantity/rate'
import { LINK_MODES, type LinkMode, pairRate } from '../standards/link-modes'
import {
  DISPLAYPORT_LINKS,
  type DisplayPortLink,
  displayPortLane,
  HDMI_LEVELS,
  type HdmiLevel,
  hdmiLink,
  laneRate,
} from '../standards/picture-links'
import type { Reach } from '../standards/reach'
import { commonPractice } from '../standards/source'
import { chainLack } from './chain'
import type { Trust } from './data-link'
import { type LaidLead, oughtOf } from './lay'

export type LeadPicture = { family: 'displayport' | 'hdmi'; name: string; rate: BitsPerSecond }

/**
 * The modes whose rate a lead's pairs failed here; what is to be sure counts what failed in other sockets and was not tried in this one as well, and what comes
 * and goes.
 */
function failedModes(lead: LaidLead, here: Here | null, trust: Trust): { mode: LinkMode; trial: LinkSeries | null }[] {
  if (lead.known.links.length === 0) return []
  return LINK_MODES.flatMap((mode): { mode: LinkMode; trial: LinkSeries | null }[] => {
    const seen = seenOfMode(lead.known.links, mode, oughtOf(lead), here)
    const bad = seen.here && isBad(seen.here, trust)
    if (bad) return [{ mode, trial: seen.here?.series ?? null }]
    const doubted = (trust === 'sure' || here === null) && seen.here === null && seen.failed > 0
    return doubted ? [{ mode, trial: null }] : []
  })
}

const isBad = ({ came }: LinkStanding, trust: Trust): boolean =>
  came === 'failed' || (trust === 'sure' && !isGood(came))

/** The trial that rules out the least rate; null where none rules out any. */
export const failedTrial = (lead: LaidLead, here: Here | null): LinkSeries | null =>
  failedModes(lead, here, 'believed').sort((one, other) => pairRate(one.mode) - pairRate(other.mode))[0]?.trial ?? null

const bench = commonPractice('a picture that held over this lead')

/** The links whose whole width a picture takes that was seen to hold over a lead: that link and all below, as far as the lead is long. */
function seenRows<T>(
  lead: LaidLead,
  here: Here | null,
  trust: Trust,
  ladder: readonly T[],
  payload: (step: T) => BitsPerSecond,
  promised: readonly Reach<T>[],
): Reach<T>[] {
  const { pictures } = lead.known
  if (pictures.length === 0) return []
  let best = -1
  for (const { held, rate } of pictures) {
    if (!held) continue
    const seen = seenOfPicture(pictures, rate, lead.asks, here)
    const relied =
      (seen.here !== null && isRelied(seen.here.came, trust)) ||
      (seen.here === null && seen.held > 0 && trust === 'believed')
    // one that only fits a wider link than there is was compressed, and says that the widest came up
    const step = ladder.findIndex((each) => payload(each) >= rate)
    if (relied) best = Math.max(best, step < 0 ? ladder.length - 1 : step)
  }
  return ladder
    .slice(0, best + 1)
    .filter((mode) => !promised.some((row) => row.mode === mode))
    .map((mode) => ({ mode, reach: lead.cable.length, source: bench }))
}

const isRelied = (came: Came, trust: Trust): boolean => (trust === 'sure' ? isGood(came) : came !== 'failed')

/** What of its DisplayPort rows is left to a lead: what its pairs failed in data they do not carry as a picture either. What held over it is added. */
export function pictureRows(lead: LaidLead, here: Here | null, trust: Trust): readonly Reach<DisplayPortLink>[] {
  const rows = lead.reach.displayport
  const held = seenRows(lead, here, trust, DISPLAYPORT_LINKS, (link) => displayPortLane[link].payload * 4, rows)
  if (lead.known.links.length === 0 || !lead.cable.ends.some((end) => end.connector === 'type-c'))
    return held.length > 0 ? [...rows, ...held] : rows
  const lowest = Math.min(...failedModes(lead, here, trust).map(({ mode }) => pairRate(mode)))
  return [...rows.filter(({ mode }) => laneRate(mode) < lowest), ...held]
}

/** The HDMI levels of a lead, with those that a picture was seen to hold at. */
export function hdmiRows(lead: LaidLead, here: Here | null, trust: Trust): readonly Reach<HdmiLevel>[] {
  const rows = lead.reach.hdmi
  const held = seenRows(lead, here, trust, HDMI_LEVELS, (level) => hdmiLink[level].payload, rows)
  return held.length > 0 ? [...rows, ...held] : rows
}

/** The best picture one lead carries at its length: an HDMI level, or four lanes of a DisplayPort link. */
export function leadPicture(lead: LaidLead): LeadPicture | null {
  const carried = <T>(rows: readonly Reach<T>[]): T[] =>
    rows
      .map((row) => row.mode)
      .filter(
        (mode) =>
          chainLack(
            [lead],
            mode,
            () => rows,
            () => false,
          ) === null,
      )
  const level = carried(lead.reach.hdmi).at(-1)
  if (level !== undefined) return { family: 'hdmi', name: hdmiLink[level].name, rate: hdmiLink[level].payload }
  let widest: LeadPicture | null = null
  for (const link of carried(pictureRows(lead, null, 'believed'))) {
    const { name, payload } = displayPortLane[link]
    if (payload * 4 > (widest?.rate ?? 0))
      widest = { family: 'displayport', name: `DisplayPort ${name} x4`, rate: payload * 4 }
  }
  return widest
}
