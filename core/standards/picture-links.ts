import { type BitsPerSecond, GIGABIT } from '../quantity/rate'
import { fromMemory, published, type Source } from './source'

/** DisplayPort link rates, slowest first. */
export const DISPLAYPORT_LINKS = ['rbr', 'hbr', 'hbr2', 'hbr3', 'uhbr10', 'uhbr13.5', 'uhbr20'] as const
export type DisplayPortLink = (typeof DISPLAYPORT_LINKS)[number]

/** HDMI levels by payload, smallest first: three of TMDS, the others fixed rate links. */
export const HDMI_LEVELS = [
  'tmds-4.95',
  'frl-9',
  'tmds-10.2',
  'tmds-18',
  'frl-18',
  'frl-24',
  'frl-32',
  'frl-40',
  'frl-48',
] as const
export type HdmiLevel = (typeof HDMI_LEVELS)[number]

export type PictureLinkFacts = { name: string; payload: BitsPerSecond; source: Source }

const tunnelTable = published('Linux thunderbolt driver, DisplayPort tunnel bandwidth table')
const uhbrCoding = published('Linux kernel, drm_dp_helper.c: 96.71 % of a 128b/132b link is payload')
/** What is left of a 128b/132b link after coding, error correction and control symbols. */
const UHBR_PAYLOAD = 0.9671

/** Payload of one lane after coding. */
export const displayPortLane: Record<DisplayPortLink, PictureLinkFacts> = {
  rbr: { name: 'RBR', payload: 1.62 * 0.8 * GIGABIT, source: tunnelTable },
  hbr: { name: 'HBR', payload: 2.7 * 0.8 * GIGABIT, source: tunnelTable },
  hbr2: { name: 'HBR2', payload: 5.4 * 0.8 * GIGABIT, source: tunnelTable },
  hbr3: { name: 'HBR3', payload: 8.1 * 0.8 * GIGABIT, source: tunnelTable },
  uhbr10: { name: 'UHBR10', payload: 10 * UHBR_PAYLOAD * GIGABIT, source: uhbrCoding },
  'uhbr13.5': { name: 'UHBR13.5', payload: 13.5 * UHBR_PAYLOAD * GIGABIT, source: uhbrCoding },
  uhbr20: { name: 'UHBR20', payload: 20 * UHBR_PAYLOAD * GIGABIT, source: uhbrCoding },
}

/** Signalling rate of one lane, which the pairs of a lead must carry. */
export const laneRate = (link: DisplayPortLink): BitsPerSecond => laneGigabits[link] * GIGABIT
const laneGigabits: Record<DisplayPortLink, number> = {
  rbr: 1.62,
  hbr: 2.7,
  hbr2: 5.4,
  hbr3: 8.1,
  uhbr10: 10,
  'uhbr13.5': 13.5,
  uhbr20: 20,
}

const fixedRate = (gigabits: number): PictureLinkFacts => ({
  name: `HDMI ${gigabits} Gb/s (fixed rate)`,
  payload: (gigabits * GIGABIT * 16) / 18,
  source: fromMemory('HDMI 2.1, fixed rate link, 16b/18b'),
})

/** Payload of the whole HDMI link: TMDS is 24 bits a character, fixed rate links are 16b/18b. */
export const hdmiLink: Record<HdmiLevel, PictureLinkFacts> = {
  'tmds-4.95': {
    name: 'HDMI 4.95 Gb/s',
    payload: 165e6 * 24,
    source: published('Linux kernel, drm_dp_dual_mode_helper.c: 165 MHz of the first adapters'),
  },
  'frl-9': fixedRate(9),
  'tmds-10.2': {
    name: 'HDMI 10.2 Gb/s',
    payload: 340e6 * 24,
    source: published('edid-decode: an HDMI block before HDMI 2.0 has 340 MHz at most'),
  },
  'tmds-18': {
    name: 'HDMI 18 Gb/s',
    payload: 600e6 * 24,
    source: published('edid-decode: a block of HDMI 2.0 has 600 MHz at most'),
  },
  'frl-18': fixedRate(18),
  'frl-24': fixedRate(24),
  'frl-32': fixedRate(32),
  'frl-40': fixedRate(40),
  'frl-48': fixedRate(48),
}

/** The DisplayPort links at or below `link`. */
export const displayPortUpTo = (link: DisplayPortLink): readonly DisplayPortLink[] =>
  DISPLAYPORT_LINKS.slice(0, DISPLAYPORT_LINKS.indexOf(link) + 1)
export const hdmiUpTo = (level: HdmiLevel): readonly HdmiLevel[] => HDMI_LEVELS.slice(0, HDMI_LEVELS.indexOf(level) + 1)
