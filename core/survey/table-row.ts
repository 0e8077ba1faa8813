import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import type { LengthUnit } from '../quantity/length'
import { type Parsed, parsed, unreadable } from '../quantity/parsed'

export type Row = (column: string) => string
/** The plan as it is by the rows before, and as it was before all of them. */
export type Context = { plan: Plan; before: Plan; unit: LengthUnit; idOf: (list: Made, name: string) => string }
export type Made = 'places' | 'devices' | 'runs' | 'needs'

export type Table = {
  columns: readonly string[]
  needed: readonly string[]
  /** What else people write over a column. */
  aliases?: Readonly<Record<string, string>>
  rows(plan: Plan): string[][]
  /** The plan with what a row says in it; what it does not say stays as it was. */
  read(row: Row, context: Context): Parsed<Plan>
}

export type Named = { id: string; name: string }

/** What a thing is called in a table: its name, or its id where others are called the same. */
export function called(items: readonly Named[], id: string): string {
  const item = byId(items).get(id)
  if (!item) return id
  const same = items.filter(({ name }) => name.toLowerCase() === item.name.toLowerCase())
  return same.length > 1 || items.some((other) => other !== item && other.id.toLowerCase() === item.name.toLowerCase())
    ? id
    : item.name
}

/** The things that a cell may name: the one of that id, or all of that name. */
export function named<T extends Named>(items: readonly T[], text: string): readonly T[] {
  const own = byId(items).get(text)
  return own ? [own] : items.filter(({ name }) => name.toLowerCase() === text.toLowerCase())
}

/** The thing that a cell names, by its id or by a name that no other has; several of one name are refused. */
export function oneOf<T extends Named>(same: readonly T[], text: string, what: string): Parsed<T | null> {
  if (same.length > 1)
    return unreadable(`${what}: ${same.length} are called "${text.slice(0, 40)}"; write the id of the one you mean`)
  return parsed(same[0] ?? null)
}

export function found<T extends Named>(items: readonly T[], text: string, what: string): Parsed<T> {
  const one = oneOf(named(items, text), text, what)
  if (!one.ok) return one
  return one.value ? parsed(one.value) : unreadable(`${what}: there is no "${text.slice(0, 40)}"`)
}

/** Whether a row means something that is there already: by the name of one and no other. */
export const known = <T extends Named>(items: readonly T[], text: string): Parsed<T | null> =>
  oneOf(named(items, text), text, 'name')

export const yesNo = (text: string): boolean | null =>
  /^(yes|y|true|1|x)$/i.test(text) ? true : /^(no|n|false|0)$/i.test(text) ? false : null

/** The entity with one field as the cell says: taken out where the cell is empty. */
export function withText<T extends object, Field extends keyof T>(entity: T, field: Field, text: string): T {
  const { [field]: _, ...rest } = entity
  return (text === '' ? rest : { ...rest, [field]: text }) as T
}
