import type { z } from 'zod'
import { type Entities, type Entity, type EntityList, entityLists, type Fault, foldId, type Reference } from './entity'
import { planLists } from './lists'
import { type PlanLookup, planLookup } from './lookup'
import { PLAN_FORMAT, PLAN_LISTS, PLAN_VERSION, type Plan, type PlanList, planSchema, roomOf } from './plan'
import { isVersionRead, upgradePlan } from './upgrade'

export type { Fault } from './entity'
/** `more` where it was not read on after the first faults. */
export type ReadPlan = { ok: true; plan: Plan } | { ok: false; faults: Fault[]; more: boolean }

/** So many faults are told; nobody mends more at a time, and a file that is wrong in everything must not be read for it. */
export const MOST_FAULTS = 100

/**
 * What a site may be as a plan file without what was seen, in bytes; and what was seen, with room kept for taking some of it back. A file beyond them is refused
 * before it is parsed, and so is a change that would make such a site. So an export can always bring back what the database holds. A site
 * of 2,000 runs and 5,000 cables is about 3 MB, and 100,000 observations about 30 MB.
 */
export const LARGEST_PLAN_BYTES = 16_000_000
export const LARGEST_GROWN_BYTES = 48_000_000
export const SPARE_BYTES = 4_000_000
export const LARGEST_FILE_BYTES = LARGEST_PLAN_BYTES + LARGEST_GROWN_BYTES + SPARE_BYTES

/** `runs[3].leads[0].cable` */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${String(step)}` : String(step)),
    '',
  ) || '(file)'

/** Text of a plan file to a `Plan`, or the first faults in it. */
export function readPlanText(text: string): ReadPlan {
  if (text.length > LARGEST_FILE_BYTES) {
    return refuse('(file)', `larger than ${LARGEST_FILE_BYTES / 1e6} MB, the most a plan file may be`)
  }
  if (isDeeperThan(DEEPEST, text)) return refuse('(file)', `nested deeper than ${DEEPEST} levels, which no plan is`)
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return refuse('(file)', `not JSON: ${error instanceof Error ? error.message.slice(0, 160) : 'it cannot be parsed'}`)
  }
  if (!text.isWellFormed() || (HALF_CHARACTER.test(text) && !isWhole(json)))
    return refuse('(file)', 'holds half a character (a lone surrogate), which cannot be written down')
  return readPlan(json)
}

const DEEPEST = 40

/** Whether JSON nests deeper, told from its text, as whatever goes down into it may fall over. */
function isDeeperThan(deepest: number, text: string): boolean {
  let depth = 0
  let quoted = false
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at)
    if (quoted) {
      if (code === BACKSLASH) at += 1
      else if (code === QUOTE) quoted = false
    } else if (code === QUOTE) quoted = true
    else if (code === OPEN_LIST || code === OPEN_OBJECT) {
      depth += 1
      if (depth > deepest) return true
    } else if (code === CLOSE_LIST || code === CLOSE_OBJECT) depth -= 1
  }
  return false
}
const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d]

/** An escape that may be half of a character outside the first plane. */
const HALF_CHARACTER = /\\u[dD][89a-fA-F]/
const isWhole = (json: unknown): boolean => {
  if (typeof json === 'string') return json.isWellFormed()
  if (typeof json !== 'object' || json === null) return true
  return Object.entries(json).every(([key, value]) => key.isWellFormed() && isWhole(value))
}

/** A parsed JSON value to a `Plan` whose every reference leads somewhere, or the first faults in it with their paths. Files of earlier versions are brought up to date. */
export function readPlan(given: unknown): ReadPlan {
  const head = given as { format?: unknown; version?: unknown } | null
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    return refuse('(file)', 'a plan file holds one JSON object')
  if (head?.format !== PLAN_FORMAT) return refuse('format', `must be "${PLAN_FORMAT}"; this is not a Hallway plan file`)
  if (typeof head.version === 'number' && head.version > PLAN_VERSION)
    return refuse(
      'version',
      `a newer Hallway wrote this (version ${head.version}); this one reads versions 1 to ${PLAN_VERSION}. Open it there, or update this one`,
    )
  if (!isVersionRead(head.version)) {
    return refuse(
      'version',
      `this Hallway reads versions 1 to ${PLAN_VERSION}, the file says ${JSON.stringify(head.version)?.slice(0, 40)}`,
    )
  }
  const json = upgradePlan(given as Record<string, unknown>, head.version)
  const shaped = shapedPlan(json as Record<string, unknown>)
  if (!shaped.ok) return shaped
  const found = [...firstOf(faultsOfPlan(shaped.plan), MOST_FAULTS + 1)]
  return found.length > 0 ? refuseAll(found) : shaped
}

/** A file that is no plan for one reason. */
export const refuse = (path: string, reason: string): ReadPlan => refuseAll([{ path, reason }])
const refuseAll = (faults: Fault[]): ReadPlan & { ok: false } => ({
  ok: false,
  faults: faults.slice(0, MOST_FAULTS),
  more: faults.length > MOST_FAULTS,
})

/** A plan whose every entity has its shape. Entities are read one after the other, and no further than the first faults. */
function shapedPlan(json: Record<string, unknown>): ReadPlan {
  const lists = Object.fromEntries(PLAN_LISTS.map((list) => [list, []]))
  const head = planSchema.safeParse({ ...json, ...lists })
  const faults: Fault[] = head.success ? [] : [...firstOf(head.error.issues.flatMap(faultsOf), MOST_FAULTS + 1)]
  const read: Partial<Record<PlanList, unknown[]>> = {}
  for (const list of PLAN_LISTS) {
    const given = json[list] ?? []
    const { schema } = entityLists[list]
    const most = roomOf(list)
    if (!Array.isArray(given)) faults.push({ path: list, reason: 'must be a list' })
    else if (given.length > most) faults.push({ path: list, reason: `a site has at most ${most} of these` })
    else {
      const items: unknown[] = []
      for (const [at, item] of given.entries()) {
        if (faults.length > MOST_FAULTS) return refuseAll(faults)
        const shaped = schema.safeParse(item)
        if (shaped.success) items.push(shaped.data)
        else
          for (const issue of shaped.error.issues.slice(0, MOST_FAULTS))
            faults.push(...faultsOf({ ...issue, path: [list, at, ...issue.path] } as typeof issue))
      }
      read[list] = items
    }
  }
  return head.success && faults.length === 0
    ? { ok: true, plan: { ...head.data, ...(read as Pick<Plan, PlanList>) } }
    : refuseAll(faults)
}

function* firstOf<T>(items: Iterable<T>, most: number): Iterable<T> {
  let count = 0
  for (const item of items) {
    if (count === most) return
    count += 1
    yield item
  }
}

/** Everything that is wrong between the entities of a plan whose shapes are right. */
export function* faultsOfPlan(plan: Plan): Iterable<Fault> {
  const lookup = planLookup(plan, 'the later')
  for (const list of PLAN_LISTS) {
    const ids = new Set<string>()
    for (const [at, entity] of plan[list].entries()) {
      const prefix = `${list}[${at}]`
      const folded = foldId(list, entity.id)
      if (ids.has(folded)) yield { path: `${prefix}.id`, reason: `"${entity.id}" is used twice` }
      ids.add(folded)
      for (const { path, reason } of faultsOfEntity(list, entity, lookup)) yield { path: `${prefix}.${path}`, reason }
    }
  }
}

/** What is wrong with one entity as it stands among the others: what it names, what it shares, what it is by itself. */
export function* faultsOfEntity<List extends PlanList>(
  list: List,
  entity: Entities[List],
  lookup: PlanLookup,
): Iterable<Fault> {
  const { references, keys, faults } = entityLists[list] as EntityList<Entities[List]>
  for (const reference of references?.(entity) ?? []) {
    const reason = danglingReason(reference, lookup)
    if (reason) yield { path: pathOfReference(reference, lookup), reason }
  }
  for (const { path, key, taken } of keys?.(entity) ?? []) {
    const rival = lookup.rival(list, key, (entity as Entity & { id: string }).id)
    if (rival !== undefined) yield { path, reason: taken(rival) }
  }
  yield* faults?.(entity) ?? []
}

function danglingReason(reference: Reference, lookup: PlanLookup): string | null {
  switch (reference.to) {
    case 'port': {
      const { device, port } = reference.address
      if (!lookup.has('devices', device)) return `there is no device "${device}"`
      return lookup.hasPort(reference.address) ? null : `there is no port on device "${device}" called "${port}"`
    }
    case 'test':
      return lookup.hasTest(reference.session, reference.id)
        ? null
        : `there is no test "${reference.id}" in its session`
    default:
      return lookup.has(reference.to, reference.id)
        ? null
        : `there is no ${planLists[reference.to].noun} "${reference.id}"`
  }
}

/** Of an address, the half that leads nowhere. */
const pathOfReference = (reference: Reference, lookup: PlanLookup): string =>
  reference.to === 'port'
    ? `${reference.path}.${lookup.has('devices', reference.address.device) ? 'port' : 'device'}`
    : reference.path

/** What a schema says of a value, in the words of the reader. */
export function faultsOf(issue: z.core.$ZodIssue): Fault[] {
  if (issue.code === 'unrecognized_keys') {
    return issue.keys.slice(0, MOST_FAULTS).map((key) => ({
      path: pathText([...issue.path, key.slice(0, 60)]),
      reason: 'not a field of the plan file',
    }))
  }
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const nearest = [...issue.errors].sort((one, other) => one.length - other.length)[0] ?? []
    return nearest.flatMap((inner) => faultsOf({ ...inner, path: [...issue.path, ...inner.path] }))
  }
  return [{ path: pathText(issue.path), reason: issue.message.replace(/^Invalid (input|option): /, '') }]
}
