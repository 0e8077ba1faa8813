import { type LengthUnit, parseLength } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { PORT_SITES } from '../../../core/vocabulary/device'
import { type Offer, offerSchema, type Supplier, supplierSchema } from '../../../core/vocabulary/order'

/** A figure somebody typed, or none. */
function figureOf(form: FormData, name: string): number | undefined {
  const text = String(form.get(name) ?? '')
    .trim()
    .replace(',', '.')
  return text === '' ? undefined : Number(text)
}
const wordsOf = (form: FormData, name: string): string | undefined => String(form.get(name) ?? '').trim() || undefined
const given = <T extends object>(fields: T): T =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T

/** A supplier as its form has it. */
export function readSupplier(form: FormData, id: string, today: string): Parsed<Supplier> {
  const why = wordsOf(form, 'avoid')
  const read = supplierSchema.safeParse(
    given({
      id,
      name: form.get('name'),
      delivery: figureOf(form, 'delivery'),
      freeFrom: figureOf(form, 'freeFrom'),
      leadDays: figureOf(form, 'leadDays'),
      returnDays: figureOf(form, 'returnDays'),
      avoid: why === undefined ? undefined : { why, on: today },
      note: wordsOf(form, 'note'),
    }),
  )
  if (read.success) return parsed(read.data)
  const field = String(read.error.issues[0]?.path[0])
  return unreadable(
    field === 'name'
      ? 'Give the supplier a name of 1 to 120 letters.'
      : /Days$/.test(field)
        ? 'Days are whole and at most 365.'
        : /delivery|freeFrom/.test(field)
          ? 'A price is a figure from 0 to 1000000.'
          : 'This cannot be read.',
  )
}

/** A price as its form has it. */
export function readOffer(form: FormData, today: string, unit: LengthUnit): Parsed<Omit<Offer, 'id'>> {
  const length = parseLength(String(form.get('length') ?? ''), unit)
  if (!length.ok) return length
  const excludes = PORT_SITES.filter((site) => form.getAll('excludes').includes(site))
  const read = offerSchema.safeParse(
    given({
      id: 'offer',
      supplier: form.get('supplier'),
      kind: form.get('kind'),
      length: length.value,
      price: figureOf(form, 'price'),
      number: wordsOf(form, 'number'),
      words: wordsOf(form, 'words'),
      available: figureOf(form, 'available'),
      leadDays: figureOf(form, 'leadDays'),
      returnDays: figureOf(form, 'returnDays'),
      excludes: excludes.length > 0 ? excludes : undefined,
      seen: today,
    }),
  )
  if (read.success) return parsed(read.data)
  const field = String(read.error.issues[0]?.path[0])
  return unreadable(
    /Days$/.test(field)
      ? 'Days are whole and at most 365.'
      : field === 'price'
        ? 'Say what one costs, such as 12.50.'
        : field === 'available'
          ? 'How many there are is a whole number.'
          : field === 'number'
            ? "The supplier's number has 60 letters at most."
            : 'Choose a supplier and a kind.',
  )
}
