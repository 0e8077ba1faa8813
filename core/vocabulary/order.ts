import { z } from 'zod'
import { PORT_SITES } from './device'
import { dayField, forAll, idField, lengthField, nameField, noteField, priceField, whyField } from './fields'

const daysField = z.number().int().min(0).max(365)
/** Articles of one sort that are bought or come at once, at most. */
export const MOST_OF_ARTICLE = 10_000
/** Earlier prices that an offer keeps. */
export const MOST_PRICES = 40
const countField = z.number().int().min(1).max(MOST_OF_ARTICLE)

/** Who sells, and on what terms. */
export const supplierSchema = z.strictObject({
  id: idField,
  name: nameField,
  delivery: priceField.optional().describe('What it costs to have an order sent, whatever is in it'),
  freeFrom: priceField.optional().describe('The worth of an order from which it is sent for nothing'),
  leadDays: daysField.optional().describe('Days from order to delivery, as promised'),
  returnDays: daysField.optional().describe('Days from delivery within which something may be sent back; 0 for never'),
  avoid: z
    .strictObject({ why: whyField, on: dayField })
    .optional()
    .describe('Nothing is bought there any more: why, and since when'),
  note: noteField.optional(),
})
export type Supplier = z.output<typeof supplierSchema>

/** One length of a kind, as one supplier sells it. */
export const offerSchema = z.strictObject({
  id: idField,
  supplier: idField,
  kind: idField,
  length: lengthField,
  price: priceField.describe('For one, in the currency of the site'),
  number: forAll(z.string().trim().min(1).max(60)).optional().describe("The supplier's own number for it"),
  words: nameField.optional().describe("The supplier's own words for it"),
  available: z.number().int().min(0).max(MOST_OF_ARTICLE).optional().describe('How many there are; left out: enough'),
  leadDays: daysField.optional().describe('Where it takes longer or shorter than the supplier promises'),
  returnDays: daysField.optional().describe("Where that differs from the supplier's terms"),
  seen: dayField.optional().describe('The day the price was read'),
  excludes: z
    .array(z.enum(PORT_SITES))
    .max(PORT_SITES.length)
    .optional()
    .describe('Sockets for which the supplier takes none of these back'),
  was: z
    .array(z.strictObject({ price: priceField, seen: dayField.optional() }))
    .max(MOST_PRICES)
    .optional()
    .describe('Earlier prices with the day each was read, the oldest first'),
})
export type Offer = z.output<typeof offerSchema>

/** What is bought at once from one supplier. */
export const orderSchema = z.strictObject({
  id: idField,
  name: nameField.describe('Its number or name: "2026-31"'),
  supplier: idField.optional().describe('Who it is bought from; left out: not chosen yet'),
  ordered: dayField.optional().describe('The day it was sent off; left out: it is planned'),
  after: z
    .array(idField)
    .max(40)
    .optional()
    .describe('Lines bought to try: it is sent off once one of these has passed'),
  note: noteField.optional(),
})
export type Order = z.output<typeof orderSchema>

/** So many of one article within an order. */
export const orderLineSchema = z.strictObject({
  id: idField,
  order: idField,
  kind: idField,
  length: lengthField,
  count: countField,
  price: priceField.describe('For one, as it was ordered'),
  runs: z.array(idField).max(2000).optional().describe('The runs it is for; what is left over is spare'),
  promised: dayField.optional().describe('The day it was promised for when it was sent off'),
  decide: dayField.optional().describe('Bought to try: the day on which it is decided what is kept'),
  arrived: z
    .array(z.strictObject({ on: dayField, count: countField }))
    .max(50)
    .optional()
    .describe('What came, and when'),
  tagged: z.array(idField).max(MOST_OF_ARTICLE).optional().describe('The cables of the drawer that it became'),
  back: z
    .array(
      z.strictObject({
        on: dayField,
        count: countField,
        cables: z.array(idField).max(MOST_OF_ARTICLE).optional().describe('Those among them that were tagged'),
        why: whyField.optional(),
        replaced: z.literal(true).optional().describe('As many come in their place'),
      }),
    )
    .max(50)
    .optional()
    .describe('What was sent back, when and why'),
})
export type OrderLine = z.output<typeof orderLineSchema>

/** How many of a line are to come in all: those ordered, and those that replace what went back. */
export const toCome = ({ count, back = [] }: Pick<OrderLine, 'count' | 'back'>): number =>
  count + sum(back.filter(({ replaced }) => replaced))

const sum = (parts: readonly { count: number }[] = []): number => parts.reduce((all, { count }) => all + count, 0)

/** How many of a line came, became cables of the drawer, and went back. */
export const countsOf = ({ arrived, tagged, back }: OrderLine) => ({
  here: sum(arrived),
  tagged: tagged?.length ?? 0,
  back: sum(back),
})

/** Those that came, are not cables of the drawer yet and did not go back. */
export function waitingToTag(line: OrderLine): number {
  const untagged = (line.back ?? []).reduce((all, { count, cables = [] }) => all + count - cables.length, 0)
  const { here, tagged } = countsOf(line)
  return Math.max(0, here - tagged - untagged)
}
