import { LIST_NAMES, type ListName } from './entity'
import { PLAN_VERSION } from './plan'

type Json = Record<string, unknown>

/** What the step to the next version changed: of a whole file, where entities came or went, and of one entity by itself. */
type Step = { file?(file: Json): Json; entity?(list: ListName, body: Json): Json }

/**
 * One step for each version there was, by the version it starts from. A version that only adds fields that may be absent changes nothing of what was
 * written before, and nothing is made up: what absence means is said where the field stands.
 */
const STEPS: readonly Step[] = [
  { file: withObservations },
  { entity: (list, body) => (list === 'observations' ? withWhereByReference(body) : body) },
  {},
  {},
]

/** The steps that something of one version has to take, each once. */
const stepsBetween = (from: number, to: number): readonly Step[] => STEPS.slice(from - 1, to - 1)

/** Whether files of a version are read: every one there was has its step. */
export const isVersionRead = (version: unknown): version is number =>
  Number.isInteger(version) && (version as number) >= 1 && (version as number) <= STEPS.length + 1

/** A plan file of an earlier version as one of this version. Anything that is wrong with it is left as it is, for the reader to say. */
export function upgradePlan(file: Json, version: number): Json {
  let now = file
  for (const { file: changed, entity } of stepsBetween(version, PLAN_VERSION)) {
    now = changed?.(now) ?? now
    if (entity) now = { ...now, ...eachEntity(now, entity) }
  }
  return { ...now, version: PLAN_VERSION }
}

function eachEntity(file: Json, change: (list: ListName, body: Json) => Json): Json {
  const changed = (list: ListName, given: unknown): unknown => (isJson(given) ? change(list, given) : given)
  return Object.fromEntries(
    LIST_NAMES.flatMap((list) => {
      const given = file[list]
      if (given === undefined) return []
      return [[list, Array.isArray(given) ? given.map((item) => changed(list, item)) : changed(list, given)]]
    }),
  )
}

/**
 * An entity as a Hallway of some version wrote it, as a later version has it. Each step is pure and of one entity; a step that makes several of one is a
 * change in the log. What a newer Hallway wrote throws.
 */
export function upgradeEntity(list: ListName, body: unknown, version: number, to: number = PLAN_VERSION): unknown {
  if (version > to) throw new WrittenByNewer(version)
  if (!isJson(body)) return body
  return stepsBetween(version, to).reduce((now, { entity }) => entity?.(list, now) ?? now, body)
}

/** Something that a newer Hallway wrote, and this one cannot read. */
export class WrittenByNewer extends Error {
  constructor(version: number) {
    super(`a newer Hallway wrote this (version ${version}); this one reads versions up to ${PLAN_VERSION}`)
  }
}

const isJson = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value)

/** Until version 2 a computer and what was installed on it were words; they are told in the note, as no word says which device is meant. */
function withWhereByReference(observation: Json): Json {
  const { where, note, ...rest } = observation
  if (!isJson(where)) return observation
  const { computer, installed, ...there } = where
  const words = [
    note,
    typeof computer === 'string' ? `on ${computer}` : null,
    typeof installed === 'string' ? `installed: ${installed}` : null,
  ].filter((each) => typeof each === 'string')
  return {
    ...rest,
    ...(Object.keys(there).length > 0 ? { where: there } : {}),
    ...(words.length > 0 ? { note: words.join('; ').slice(0, 2000) } : note === undefined ? {} : { note }),
  }
}

/**
 * A plan file of version 1 as one of version 2: what was said of each cable and what was proved of each run become observations of their own,
 * in the order in which they stood. Days become moments of that day, a second apart, so that what stood later stays later. Anything that is
 * wrong with the file is left as it is, for the reader to say.
 */
function withObservations(file: Json): Json {
  const observations: Json[] = []
  const taken = new Set<string>()
  const cables = eachOf(file.cables, ({ evidence, ...cable }) => {
    for (const [at, piece] of listOf(evidence).entries())
      observations.push(observationOf(piece, { cable: cable.id }, idFor(cable.id, at, taken), at))
    return cable
  })
  const runs = eachOf(file.runs, ({ proofs, ...run }) => {
    for (const [at, { leads, ...proof }] of listOf(proofs).entries())
      observations.push(observationOf(proof, { run: run.id, leads }, idFor(run.id, at, taken), at))
    return run
  })
  return {
    ...file,
    ...(cables === undefined ? {} : { cables }),
    ...(runs === undefined ? {} : { runs }),
    observations,
  }
}

const eachOf = (list: unknown, change: (item: Json) => Json): unknown =>
  Array.isArray(list) ? list.map((item) => (isJson(item) ? change(item) : item)) : list

const listOf = (list: unknown): Json[] =>
  Array.isArray(list) ? list.filter((item) => typeof item === 'object' && item !== null) : []

function idFor(owner: unknown, at: number, taken: Set<string>): string {
  const stem = String(owner).slice(0, 50)
  let number = at + 1
  while (taken.has(`${stem}.o${number}`.toLowerCase())) number += 1
  const id = `${stem}.o${number}`
  taken.add(id.toLowerCase())
  return id
}

function observationOf({ on, controller, ...piece }: Json, subject: Json, id: string, at: number): Json {
  const kind = 'tried' in piece ? 'trial' : 'measure' in piece ? 'reading' : 'statement'
  const { basis, note, ...rest } = piece
  const simulated = note === 'from the simulated meter'
  return {
    id,
    at: momentOf(on, at),
    subject,
    kind,
    ...(kind === 'reading' ? {} : { basis }),
    ...rest,
    ...(controller === undefined ? {} : { where: { controller } }),
    ...(simulated ? { instrument: { name: 'simulated meter', simulated } } : note === undefined ? {} : { note }),
  }
}

/** Noon of the day, and as many seconds after it. A day that is none stays what it is. */
function momentOf(on: unknown, at: number): unknown {
  const noon = typeof on === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(on) ? new Date(`${on}T12:00:00Z`) : null
  if (noon === null || Number.isNaN(noon.getTime()) || noon.toISOString().slice(0, 10) !== on) return on
  return new Date(noon.getTime() + at * 1000).toISOString()
}
