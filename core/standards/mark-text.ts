import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { parseWatts } from '../quantity/watts'
import type { Connector } from './connectors'
import { CABLE_GRADES, type CableGrade, gradeFacts } from './grades'

/** The standards whose figures are printed on plugs: one and the same figure means another thing in each. */
const FAMILIES = ['usb', 'displayport', 'hdmi'] as const
type Family = (typeof FAMILIES)[number]

/** The figures, versions and names that stand on plugs or in lists, by the standard they belong to (common practice). A version promises the least it can mean. */
const marks: Readonly<Record<Family, Readonly<Record<string, CableGrade>>>> = {
  usb: {
    '2': 'usb2',
    '2.0': 'usb2',
    '480': 'usb2',
    'high speed': 'usb2',
    '3': 'gen1',
    '3.0': 'gen1',
    '3.1': 'gen1',
    '3.2': 'gen1',
    '5': 'gen1',
    'gen 1': 'gen1',
    ss: 'gen1',
    superspeed: 'gen1',
    '10': 'gen2',
    'gen 2': 'gen2',
    'superspeed+': 'gen2',
    '20': 'usb4-20',
    'gen 2x2': 'usb4-20',
    '4': 'usb4-40',
    '4.0': 'usb4-40',
    '40': 'usb4-40',
    'gen 3': 'usb4-40',
    '80': 'usb4-80',
    'gen 4': 'usb4-80',
    '4 v2': 'usb4-80',
    '4 2.0': 'usb4-80',
  },
  displayport: {
    '1.1': 'dp-hbr2',
    '1.2': 'dp-hbr2',
    '1.3': 'dp-hbr3',
    '1.4': 'dp-hbr3',
    '2.0': 'dp40',
    '2.1': 'dp40',
    hbr2: 'dp-hbr2',
    hbr3: 'dp-hbr3',
    uhbr10: 'dp40',
    'uhbr13.5': 'dp54',
    uhbr20: 'dp80',
    '17.28': 'dp-hbr2',
    '21.6': 'dp-hbr2',
    '25.92': 'dp-hbr3',
    '32.4': 'dp-hbr3',
    '40': 'dp40',
    '54': 'dp54',
    '80': 'dp80',
    '4k': 'dp-hbr2',
    '4k60': 'dp-hbr2',
    '4k120': 'dp-hbr3',
    '5k': 'dp-hbr3',
    '8k': 'dp-hbr3',
    '8k60': 'dp-hbr3',
  },
  hdmi: {
    '1.3': 'hdmi-10',
    '1.4': 'hdmi-10',
    '2.0': 'hdmi-18',
    '2.1': 'hdmi-48',
    '10.2': 'hdmi-10',
    '18': 'hdmi-18',
    '48': 'hdmi-48',
    'high speed': 'hdmi-10',
    premium: 'hdmi-18',
    'premium high speed': 'hdmi-18',
    ultra: 'hdmi-48',
    'ultra high speed': 'hdmi-48',
    '4k': 'hdmi-10',
    '4k30': 'hdmi-10',
    '4k60': 'hdmi-18',
    '4k120': 'hdmi-48',
    '8k': 'hdmi-48',
    '8k60': 'hdmi-48',
  },
}

/** Marks that mean one thing on any lead. */
const anywhere: Readonly<Record<string, CableGrade>> = {
  charge: 'charge-only',
  'charge only': 'charge-only',
  'charging only': 'charge-only',
  'power only': 'charge-only',
  'cat 5': 'cat5',
  'cat 5e': 'cat5',
  'cat 6': 'cat6',
  'cat 6a': 'cat6a',
  'cat 7': 'cat6a',
  cat5e: 'cat5',
  cat6a: 'cat6a',
  fiber: 'fibre',
}

const PREFIXES: readonly (readonly [RegExp, Family])[] = [
  [/^usb[- ]?/, 'usb'],
  [/^(?:mini ?)?(?:dp|displayport)[- ]?/, 'displayport'],
  [/^hdmi[- ]?/, 'hdmi'],
]

/** A mark as the lists have it: no unit of the rate, a generation written one way, a picture without its unit. */
const asListed = (text: string): string =>
  text
    .replace(/^(\d+(?:\.\d+)?) ?(?:g|gb|gbit|gbits|gbps|gb\/s|gbit\/s|mb\/s|mbps|mbit\/s)$/, '$1')
    .replace(/^v?(?:[34](?:\.\d)? )?gen ?(\d)(?:x1)?$/, 'gen $1')
    .replace(/^(?:[34](?:\.\d)? )?gen ?2 ?x ?2$/, 'gen 2x2')
    .replace(/^(\dk) ?@? ?(\d+)? ?(?:hz)?$/, '$1$2')
    .replace(/^v(?=\d)/, '')

/** The standards that a lead with such ends can be marked by, the likeliest first: a picture plug at either end decides. */
function familiesOf(ends: readonly Connector[]): readonly Family[] {
  if (ends.length === 0) return ['usb', 'hdmi', 'displayport']
  if (ends.some((end) => end === 'hdmi' || end === 'dvi')) return ['hdmi', 'displayport']
  if (ends.some((end) => end === 'displayport' || end === 'mini-displayport')) return ['displayport']
  return ['usb', 'displayport', 'hdmi']
}

/**
 * Reads a mark, listing or grade as people write it. What a figure means depends on the plugs: "2.0" on HDMI is not USB 2.0.
 *
 * @example parseMark('40G'); parseMark('TB3'); parseMark('2.0', ['hdmi', 'hdmi']); parseMark('DP 1.4')
 */
export function parseMark(text: string, ends: readonly Connector[] = []): Parsed<CableGrade> {
  const plain = plainText(text).toLowerCase()
  const arrow = /^(?:thunderbolt|tbt|tb)[ -]?([2-5])(?: \(?\d{2} ?g[a-z/]{0,6}\)?)?$/.exec(plain)
  if (arrow) return parsed(`thunderbolt${arrow[1]}` as CableGrade)
  const byName = CABLE_GRADES.find((grade) => grade === plain || gradeFacts[grade].name.toLowerCase() === plain)
  if (byName) return parsed(byName)
  const [prefix, named] = PREFIXES.find(([words]) => words.test(plain)) ?? []
  const listed = asListed(prefix ? plain.replace(prefix, '') : plain)
  // the standard that stands in the mark itself outranks the plugs
  const families = named ? [named] : familiesOf(ends)
  const grade = anywhere[plain] ?? families.map((family) => marks[family][listed]).find((found) => found !== undefined)
  if (grade) return parsed(grade)
  return unreadable(
    `"${text.trim().slice(0, 40)}" is not a mark Hallway knows. Write the figure on the plug (5, 10, 20, 40, 80), "2.0", "charge only", "Thunderbolt 4", "HBR3" or "HDMI 18 Gb/s".`,
  )
}

/** Words of a list that say there is no mark, and those that say nobody looked. */
export const saysUnmarked = (text: string): boolean =>
  /^(?:unmarked|none|no mark|no marking|blank|-+|–|n\/a)$/i.test(text.trim())
export const saysUnknown = (text: string): boolean => /^(?:\?+|unknown|not known|don't know|tbc)$/i.test(text.trim())

/** What a power mark means: 60 W is 3 A, 100 W 5 A, 240 W 5 A at up to 50 V; "none" carries no power. */
export function parsePowerMark(text: string): Parsed<{ amps: 0 | 3 | 5; volts: 20 | 50 }> {
  const plain = plainText(text).toLowerCase()
  if (plain === 'none' || plain === '0' || plain === '0 a') return parsed({ amps: 0, volts: 20 })
  const amps = /^([35]) ?a(mps?)?$/.exec(plain)
  if (amps) return parsed({ amps: amps[1] === '5' ? 5 : 3, volts: 20 })
  const watts = parseWatts(/w/.test(plain) ? plain : `${plain} W`)
  if (!watts.ok)
    return unreadable(`"${text.trim().slice(0, 40)}" is not a power mark. Write 60 W, 100 W, 240 W, 3 A, 5 A or none.`)
  if (watts.value > 100) return parsed({ amps: 5, volts: 50 })
  return parsed({ amps: watts.value > 60 ? 5 : 3, volts: 20 })
}

/** Power marks as they are printed; a lead that says nothing has none of them. */
export const POWER_MARKS = ['60 W', '100 W', '240 W', 'none'] as const
export type PowerMark = (typeof POWER_MARKS)[number]

/** The mark that `parsePowerMark` reads back; null where nothing is said of the current. */
export function powerMarkOf({
  amps,
  volts,
}: {
  amps?: number | undefined
  volts?: number | undefined
}): PowerMark | null {
  if (amps === undefined) return null
  if (amps === 0) return 'none'
  return volts === 50 ? '240 W' : amps === 5 ? '100 W' : '60 W'
}
