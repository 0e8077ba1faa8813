import type { z } from 'zod'
import { PLAN_FORMAT, PLAN_VERSION, type Plan, planSchema } from './plan'

/** One thing wrong with a plan file: where, and why. */
export type Fault = { path: string; reason: string }
export type ReadPlan = { ok: true; plan: Plan } | { ok: false; faults: Fault[] }

/** Larger files are refused before they are parsed. A site of 2,000 runs is about 2 MB. */
export const LARGEST_PLAN_BYTES = 8_000_000

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

/** A parsed JSON value to a `Plan` whose every reference leads somewhere, or every fault in it with its path. */
export function readPlan(json: unknown): ReadPlan {
  const head = json as { format?: unknown; version?: unknown } | null
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    return refuse('(file)', 'a plan file holds one JSON object')
  if (head?.format !== PLAN_FORMAT) return refuse('format', `must be "${PLAN_FORMAT}"; this is not a Hallway plan file`)
  if (head.version !== PLAN_VERSION) {
    return refuse(
      'version',
      `this Hallway reads version ${PLAN_VERSION}, the file says ${JSON.stringify(head.version)?.slice(0, 40)}`,
    )
  }
  const shaped = planSchema.safeParse(json)
  if (!shaped.success) return { ok: false, faults: shaped.error.issues.flatMap((issue) => faultsOf(issue)) }
  const faults = [...repeatedNames(shaped.data), ...danglingReferences(shaped.data)]
  return faults.length > 0 ? { ok: false, faults } : { ok: true, plan: shaped.data }
}

const refuse = (path: string, reason: string): ReadPlan => ({ ok: false, faults: [{ path, reason }] })

function faultsOf(issue: z.core.$ZodIssue): Fault[] {
  if (issue.code === 'unrecognized_keys') {
    return issue.keys.map((key) => ({
      path: pathText([...issue.path, key.slice(0, 60)]),
      reason: 'not a field of the plan file',
    }))
  }
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const nearest = [...issue.errors].sort((one, other) => misses(one) - misses(other))[0] ?? []
    return nearest.flatMap((inner) => faultsOf({ ...inner, path: [...issue.path, ...inner.path] }))
  }
  return [{ path: pathText(issue.path), reason: issue.message.replace(/^Invalid (input|option): /, '') }]
}

/** Of the shapes a union offers, the nearest is the one whose telling field (basis, kind) matched. */
const misses = (issues: readonly z.core.$ZodIssue[]): number =>
  issues.length + (issues.some((issue) => issue.code === 'invalid_value' && issue.path[0] === 'basis') ? 100 : 0)

function* repeatedNames(plan: Plan): Iterable<Fault> {
  const lists = {
    places: plan.places,
    devices: plan.devices,
    kinds: plan.kinds,
    cables: plan.cables,
    runs: plan.runs,
    needs: plan.needs,
    sessions: plan.sessions,
  }
  for (const [name, list] of Object.entries<readonly { id: string }[]>(lists)) {
    yield* repeats(
      list,
      (item) => item.id,
      (index) => `${name}[${index}].id`,
    )
  }
  for (const [index, device] of plan.devices.entries()) {
    yield* repeats(
      device.ports,
      (port) => port.id,
      (at) => `devices[${index}].ports[${at}].id`,
    )
  }
  for (const [index, session] of plan.sessions.entries()) {
    yield* repeats(
      session.tests,
      (test) => test.id,
      (at) => `sessions[${index}].tests[${at}].id`,
    )
  }
  yield* repeats(
    plan.cables,
    (cable) => cable.tag.toLowerCase(),
    (index) => `cables[${index}].tag`,
  )
  yield* repeats(
    plan.runs,
    (run) => run.tag.toLowerCase(),
    (index) => `runs[${index}].tag`,
  )
}

function* repeats<T>(
  list: readonly T[],
  keyOf: (item: T) => string,
  pathOf: (index: number) => string,
): Iterable<Fault> {
  const seen = new Set<string>()
  for (const [index, item] of list.entries()) {
    const key = keyOf(item).toLowerCase()
    if (seen.has(key)) yield { path: pathOf(index), reason: `"${keyOf(item)}" is used twice` }
    seen.add(key)
  }
}

function* danglingReferences(plan: Plan): Iterable<Fault> {
  const places = new Set(plan.places.map((place) => place.id))
  const kinds = new Set(plan.kinds.map((kind) => kind.id))
  const cables = new Set(plan.cables.map((cable) => cable.id))
  const runs = new Set(plan.runs.map((run) => run.id))
  const ports = new Map(plan.devices.map((device) => [device.id, new Set(device.ports.map((port) => port.id))]))
  const missing = (path: string, what: string, id: string): Fault => ({ path, reason: `there is no ${what} "${id}"` })

  for (const [index, device] of plan.devices.entries()) {
    if (device.place && !places.has(device.place)) yield missing(`devices[${index}].place`, 'place', device.place)
  }
  for (const [index, cable] of plan.cables.entries()) {
    if (cable.kind && !kinds.has(cable.kind)) yield missing(`cables[${index}].kind`, 'cable kind', cable.kind)
    if (cable.suppliedWith && !ports.has(cable.suppliedWith))
      yield missing(`cables[${index}].suppliedWith`, 'device', cable.suppliedWith)
  }
  const laid = new Map<string, string>()
  for (const [index, run] of plan.runs.entries()) {
    for (const end of ['from', 'to'] as const) {
      const { device, port } = run[end]
      if (!ports.has(device)) yield missing(`runs[${index}].${end}.device`, 'device', device)
      else if (!ports.get(device)?.has(port))
        yield missing(`runs[${index}].${end}.port`, `port on device "${device}" called`, port)
    }
    if (run.from.device === run.to.device && run.from.port === run.to.port) {
      yield { path: `runs[${index}].to`, reason: 'a run cannot end at the port it starts from' }
    }
    for (const [at, lead] of run.leads.entries()) {
      const path = `runs[${index}].leads[${at}].cable`
      if (!cables.has(lead.cable)) yield missing(path, 'cable', lead.cable)
      const other = laid.get(lead.cable)
      if (other !== undefined) yield { path, reason: `cable "${lead.cable}" already lies in run "${other}"` }
      laid.set(lead.cable, run.id)
    }
  }
  for (const [index, need] of plan.needs.entries()) {
    for (const end of ['from', 'to'] as const) {
      if (!ports.has(need[end])) yield missing(`needs[${index}].${end}`, 'device', need[end])
    }
    if (need.from === need.to) yield { path: `needs[${index}].to`, reason: 'a need flows between two devices' }
    for (const [at, run] of (need.through ?? []).entries()) {
      if (!runs.has(run)) yield missing(`needs[${index}].through[${at}]`, 'run', run)
    }
  }
  for (const [index, session] of plan.sessions.entries()) {
    for (const [at, cable] of session.cables.entries()) {
      if (!cables.has(cable)) yield missing(`sessions[${index}].cables[${at}]`, 'cable', cable)
    }
    for (const [at, test] of session.tests.entries()) {
      for (const end of ['from', 'to'] as const) {
        const { device, port } = test[end]
        if (!ports.get(device)?.has(port))
          yield missing(`sessions[${index}].tests[${at}].${end}`, 'port', `${device}/${port}`)
      }
    }
  }
}
