import { z } from 'zod'
import { endText, parseEnd } from '../../../../core/drawer/end-text'
import { FEED_WORDS, feedFrom, feedText } from '../../../../core/drawer/feed-text'
import { type LengthUnit, parseLength, sameLength } from '../../../../core/quantity/length'
import { plainText } from '../../../../core/quantity/parsed'
import { CABLE_GRADES, CONSTRUCTIONS } from '../../../../core/standards/grades'
import { POWER_MARKS, parsePowerMark, powerMarkOf } from '../../../../core/standards/mark-text'
import { type CableKind, cableKindSchema, FEELS, MOST_LENGTHS } from '../../../../core/vocabulary/cable'
import { HIGHEST_PRICE, idField, nameField, priceField } from '../../../../core/vocabulary/fields'
import { lengthText, readBy } from '../../../ui/form-text'

const days = z
  .string()
  .regex(/^\d{1,3}$/, { error: 'Give whole days, at most 365.' })
  .transform(Number)
  .refine((count) => count <= 365, 'Give whole days, at most 365.')
  .optional()

/** Names with commas between them. */
const names = z
  .string()
  .default('')
  .transform((text) => text.split(',').map(plainText).filter(Boolean))
  .refine((list) => list.length <= 8, 'Name at most 8 things, with commas between them.')

/** So many wrong lines are told. */
const LINES_TOLD = 5

/** Lines such as "2 m 12.50": a length and its price. */
const stockLines = (unit: LengthUnit) =>
  z
    .string()
    .default('')
    .transform((text, context) => {
      let wrong = 0
      return text
        .split('\n')
        .map(plainText)
        .filter(Boolean)
        .flatMap((line) => {
          const [, length = '', price = ''] = /^(.*) (\d+(?:[.,]\d{1,2})?)$/.exec(line) ?? []
          const read = parseLength(length, unit)
          if (read.ok && price) return [{ length: read.value, price: Number(price.replace(',', '.')) }]
          wrong += 1
          if (wrong <= LINES_TOLD)
            context.addIssue(`"${line.slice(0, 40)}" is not a length and a price. Write a line like 2 m 12.50.`)
          return []
        })
    })
    .refine((lines) => lines.length <= MOST_LENGTHS, `A kind is sold in at most ${MOST_LENGTHS} lengths.`)
    .refine((lines) => lines.every(({ price }) => price <= HIGHEST_PRICE), `A price is at most ${HIGHEST_PRICE}.`)

/** What the form of a kind holds, as it is typed. */
export const kindFormSchema = (unit: LengthUnit) =>
  z.object({
    id: idField.optional(),
    name: z.string({ error: 'Give the kind a name.' }).pipe(nameField),
    first: readBy(parseEnd, 'Choose the first end.'),
    second: readBy(parseEnd, 'Choose the second end.'),
    oneWay: z.literal('on').optional(),
    grade: z.enum(CABLE_GRADES, { error: 'Choose what it is listed as.' }),
    power: z.enum(POWER_MARKS).optional(),
    construction: z.enum(CONSTRUCTIONS).default('passive'),
    feed: z.enum(FEED_WORDS).default('bus'),
    wants: names,
    includes: names,
    stock: stockLines(unit),
    leadDays: days,
    returnDays: days,
    wantsPrice: z
      .string()
      .transform((text) => Number(text.replace(',', '.')))
      .pipe(priceField.or(z.never({ error: `A price is a figure from 0 to ${HIGHEST_PRICE}.` })))
      .optional(),
    cord: readBy((text) => parseLength(text, unit), '').optional(),
    avoid: nameField.optional(),
    gramsPerMetre: z
      .string()
      .regex(/^\d{1,4}$/, { error: 'Give whole grams a metre, 1 to 2000.' })
      .transform(Number)
      .refine((grams) => grams >= 1 && grams <= 2000, 'Give whole grams a metre, 1 to 2000.')
      .optional(),
    feel: z.enum(FEELS).optional(),
    strap: z.literal('on').optional(),
    angled: z.literal('on').optional(),
    note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
  })
export type KindForm = z.output<ReturnType<typeof kindFormSchema>>
export type KindFormTexts = { [Name in keyof KindForm]?: string }

/** The kind that a form describes; its length and price lines sorted by length. A length that stands in the catalogue already stays what it is. */
export function readKind(form: KindForm, id: string, today: string, before?: CableKind): CableKind {
  const asBefore = (length: number) => before?.stock.find((line) => sameLength(line.length, length))?.length ?? length
  const power = form.power ? parsePowerMark(form.power) : null
  return cableKindSchema.parse({
    id,
    name: form.name,
    ends: [form.first, form.second],
    oneWay: form.oneWay === 'on',
    construction: form.construction,
    ...(form.feed === 'bus' ? {} : feedFrom(form.feed)),
    ...(before?.pair === undefined ? {} : { pair: before.pair }),
    ...(before?.passesBack === undefined ? {} : { passesBack: before.passesBack }),
    ...(before?.passesOn === undefined ? {} : { passesOn: before.passesOn }),
    ...(form.wants.length > 0 ? { wants: form.wants } : {}),
    ...(form.includes.length > 0 ? { includes: form.includes } : {}),
    ...(form.wantsPrice === undefined ? {} : { wantsPrice: form.wantsPrice }),
    ...(form.cord === undefined
      ? {}
      : { cord: before?.cord !== undefined && sameLength(before.cord, form.cord) ? before.cord : form.cord }),
    ...(form.avoid === undefined ? {} : { avoid: { why: form.avoid, on: before?.avoid?.on ?? today } }),
    grade: form.grade,
    ...(power?.ok ? { amps: power.value.amps, ...(power.value.volts === 50 ? { volts: 50 } : {}) } : {}),
    stock: form.stock
      .map(({ length, price }) => ({ length: asBefore(length), price }))
      .sort((one, other) => one.length - other.length),
    ...(form.leadDays === undefined ? {} : { leadDays: form.leadDays }),
    ...(form.returnDays === undefined ? {} : { returnDays: form.returnDays }),
    ...handOf(form),
    ...(form.note ? { note: form.note } : {}),
  })
}

function handOf({ gramsPerMetre, feel, strap, angled }: KindForm): Pick<CableKind, 'hand'> {
  const hand = {
    ...(gramsPerMetre === undefined ? {} : { gramsPerMetre }),
    ...(feel ? { feel } : {}),
    ...(strap ? { strap: true } : {}),
    ...(angled ? { angled: true } : {}),
  }
  return Object.keys(hand).length > 0 ? { hand } : {}
}

export const textsOfKind = (kind: CableKind, unit: LengthUnit): KindFormTexts => ({
  id: kind.id,
  name: kind.name,
  first: endText(kind.ends[0]),
  second: endText(kind.ends[1]),
  oneWay: kind.oneWay ? 'on' : undefined,
  grade: kind.grade,
  power: powerMarkOf(kind) ?? undefined,
  construction: kind.construction,
  feed: feedText({ feed: kind.feed ?? 'bus', feedEnd: kind.feedEnd }),
  wants: kind.wants?.join(', '),
  includes: kind.includes?.join(', '),
  wantsPrice: kind.wantsPrice === undefined ? undefined : String(kind.wantsPrice),
  cord: kind.cord === undefined ? undefined : lengthText(kind.cord, unit),
  avoid: kind.avoid?.why,
  stock: kind.stock.map(({ length, price }) => `${lengthText(length, unit)} ${price}`).join('\n'),
  leadDays: kind.leadDays === undefined ? undefined : String(kind.leadDays),
  returnDays: kind.returnDays === undefined ? undefined : String(kind.returnDays),
  gramsPerMetre: kind.hand?.gramsPerMetre === undefined ? undefined : String(kind.hand.gramsPerMetre),
  feel: kind.hand?.feel,
  strap: kind.hand?.strap ? 'on' : undefined,
  angled: kind.hand?.angled ? 'on' : undefined,
  note: kind.note,
})
