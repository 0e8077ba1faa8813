import type { z } from 'zod'
import { type Entities, type Entity, type EntityList, entityLists, type Fault, foldId, type Reference } from './entity'
import { type PlanLookup, planLookup } from './lookup'
import { PLAN_FORMAT, PLAN_LISTS, PLAN_VERSION, type Plan, type PlanList, planSchema } from './plan'
import { upgradePlan } from './upgrade'

export type { Fault } from './entity'
export type ReadPlan = { ok: true; plan: Plan } | { ok: false; faults: Fault[] }

/**
 * What a site may be as a plan file, in bytes: a file beyond it is refused before it is parsed, and a change that would make a site of it is
 * refused as well, so that what the database holds an export can always bring back. A site of 2,000 runs, 5,000 cables and
 * 25,000 observations is about 9 MB.
 */
export const LARGEST_PLAN_BYTES = 16_000_000

/** `runs[3].leads[0].cable` */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${String(step)}` : String(step)),
    '',
  ) || '(file)'

/** Text of a plan file to a `Plan`, or every fault in it. */
export function readPlanText(text: string): ReadPlan {
  if (text.length > LARGEST_PLAN_BYTES) {
    return refuse('(file)', `larger than ${LARGEST_PLAN_BYTES / 1e6} MB, the most a plan file may be`)
  }
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return refuse('(file)', `not JSON: ${error instanceof Error ? error.message.slice(0, 160) : 'it cannot be parsed'}`)
  }
  return readPlan(json)
}

/** A parsed JSON value to a `Plan` whose every reference leads somewhere, or every fault in it with its path. Files of version 1 are brought up to date. */
export function readPlan(given: unknown): ReadPlan {
  const head = given as { format?: unknown; version?: unknown } | null
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    return refuse('(file)', 'a plan file holds one JSON object')
  if (head?.format !== PLAN_FORMAT) return refuse('format', `must be "${PLAN_FORMAT}"; this is not a Hallway plan file`)
  const json = head.version === 1 ? upgradePlan(given as Record<string, unknown>) : given
  if (head.version !== 1 && head.version !== PLAN_VERSION) {
    return refuse(
      'version',
      `this Hallway reads versions 1 and ${PLAN_VERSION}, the file says ${JSON.stringify(head.version)?.slice(0, 40)}`,
    )
  }
  const shaped = planSchema.safeParse(json)
  if (!shaped.success) return { ok: false, faults: shaped.error.issues.flatMap((issue) => faultsOf(issue)) }
  const faults = faultsOfPlan(shaped.data)
  return faults.length > 0 ? { ok: false, faults } : { ok: true, plan: shaped.data }
}

const refuse = (path: string, reason: string): ReadPlan => ({ ok: false, faults: [{ path, reason }] })

/** Everything that is wrong between the entities of a plan whose shapes are right. */
export function faultsOfPlan(plan: Plan): Fault[] {
  const faults: Fault[] = []
  const lookup = planLookup(plan, 'the later')
  for (const list of PLAN_LISTS) {
    const ids = new Set<string>()
    for (const [at, entity] of plan[list].entries()) {
      const prefix = `${list}[${at}]`
      const folded = foldId(list, entity.id)
      if (ids.has(folded)) faults.push({ path: `${prefix}.id`, reason: `"${entity.id}" is used twice` })
      ids.add(folded)
      for (const { path, reason } of faultsOfEntity(list, entity, lookup))
        faults.push({ path: `${prefix}.${path}`, reason })
    }
  }
  return faults
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

const nameOfList = {
  places: 'place',
  devices: 'device',
  kinds: 'cable kind',
  cables: 'cable',
  runs: 'run',
  sessions: 'session',
  observations: 'observation',
} as const

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
      return lookup.has(reference.to, reference.id) ? null : `there is no ${nameOfList[reference.to]} "${reference.id}"`
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
    return issue.keys.map((key) => ({
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
