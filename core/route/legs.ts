import { asKept, lengthOfLegs } from '../quantity/along'
import { type LengthUnit, LONGEST_LENGTH, type Metres, parseLength, SHORTEST_LENGTH } from '../quantity/length'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import type { Policy } from '../vocabulary/policy'

/** One stretch of a route as it is measured on site; `across` where it goes straight over two measured sides. */
export type Leg = { by: string; length: Metres; across?: Metres | undefined; pathway?: string | undefined }

export const legsExample = 'down 0.7, tray 6.4, up 2.1'

/** The lead that a route asks for: its length, the slack this site keeps, and a loop at each end. */
export const leadFor = (route: Metres, { slack, loop }: Pick<Policy, 'slack' | 'loop'>): Metres =>
  route * (1 + slack) + 2 * loop

/** The route that a lead reaches along, with the slack this site keeps and a loop at each end: what `leadFor` asks for the other way round. */
export const routeFor = (lead: Metres, { slack, loop }: Pick<Policy, 'slack' | 'loop'>): Metres =>
  Math.max(0, (lead - 2 * loop) / (1 + slack))

const MOST_SAID = 40

/**
 * Legs in one line, as people say them: what it goes along and how far, one after the other. A bare length is one leg.
 *
 * @example parseLegs('down 0.7, tray 6.4, diagonal 3 x 4, up 7 ft')
 */
export function parseLegs(text: string, unit: LengthUnit = 'm'): Parsed<Leg[]> {
  const said = plainText(text)
    .split(/[;\n]|,(?=[ ]?[a-z])/i)
    .map((leg) => leg.trim())
    .filter(Boolean)
  if (said.length === 0) return unreadable(`Say how far, like ${legsExample}.`)
  if (said.length > MOST_SAID) return unreadable(`One line says at most ${MOST_SAID} legs.`)
  const legs: Leg[] = []
  for (const each of said) {
    const leg = legOf(each, unit)
    if (!leg.ok) return leg
    legs.push(leg.value)
  }
  if (lengthOfLegs(legs) > LONGEST_LENGTH) return unreadable(`Together these legs are longer than ${LONGEST_LENGTH} m.`)
  return parsed(legs)
}

/** A route as it is typed: how long it is, or its legs one after the other. */
export function parseRoute(text: string, unit: LengthUnit = 'm'): Parsed<{ length: Metres; legs?: Leg[] }> {
  const length = parseLength(text, unit)
  if (length.ok) return parsed({ length: length.value })
  const legs = parseLegs(text, unit)
  if (!legs.ok) return /[,;]/.test(text) ? legs : length
  const sum = lengthOfLegs(legs.value)
  return sum < SHORTEST_LENGTH ? length : parsed({ length: sum, legs: legs.value })
}

/** Legs as `parseLegs` reads them back. */
export function legsText(legs: readonly Leg[], unit: LengthUnit = 'm'): string {
  const figure = (metres: Metres): string => `${decimal(metres, 4)}${unit === 'm' ? '' : ' m'}`
  return legs
    .map(({ by, length, across }) => `${by} ${figure(length)}${across === undefined ? '' : ` x ${figure(across)}`}`)
    .join(', ')
}

function legOf(text: string, unit: LengthUnit): Parsed<Leg> {
  const figure = text.search(/\d|[.,]\d/)
  if (figure < 0) return unreadable(`"${text.slice(0, 40)}" has no length. Write legs like ${legsExample}.`)
  const by = text.slice(0, figure).trim().toLowerCase() || 'along'
  const size = text.slice(figure).trim()
  if (!/^\p{L}/u.test(by)) return unreadable(`"${text.slice(0, 40)}" is not a leg. Write legs like ${legsExample}.`)
  const sides = size.toLowerCase().split(/ ?x ?/)
  if (by === 'diagonal' && sides.length === 2) {
    const along = parseLength(sides[0] ?? '', unit)
    const across = parseLength(sides[1] ?? '', unit)
    if (!along.ok) return along
    return across.ok ? parsed({ by, length: asKept(along.value), across: asKept(across.value) }) : across
  }
  if (by.length > 40) return unreadable(`"${by.slice(0, 40)}" is too long a name for a leg.`)
  const length = parseLength(size, unit)
  return length.ok ? parsed({ by, length: asKept(length.value) }) : length
}
