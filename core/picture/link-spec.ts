import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import type { BitsPerSecond } from '../quantity/rate'
import {
  DISPLAYPORT_LINKS,
  type DisplayPortLink,
  displayPortLane,
  HDMI_LEVELS,
  type HdmiLevel,
  hdmiLink,
} from '../standards/picture-links'
import type { Source } from '../standards/source'

/** One picture link as it stands between two ends. */
export type LinkSpec =
  | { family: 'displayport'; link: DisplayPortLink; lanes: 1 | 2 | 4 }
  | { family: 'hdmi'; level: HdmiLevel }

/** TMDS and fixed rate links differ in what a pixel costs; both differ from DisplayPort in the timing they take. */
export const isTmds = (spec: LinkSpec): boolean => spec.family === 'hdmi' && spec.level.startsWith('tmds')

export function linkFacts(spec: LinkSpec): { name: string; payload: BitsPerSecond; source: Source } {
  if (spec.family === 'hdmi') return hdmiLink[spec.level]
  const lane = displayPortLane[spec.link]
  return { name: `DisplayPort ${lane.name} x${spec.lanes}`, payload: lane.payload * spec.lanes, source: lane.source }
}

const allowed = `dp:LINKxLANES with ${DISPLAYPORT_LINKS.join(', ')} and 1, 2 or 4 lanes, or hdmi:LEVEL with ${HDMI_LEVELS.join(', ')}`

/**
 * Reads a link as `calc` takes it.
 *
 * @example parseLinkSpec('dp:hbr3x4'); parseLinkSpec('hbr2x2'); parseLinkSpec('hdmi:tmds-18')
 */
export function parseLinkSpec(text: string): Parsed<LinkSpec> {
  const hdmi = /^hdmi:(.+)$/i.exec(text.trim())
  if (hdmi) {
    const level = HDMI_LEVELS.find((known) => known === hdmi[1]?.toLowerCase())
    return level ? parsed({ family: 'hdmi', level }) : unreadable(`"${text}" is not a link. Write ${allowed}.`)
  }
  const dp = /^(?:dp:)?([a-z0-9.]+?)x([124])$/i.exec(text.trim())
  const link = DISPLAYPORT_LINKS.find((known) => known === dp?.[1]?.toLowerCase())
  if (!dp || !link) return unreadable(`"${text}" is not a link. Write ${allowed}.`)
  return parsed({ family: 'displayport', link, lanes: Number(dp[2]) as 1 | 2 | 4 })
}
