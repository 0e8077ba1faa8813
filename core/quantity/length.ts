import { decimal, type Parsed, parsed, plainText, unreadable } from './parsed'

/** Lengths are metres everywhere inside Hallway. */
export type Metres = number
export type LengthUnit = 'm' | 'ft'

/** The international foot (1959 agreement, exact). */
export const METRES_PER_FOOT = 0.3048
const METRES_PER_INCH = METRES_PER_FOOT / 12

/** What a cable or a route may measure: a centimetre of jumper up to the longest fibre extender link and then some. */
export const SHORTEST_LENGTH: Metres = 0.01
export const LONGEST_LENGTH: Metres = 10_000

const METRIC: Record<string, Metres> = {
  m: 1,
  metre: 1,
  metres: 1,
  meter: 1,
  meters: 1,
  cm: 0.01,
  mm: 0.001,
  km: 1000,
}
const NUMBER = String.raw`\d+(?:\.\d+)?|\.\d+`
const barePattern = new RegExp(`^[-+]?(?:${NUMBER})(?:e[-+]?\\d+)?$`)
const metricPattern = new RegExp(`^(${NUMBER}) ?(${Object.keys(METRIC).join('|')})$`)
const feetAndInchesPattern = new RegExp(
  `^(?:(${NUMBER}) ?(?:'|ft\\.?|foot|feet))? ?(?:(?:(${NUMBER})(?: (\\d+)/(\\d+))?|(\\d+)/(\\d+)) ?(?:"|in\\.?|inch|inches))?$`,
)

/**
 * Reads a length as people write it: "4.2 m", "420 cm", "14 ft", "13' 9\"", "13 ft 9 1/2 in", "4,2 m".
 * A bare number is taken in `bareUnit`. Answers metres, or the reason it cannot be one.
 *
 * @example parseLength("13' 9\"") // { ok: true, value: 4.191 }
 */
export function parseLength(text: string, bareUnit: LengthUnit = 'm'): Parsed<Metres> {
  const plain = plainText(text)
    .toLowerCase()
    .replace(/[′’‘]/g, "'")
    .replace(/[″“”]|''/g, '"')
    .replace(/^(\d+),(\d+)/, '$1.$2')
  if (plain === '') return unreadable('Give a length, such as 4.2 m, 14 ft or 13\' 9".')

  const bare = barePattern.test(plain)
  if (bare) return withinReach(Number(plain) * (bareUnit === 'ft' ? METRES_PER_FOOT : 1))
  if (/^-/.test(plain)) return unreadable('A length is more than nothing; leave out the minus sign.')

  const metric = plain.match(metricPattern)
  if (metric) return withinReach(Number(metric[1]) * (METRIC[metric[2] ?? ''] ?? Number.NaN))

  const imperial = plain.match(feetAndInchesPattern)
  if (imperial) {
    const [, feet, inches, over, under, loneOver, loneUnder] = imperial
    const fraction = Number(over ?? loneOver ?? 0) / Number(under ?? loneUnder ?? 1)
    return withinReach(Number(feet ?? 0) * METRES_PER_FOOT + (Number(inches ?? 0) + fraction) * METRES_PER_INCH)
  }
  return unreadable(
    `"${text.trim().slice(0, 40)}" is not a length Hallway reads. Write it like 4.2 m, 14 ft or 13' 9".`,
  )
}

function withinReach(metres: Metres): Parsed<Metres> {
  if (!Number.isFinite(metres)) return unreadable('That is not a length that can be measured.')
  if (metres < SHORTEST_LENGTH || metres > LONGEST_LENGTH) {
    return unreadable(`A length lies between ${SHORTEST_LENGTH * 100} cm and ${LONGEST_LENGTH / 1000} km.`)
  }
  return parsed(metres)
}

/**
 * A distance from somewhere, which may be nothing or lie the other way: where something stands, how high it is.
 *
 * @example parseOffset('0'); parseOffset('-3 ft'); parseOffset('6.4')
 */
export function parseOffset(text: string, unit: LengthUnit = 'm'): Parsed<Metres> {
  const plain = plainText(text)
  if (/^-?0([.,]0{1,4})?( ?(m|cm|ft))?$/.test(plain)) return parsed(0)
  const other = plain.startsWith('-')
  const read = parseLength(other ? plain.slice(1) : plain, unit)
  return read.ok && other ? parsed(-read.value) : read
}

/** Whether two lengths are one, however they were written: feet and metres of one length differ in the last binary digit. */
export const sameLength = (one: Metres, other: Metres): boolean => Math.abs(one - other) < 1e-9

/** A length in the unit asked for: metres to the centimetre, or feet and inches to the half inch. */
export function formatLength(metres: Metres, unit: LengthUnit = 'm'): string {
  if (unit === 'm') return metres < 0.1 ? `${decimal(metres * 100, 1)} cm` : `${decimal(metres, 2)} m`
  const halfInches = Math.round((metres / METRES_PER_INCH) * 2)
  const feet = Math.floor(halfInches / 24)
  const inches = (halfInches - feet * 24) / 2
  if (feet === 0) return `${inches} in`
  return inches === 0 ? `${feet} ft` : `${feet} ft ${inches} in`
}

/** Both units, the asked-for one first: "4.2 m (13 ft 9.5 in)". */
export function formatLengthBoth(metres: Metres, first: LengthUnit = 'm'): string {
  const other = first === 'm' ? 'ft' : 'm'
  return `${formatLength(metres, first)} (${formatLength(metres, other)})`
}
