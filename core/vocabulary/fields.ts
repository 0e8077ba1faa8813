import { z } from 'zod'
import { LONGEST_LENGTH, parseLength, SHORTEST_LENGTH } from '../quantity/length'
import type { Parsed } from '../quantity/parsed'
import { HIGHEST_RATE, parseRate } from '../quantity/rate'
import { HIGHEST_WATTS, parseWatts } from '../quantity/watts'

/**
 * Who reads what a field holds. A text that is marked for nobody in particular is kept from whoever may not see notes. One that decides something is told to be
 * there even where it is not shown.
 */
export type Readers = { of: 'all' | 'notes' | 'prices'; decides?: true }
export const readers = z.registry<Readers>()

const marked = <T extends z.ZodType>(schema: T, as: Readers): T => {
  readers.add(schema, as)
  return schema
}
/** A text that whoever sees the site reads: a name, a tag, a key. */
export const forAll = <T extends z.ZodType>(schema: T): T => marked(schema, { of: 'all' })
/** A text in which somebody writes what they like. */
export const asNote = <T extends z.ZodType>(schema: T, more: { decides?: true } = {}): T =>
  marked(schema, { of: 'notes', ...more })
/** What something costs. */
export const asPrice = <T extends z.ZodType>(schema: T): T => marked(schema, { of: 'prices' })

/** A stable id: letters, digits, dot, dash and underscore; people see tags instead. */
export const idField = forAll(
  z.string().regex(/^[a-z0-9][a-z0-9._-]{0,63}$/i, 'an id is 1 to 64 letters, digits, dots, dashes or underscores'),
)

/** A tag as it is written on the flag of a cable or run: "R-07", "C-0042". Letters with accents are composed, however they were typed. */
export const tagField = forAll(
  z
    .string()
    .trim()
    .normalize('NFC')
    .regex(
      /^[\p{L}\p{N}][\p{L}\p{N}\p{M} ._/-]{0,23}$/u,
      'a tag is 1 to 24 letters, digits, spaces, dots, dashes or strokes',
    ),
)

/** The form in which two tags are one: as a person reads them off a flag, whatever their case and however an accent was typed. */
export const foldTag = (tag: string): string =>
  PLAIN.test(tag) ? tag.toLowerCase() : tag.normalize('NFKC').toLowerCase().normalize('NFKC')
/** Most tags are, and fold at once. */
const PLAIN = /^[ -~]*$/

// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are exactly what a name must not carry
const CONTROL = /[\u0000-\u001f\u007f]/
const shortText = () =>
  z
    .string()
    .trim()
    .min(1, 'a name cannot be empty')
    .max(120, 'a name has at most 120 characters')
    .refine((name) => !CONTROL.test(name), 'a name has no control characters')
export const nameField = forAll(shortText())
/** Why something is so, in a few words. */
export const whyField = asNote(shortText())

export const noteField = asNote(z.string().max(2000, 'a note has at most 2000 characters'))
export const dayField = forAll(z.iso.date('a day is written 2026-11-25'))
/** A moment, to the millisecond and in UTC inside; pages show it in the reader's own time zone. */
export const instantField = forAll(
  z.iso.datetime({ offset: true, error: 'a moment is written 2026-11-25T14:05:00Z' }),
).transform((given, context) => {
  const moment = new Date(given)
  if (!Number.isNaN(moment.getTime()) && moment.getUTCFullYear() >= 1990 && moment.getUTCFullYear() < 2200)
    return moment.toISOString()
  context.addIssue('a moment lies between 1990 and 2200')
  return z.NEVER
})
/** ISO 8601 in UTC with milliseconds, so that the earlier of two is the lesser text. */
export type Instant = string

/** A quantity given as an SI number or as people write it; inside it is always the number. */
function quantity(parse: (text: string) => Parsed<number>, lowest: number, highest: number, unit: string) {
  return z.union([z.number(), forAll(z.string().max(40))]).transform((given, context) => {
    if (typeof given === 'number') {
      if (given >= lowest && given <= highest) return given
      context.addIssue(`${given} is outside ${lowest} to ${highest} ${unit}`)
      return z.NEVER
    }
    const read = parse(given)
    if (read.ok) return read.value
    context.addIssue(read.problem)
    return z.NEVER
  })
}

export const lengthField = quantity(parseLength, SHORTEST_LENGTH, LONGEST_LENGTH, 'm').describe(
  'A length: metres as a number, or text such as "4.2 m", "14 ft", "13\' 9\\""',
)
export const rateField = quantity(parseRate, 1, HIGHEST_RATE, 'bit/s').describe(
  'A rate: bits per second as a number, or text such as "5 Gb/s", "3000 MB/s"',
)
/** Diameters and bends are said in millimetres everywhere. */
export const millimetresField = (lowest: number, highest: number) => z.number().min(lowest).max(highest)

export const HIGHEST_PRICE = 1_000_000
/** A price in the site's currency. */
export const priceField = asPrice(z.number().min(0).max(HIGHEST_PRICE))

export const wattsField = quantity(parseWatts, 0.01, HIGHEST_WATTS, 'W').describe(
  'Power: watts as a number, or text such as "96 W"',
)
