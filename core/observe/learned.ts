import { keptWith } from '../work/kept'
import { finished, type Steps } from '../work/steps'
import { countedOf } from './counted'
import type { Subject } from './every'
import { learn } from './learn'
import { type Learnt, NOTHING_LEARNT } from './learnt'
import type { Observation } from './observation'
import { pairOf } from './spot'

/** What a thing that can be observed is called among all of them: `cable c-0021`, `run r-09 c-0021,c-0022`, `kind plain-2m`. */
export type SubjectName = string

export const cableName = (id: string): SubjectName => `cable ${id}`
export const kindName = (id: string): SubjectName => `kind ${id}`
/** A run as it lay: with other leads it is another. */
export const runName = (id: string, leads: readonly string[]): SubjectName => `run ${id} ${leads.join()}`

export function subjectName(subject: Subject): SubjectName {
  if ('cable' in subject) return cableName(subject.cable)
  if ('run' in subject) return runName(subject.run, subject.leads)
  if ('kind' in subject) return kindName(subject.kind)
  if ('controller' in subject) return `controller ${subject.device} ${subject.controller}`
  return subject.port === undefined ? `device ${subject.device}` : `port ${subject.device}/${subject.port}`
}

/** The fastest that each cable copied between two sockets, by its id. */
export type BestCopies = ReadonlyMap<string, number>

/** What all observations of a site come to: what is learnt of each thing that was observed, and how fast cables copied between the same two sockets. */
export type Learned = {
  bySubject: ReadonlyMap<SubjectName, Learnt>
  /** How each run lay when it was observed: the names it has in `bySubject`. */
  runs: ReadonlyMap<string, readonly SubjectName[]>
  /** By the pair of sockets and the way. */
  copied: ReadonlyMap<string, BestCopies>
}

/** What was learnt of a run, by the leads that lay in it. */
export const runRecords = ({ bySubject, runs }: Learned, run: string): { leads: readonly string[]; learnt: Learnt }[] =>
  (runs.get(run) ?? []).map((name) => ({
    leads: (name.split(' ')[2] ?? '').split(','),
    learnt: bySubject.get(name) ?? NOTHING_LEARNT,
  }))

export const learntOfCable = (learned: Learned, id: string): Learnt | undefined => learned.bySubject.get(cableName(id))

/** The observations of a site, and whether simulated ones count on it. */
type Observed = { observations: readonly Observation[]; site: { practice: boolean } }

type Folded = { groups: ReadonlyMap<SubjectName, readonly Observation[]>; practice: boolean; learned: Learned }

/** What was folded is kept with the very list of observations it was folded from. */
const folded = new WeakMap<Observed['observations'], Folded>()

/** What is believed comes from here: the observations of a site, folded. */
export const learnedOf = (plan: Observed): Learned => foldedOf(plan).learned

/** Every observation of one cable, run, device, port, controller or kind, in the order they were written down. */
export function observationsOf(plan: Observed, subject: Subject | { run: string }): readonly Observation[] {
  const { groups } = foldedOf(plan)
  if ('run' in subject && !('leads' in subject))
    return [...groups].flatMap(([name, list]) => (name.startsWith(`run ${subject.run} `) ? list : []))
  return groups.get(subjectName(subject)) ?? []
}

const foldedOf = (plan: Observed): Folded => finished(foldInSteps(plan))

/** What is believed of a site that has seen much, worked out a little at a time; after that `learnedOf` has it at hand. */
export function* learnInSteps(plan: Observed): Steps<void> {
  yield* foldInSteps(plan)
}

function* foldInSteps({ observations, site }: Observed): Steps<Folded> {
  const found = folded.get(observations)
  if (found?.practice === site.practice) return found
  const groups = found?.groups ?? grouped(observations)
  yield
  const touched = namesTouched(groups.values())
  yield
  const learned = yield* learnedFrom(groups, new Map(), touched, site.practice)
  const made: Folded = { groups, practice: site.practice, learned }
  folded.set(observations, made)
  return made
}

function grouped(observations: readonly Observation[]): Map<SubjectName, Observation[]> {
  const groups = new Map<SubjectName, Observation[]>()
  for (const observation of observations) {
    const key = subjectName(observation.subject)
    const list = groups.get(key)
    if (list) list.push(observation)
    else groups.set(key, [observation])
  }
  return groups
}

/** The subjects of which something else is learnt when these were observed: themselves, and the cables that lay in the runs among them. */
function namesTouched(lists: Iterable<readonly Observation[]>): Set<SubjectName> {
  const names = new Set<SubjectName>()
  for (const [observation] of lists) {
    if (!observation) continue
    const { subject } = observation
    names.add(subjectName(subject))
    if ('run' in subject) for (const lead of subject.leads) names.add(cableName(lead))
  }
  return names
}

/**
 * What is learnt once some subjects are folded again; `before` is what was known of all others.
 */
function* learnedFrom(
  groups: ReadonlyMap<SubjectName, readonly Observation[]>,
  before: ReadonlyMap<SubjectName, Learnt>,
  touched: ReadonlySet<SubjectName>,
  practice: boolean,
  known: Omit<Learned, 'bySubject'> = { runs: new Map(), copied: new Map() },
): Steps<Learned> {
  const bySubject = new Map(before)
  const fold = (name: SubjectName, list: readonly Observation[]): void => {
    const learnt = learn(countedOf(list, practice))
    if (isEmpty(learnt)) bySubject.delete(name)
    else bySubject.set(name, learnt)
  }
  // what was seen of runs speaks of the cables in them as well
  const cables = [...touched].filter((name) => name.startsWith('cable '))
  let folded = 0
  for (const name of touched) {
    if (name.startsWith('cable ')) continue
    fold(name, groups.get(name) ?? [])
    folded += 1
    if (folded % AT_A_STEP === 0) yield
  }
  const runs = runsAgain(known.runs, touched, (name) => bySubject.has(name))
  for (const name of cables) {
    fold(name, [...(groups.get(name) ?? []), ...seenInRuns(namesWith(runs, name.slice('cable '.length)), groups)])
    folded += 1
    if (folded % AT_A_STEP === 0) yield
  }
  return { bySubject, runs, copied: copiedAgain(known.copied, before, bySubject, touched) }
}

/** Subjects folded in one step. */
const AT_A_STEP = 40

/** The names of observed runs that a cable lay in. */
const namesWith = (runs: Learned['runs'], cable: string): SubjectName[] => byLead(runs).get(cable) ?? []

const byLead = keptWith((runs: Learned['runs']): ReadonlyMap<string, SubjectName[]> => {
  const found = new Map<string, SubjectName[]>()
  for (const names of runs.values())
    for (const name of names)
      for (const lead of name.split(' ')[2]?.split(',') ?? []) found.set(lead, [...(found.get(lead) ?? []), name])
  return found
})

function runsAgain(
  known: Learned['runs'],
  names: Iterable<SubjectName>,
  isThere: (name: SubjectName) => boolean,
): Learned['runs'] {
  const observed = [...names].filter((name) => name.startsWith('run '))
  if (observed.length === 0) return known
  const runs = new Map(known)
  for (const name of observed) {
    const id = name.split(' ')[1] as string
    const others = (runs.get(id) ?? []).filter((each) => each !== name)
    const now = isThere(name) ? [...others, name].sort() : others
    if (now.length > 0) runs.set(id, now)
    else runs.delete(id)
  }
  return runs
}

/**
 * What was seen of runs with a cable in them, as far as it speaks of that cable. What was seen with one lead was seen of that lead. Several in a row held
 * together what each of them held; which of them failed, nobody can tell.
 */
function* seenInRuns(
  names: readonly SubjectName[],
  groups: ReadonlyMap<SubjectName, readonly Observation[]>,
): Iterable<Observation> {
  for (const name of names) {
    for (const observation of groups.get(name) ?? []) {
      const { subject, where } = observation
      if (!('run' in subject)) continue
      // where nobody noted the socket it is that of the run, and no other
      const there = { ...where, port: where?.port ?? { device: 'run ', port: subject.run } }
      if (subject.leads.length === 1 || observation.kind === 'retraction') yield { ...observation, where: there }
      else if (observation.kind === 'trial' && observation.cameUp !== null)
        yield { ...observation, tried: observation.cameUp, where: there }
    }
  }
}

const copyKeys = (learnt: Learnt | undefined): Map<string, number> => {
  const best = new Map<string, number>()
  for (const { way, rate, spot } of learnt?.copies ?? []) {
    const pair = pairOf(spot)
    if (pair !== null) best.set(`${way} ${pair}`, Math.max(rate, best.get(`${way} ${pair}`) ?? 0))
  }
  return best
}

function copiedAgain(
  known: Learned['copied'],
  before: ReadonlyMap<SubjectName, Learnt>,
  after: ReadonlyMap<SubjectName, Learnt>,
  touched: ReadonlySet<SubjectName>,
): Learned['copied'] {
  const copied = new Map<string, Map<string, number>>(known as Map<string, Map<string, number>>)
  const own = new Set<string>()
  const listOf = (key: string): Map<string, number> => {
    const list = own.has(key) ? (copied.get(key) as Map<string, number>) : new Map(copied.get(key))
    own.add(key)
    copied.set(key, list)
    return list
  }
  for (const name of touched) {
    if (!name.startsWith('cable ')) continue
    const cable = name.slice('cable '.length)
    for (const key of copyKeys(before.get(name)).keys()) listOf(key).delete(cable)
    for (const [key, rate] of copyKeys(after.get(name))) listOf(key).set(cable, rate)
  }
  for (const key of own) if (copied.get(key)?.size === 0) copied.delete(key)
  return copied
}

/** Tells what a list of observations comes to that was made from another by adding and taking away: only the subjects of these are folded again. */
export function learnedAgain(
  before: Observed,
  after: Observed,
  { added, removed }: { added: readonly Observation[]; removed: readonly Observation[] },
): void {
  const known = folded.get(before.observations)
  if (!known || known.practice !== after.site.practice) return
  const gone = new Set(removed.map(({ id }) => id))
  const fresh = grouped(added)
  const groups = new Map(known.groups)
  const lists = [...added, ...removed].map((observation) => [observation])
  for (const name of new Set([...added, ...removed].map(({ subject }) => subjectName(subject)))) {
    const kept = (groups.get(name) ?? []).filter(({ id }) => !gone.has(id))
    const list = [...kept, ...(fresh.get(name) ?? [])]
    if (list.length > 0) groups.set(name, list)
    else groups.delete(name)
  }
  const learned = finished(
    learnedFrom(groups, known.learned.bySubject, namesTouched(lists), known.practice, known.learned),
  )
  folded.set(after.observations, { groups, practice: known.practice, learned })
}

/** What was learnt of each subject, as it is sent to browsers: they hold what is believed and not what it comes from. */
export type ToldLearnt = readonly (readonly [SubjectName, Learnt])[]

/** Takes what was learnt elsewhere as what a list of observations comes to; `before` is what was known of the subjects that are not told. */
export function adoptLearned({ observations, site }: Observed, told: ToldLearnt, before?: Learned): void {
  const bySubject = new Map(before?.bySubject)
  // of what nothing counts any more nothing is known
  for (const [name, learnt] of told)
    if (isEmpty(learnt)) bySubject.delete(name)
    else bySubject.set(name, learnt)
  const names = told.map(([name]) => name)
  const runs = runsAgain(before?.runs ?? new Map(), names, (name) => bySubject.has(name))
  const copied = copiedAgain(before?.copied ?? new Map(), before?.bySubject ?? new Map(), bySubject, new Set(names))
  folded.set(observations, { groups: new Map(), practice: site.practice, learned: { bySubject, runs, copied } })
}

const isEmpty = (learnt: Learnt): boolean =>
  Object.values(learnt).every((value) =>
    typeof value === 'object' && value !== null ? Object.keys(value).length === 0 : !value,
  )

/** What was learnt of the subjects that some observations bear on, by their names: for a browser that has to catch up. */
export const toldOf = (learned: Learned, subjects: readonly Subject[]): ToldLearnt => {
  const names = new Set<SubjectName>()
  for (const subject of subjects) {
    names.add(subjectName(subject))
    if ('run' in subject) for (const lead of subject.leads) names.add(cableName(lead))
  }
  return [...names].map((name) => [name, learned.bySubject.get(name) ?? NOTHING_LEARNT])
}

/** The entities that what was learnt of some subjects bears on. */
export const touchedByLearning = (names: readonly SubjectName[]): { list: 'cables' | 'runs' | 'kinds'; id: string }[] =>
  names.flatMap((name) => {
    const [what, id = ''] = name.split(' ')
    const list = what === 'cable' ? 'cables' : what === 'run' ? 'runs' : what === 'kind' ? 'kinds' : null
    return list === null ? [] : [{ list, id } as const]
  })
