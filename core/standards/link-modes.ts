import { type BitsPerSecond, GIGABIT, MEGABIT } from '../quantity/rate'
import { fromMemory, published, type Source } from './source'

/** Every way two USB or Thunderbolt ports can come up, from the slowest to the one people would choose first. */
export const LINK_MODES = [
  'usb2',
  'gen1x1',
  'gen1x2',
  'gen2x1',
  'gen2x2',
  'tbt3-20',
  'usb4-20',
  'tbt3-40',
  'usb4-40',
  'usb4-80',
] as const
export type LinkMode = (typeof LINK_MODES)[number]

export type LinkModeFacts = {
  name: string
  /** Signalling rate on the wire, all lanes together. */
  line: BitsPerSecond
  /** What is left for payload after line coding (and, for USB 2.0, after bulk framing). */
  payload: BitsPerSecond
  /** Whether pictures, PCIe and USB travel inside one tunnel in this mode. */
  tunnel: boolean
  source: Source
}

const usb32 = fromMemory('USB 3.2, physical layer')
const usb4 = fromMemory('USB4, electrical layer')

export const linkModeFacts: Record<LinkMode, LinkModeFacts> = {
  usb2: {
    name: 'USB 2.0',
    line: 480 * MEGABIT,
    // 13 bulk packets of 512 bytes in each 125 us microframe
    payload: 13 * 512 * 8 * 8000,
    tunnel: false,
    source: published('USB 2.0 §5.8.4'),
  },
  gen1x1: {
    name: 'USB 5 Gb/s (Gen 1)',
    line: 5 * GIGABIT,
    payload: (5 * GIGABIT * 8) / 10,
    tunnel: false,
    source: usb32,
  },
  gen1x2: {
    name: 'USB 10 Gb/s (Gen 1x2)',
    line: 10 * GIGABIT,
    payload: (10 * GIGABIT * 8) / 10,
    tunnel: false,
    source: usb32,
  },
  gen2x1: {
    name: 'USB 10 Gb/s (Gen 2)',
    line: 10 * GIGABIT,
    payload: (10 * GIGABIT * 128) / 132,
    tunnel: false,
    source: usb32,
  },
  gen2x2: {
    name: 'USB 20 Gb/s (Gen 2x2)',
    line: 20 * GIGABIT,
    payload: (20 * GIGABIT * 128) / 132,
    tunnel: false,
    source: usb32,
  },
  'tbt3-20': {
    name: 'Thunderbolt 20 Gb/s',
    line: 20 * GIGABIT,
    payload: (20 * GIGABIT * 64) / 66,
    tunnel: true,
    source: usb4,
  },
  'usb4-20': {
    name: 'USB4 20 Gb/s',
    line: 20 * GIGABIT,
    payload: (20 * GIGABIT * 64) / 66,
    tunnel: true,
    source: usb4,
  },
  'tbt3-40': {
    name: 'Thunderbolt 40 Gb/s',
    line: 40 * GIGABIT,
    payload: (40 * GIGABIT * 128) / 132,
    tunnel: true,
    source: usb4,
  },
  'usb4-40': {
    name: 'USB4 40 Gb/s',
    line: 40 * GIGABIT,
    payload: (40 * GIGABIT * 128) / 132,
    tunnel: true,
    source: usb4,
  },
  'usb4-80': {
    name: 'USB4 80 Gb/s',
    line: 80 * GIGABIT,
    payload: 76.8 * GIGABIT,
    tunnel: true,
    source: fromMemory('USB4 v2, PAM3 coding'),
  },
}

const order = new Map<LinkMode, number>(LINK_MODES.map((mode, index) => [mode, index]))
const rankOf = (mode: LinkMode): number => order.get(mode) ?? -1

/** The mode that ports settle on out of those all of them share; null where they share none. */
export function bestMode(modes: Iterable<LinkMode>): LinkMode | null {
  let best: LinkMode | null = null
  for (const mode of modes) if (best === null || rankOf(mode) > rankOf(best)) best = mode
  return best
}

/** True where `mode` is one that people would choose over `than`. */
export const isBetterMode = (mode: LinkMode, than: LinkMode | null): boolean =>
  than === null || rankOf(mode) > rankOf(than)

/** Modes that use both lane pairs of a type-C lead. */
const twoPairs: ReadonlySet<LinkMode> = new Set(
  LINK_MODES.filter((mode) => !['usb2', 'gen1x1', 'gen2x1'].includes(mode)),
)

/** How many of the two lane pairs of a lead a mode uses. USB 2.0 has wires of its own and is told apart by name. */
export const lanePairs = (mode: LinkMode): 1 | 2 => (twoPairs.has(mode) ? 2 : 1)

/** What a mode asks of each pair of wires: two modes of one rate over as many pairs need the same lead, whatever they are called. */
export const pairRate = (mode: LinkMode): BitsPerSecond => linkModeFacts[mode].line / lanePairs(mode)

/**
 * The slowest mode that could have carried a copy at a rate, of those a lead with such ends could come up in; null where none could. A lead with an older plug
 * has one lane.
 */
export function slowestModeFor(rate: BitsPerSecond, lanes: 'one lane' | 'any'): LinkMode | null {
  let slowest: LinkMode | null = null
  for (const mode of LINK_MODES) {
    const { payload } = linkModeFacts[mode]
    if (payload < rate || (lanes === 'one lane' && twoPairs.has(mode))) continue
    if (slowest === null || payload < linkModeFacts[slowest].payload) slowest = mode
  }
  return slowest
}
