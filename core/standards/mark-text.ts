import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { parseWatts } from '../quantity/watts'
import { CABLE_GRADES, type CableGrade, gradeFacts } from './grades'

/** The figures and words that stand on plugs (common practice). A generation number beside the lightning arrow is said as Thunderbolt. */
const marks: Record<string, CableGrade> = {
  charge: 'charge-only',
  'charge only': 'charge-only',
  'charging only': 'charge-only',
  '2.0': 'usb2',
  '480': 'usb2',
  '5': 'gen1',
  '10': 'gen2',
  '20': 'usb4-20',
  '40': 'usb4-40',
  '80': 'usb4-80',
  usb4: 'usb4-40',
  hbr2: 'dp-hbr2',
  hbr3: 'dp-hbr3',
  'hdmi 2.0': 'hdmi-18',
  'hdmi 2.1': 'hdmi-48',
  'hdmi 1.4': 'hdmi-10',
  'cat 6a': 'cat6a',
}

/**
 * Reads a mark, listing or grade as people write it.
 *
 * @example parseMark('40'); parseMark('Thunderbolt 4'); parseMark('TB3'); parseMark('charge only')
 */
export function parseMark(text: string): Parsed<CableGrade> {
  const plain = plainText(text).toLowerCase()
  const arrow = /^(?:thunderbolt|tbt|tb) ?([2-5])$/.exec(plain)
  if (arrow) return parsed(`thunderbolt${arrow[1]}` as CableGrade)
  const byName = CABLE_GRADES.find((grade) => grade === plain || gradeFacts[grade].name.toLowerCase() === plain)
  const grade = byName ?? marks[plain] ?? marks[plain.replace(/^usb ?/, '').replace(/ ?gb(\/s|ps|it\/s)$/, '')]
  if (grade) return parsed(grade)
  return unreadable(
    `"${text.trim().slice(0, 40)}" is not a mark Hallway knows. Write the figure on the plug (5, 10, 20, 40, 80), "2.0", "charge only", "Thunderbolt 4", "HBR3" or "HDMI 18 Gb/s".`,
  )
}

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
