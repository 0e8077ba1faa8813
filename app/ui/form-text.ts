import { z } from 'zod'
import { formatLength, type LengthUnit, parseLength, sameLength } from '../../core/quantity/length'
import type { Parsed } from '../../core/quantity/parsed'
import type { PortAddress } from '../../core/vocabulary/run'

/** Text that one of the core's parsers understands, with the parser's own sentence where it does not. */
export const readBy = <T>(parse: (text: string) => Parsed<T>, empty: string) =>
  z.string({ error: empty }).transform((text, context) => {
    const read = parse(text)
    if (read.ok) return read.value
    context.addIssue(read.problem)
    return z.NEVER
  })

/** In the unit in force where that reads back to the same length, in metres as they are where it would not: what nobody touches is not rounded. */
export function lengthText(metres: number, unit: LengthUnit): string {
  const text = formatLength(metres, unit)
  const back = parseLength(text)
  return back.ok && sameLength(back.value, metres) ? text : `${metres} m`
}

/** A port as the value of a choice: its device, a stroke, itself. */
export const portField = (problem: string) => z.string({ error: problem }).regex(/^[^/]+\/[^/]+$/, problem)
export function addressFrom(text: string): PortAddress {
  const [device = '', port = ''] = text.split('/')
  return { device, port }
}
