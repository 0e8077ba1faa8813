import { z } from 'zod'
import { planLists } from '../plan/lists'
import { PLAN_LISTS, type Plan, type PlanList } from '../plan/plan'
import { type Readers, readers } from '../vocabulary/fields'
import { policySchema } from '../vocabulary/policy'
import { siteSchema } from '../vocabulary/site'

/** What a reader of a site may be kept from: what things cost, and what people wrote about them. */
export const DETAILS = ['prices', 'notes'] as const
export type Detail = (typeof DETAILS)[number]

/** Lists that go as a whole: who sells, for how much, and what was ordered; and handovers, which tell in words what was open. */
const WHOLE: Readonly<Record<Detail, readonly PlanList[]>> = {
  prices: ['suppliers', 'offers', 'orders', 'orderLines'],
  notes: ['handovers'],
}

/** What stands where a text has to be. */
const NOT_SHOWN = 'not shown'

/** A plan as somebody sees it from whom some details are kept: a whole plan, without them. Nothing of the network is left out, so verdicts are the same. */
export function planWithout(plan: Plan, hidden: readonly Detail[]): Plan {
  if (hidden.length === 0) return plan
  const lists = PLAN_LISTS.map((list) => {
    const whole = hidden.some((detail) => WHOLE[detail].includes(list))
    return [list, whole ? [] : without(z.array(planLists[list].schema), plan[list], hidden)]
  })
  return {
    ...plan,
    ...Object.fromEntries(lists),
    site: without(siteSchema, plan.site, hidden),
    policy: without(policySchema, plan.policy, hidden),
  }
}

/** Takes what is kept from somebody out of a value; null where there is nothing of the sort in it. */
type Strip = ((value: unknown) => unknown) | null

const strips = new WeakMap<z.ZodType, Map<string, Strip>>()

function without<T>(schema: z.ZodType, value: T, hidden: readonly Detail[]): T {
  const strip = stripOf(schema, hidden)
  return strip ? (strip(value) as T) : value
}

/** What is wrapped in a schema that only says when it may be left out, or how it is read. */
function unwrapped(schema: z.ZodType): z.ZodType | null {
  if (schema instanceof z.ZodPipe) return (schema.in instanceof z.ZodTransform ? schema.out : schema.in) as z.ZodType
  if (
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodDefault ||
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodReadonly
  )
    return schema.unwrap() as z.ZodType
  return null
}

/** Who reads what a field holds, as it or what it wraps is marked. A text that is not marked is a note. */
export function readersOf(schema: z.ZodType): Readers | null {
  for (let inner: z.ZodType | null = schema; inner; inner = unwrapped(inner)) {
    const marked = readers.get(inner)
    if (marked) return marked
    if (inner.def.type === 'string') return { of: 'notes' }
  }
  return null
}

const isKept = (mark: Readers | null, hidden: readonly Detail[]): boolean =>
  mark !== null && mark.of !== 'all' && hidden.includes(mark.of)

function stripOf(schema: z.ZodType, hidden: readonly Detail[]): Strip {
  const key = hidden.toSorted().join()
  const known = strips.get(schema) ?? new Map<string, Strip>()
  strips.set(schema, known)
  const found = known.get(key)
  if (found !== undefined) return found
  const made = makeStrip(schema, hidden)
  known.set(key, made)
  return made
}

function makeStrip(schema: z.ZodType, hidden: readonly Detail[]): Strip {
  if (isKept(readersOf(schema), hidden)) return (value) => (typeof value === 'string' ? NOT_SHOWN : undefined)
  const inner = unwrapped(schema)
  if (inner) return stripOf(inner, hidden)
  if (schema instanceof z.ZodObject) return ofObject(schema, hidden)
  if (schema instanceof z.ZodArray) return ofMany(stripOf(schema.element as z.ZodType, hidden))
  if (schema instanceof z.ZodRecord) {
    const strip = stripOf(schema.valueType as z.ZodType, hidden)
    return strip && ((value) => mapped(value as Record<string, unknown>, () => strip))
  }
  if (schema instanceof z.ZodUnion) return ofOneOf(schema.options as readonly z.ZodType[], hidden)
  return null
}

/** The same list where nothing was taken out of it, so that what is kept with it stays. */
function ofMany(strip: Strip): Strip {
  if (!strip) return null
  return (value) => {
    const all = value as readonly unknown[]
    const made = all.map(strip)
    return made.every((each, at) => each === all[at]) ? all : made
  }
}

/** The same for the fields of an object; a field that is left out is gone. */
function mapped(value: Record<string, unknown>, stripFor: (field: string) => Strip | undefined): unknown {
  let same = true
  const fields = Object.entries(value).flatMap(([field, was]) => {
    const strip = stripFor(field)
    const is = strip ? strip(was) : was
    same &&= is === was
    return strip && is === undefined ? [] : [[field, is] as const]
  })
  return same ? value : Object.fromEntries(fields)
}

function ofObject(schema: z.ZodObject, hidden: readonly Detail[]): Strip {
  const fields = new Map<string, Strip>()
  for (const [name, field] of Object.entries(schema.shape) as [string, z.ZodType][]) {
    const mark = readersOf(field)
    const strip = isKept(mark, hidden) ? keptField(field, mark?.decides ?? false) : stripOf(field, hidden)
    if (strip) fields.set(name, strip)
  }
  if (fields.size === 0) return null
  return (value) => mapped(value as Record<string, unknown>, (name) => fields.get(name))
}

/** What stands in a field that is kept from somebody: nothing where it may be left out, unless that it is there decides something. */
function keptField(field: z.ZodType, decides: boolean): Strip {
  const empty = field.safeParse(undefined)
  return empty.success && !decides ? () => empty.data : () => NOT_SHOWN
}

/** Of several shapes that a value may have it is the first that has its fields and its fixed words. */
function ofOneOf(options: readonly z.ZodType[], hidden: readonly Detail[]): Strip {
  const strips = options.map((option) => ({ option, strip: stripOf(option, hidden) }))
  if (strips.every(({ strip }) => strip === null)) return null
  return (value) => {
    const strip = strips.find(({ option }) => looksLike(option, value))?.strip
    return strip ? strip(value) : value
  }
}

function looksLike(schema: z.ZodType, value: unknown): boolean {
  const inner = unwrapped(schema)
  if (inner) return looksLike(inner, value)
  if (schema instanceof z.ZodUnion)
    return (schema.options as readonly z.ZodType[]).some((each) => looksLike(each, value))
  if (!(schema instanceof z.ZodObject)) return typeof value !== 'object' && schema.def.type === typeof value
  if (typeof value !== 'object' || value === null) return false
  const shape = schema.shape as Record<string, z.ZodType>
  return (
    Object.keys(value).every((field) => field in shape) &&
    Object.entries(shape).every(
      ([field, each]) =>
        !(each instanceof z.ZodLiteral) || each.safeParse((value as Record<string, unknown>)[field]).success,
    )
  )
}
