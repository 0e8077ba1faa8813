import type { PortAddress } from '../vocabulary/run'
import { finished, type InSlices } from '../work/in-slices'
import { keptWith, type ListChange } from '../work/kept'
import { type Patch, patched } from '../work/patched-map'
import { ViewedMap } from '../work/viewed-map'
import { countedOf } from './counted'
import { entityOf, type Subject } from './every'
import { isCopies, mostOf } from './figures'
import { learn, learnMore } from './learn'
import { type Learnt, NOTHING_LEARNT, withSeries } from './learnt'
import { type Observation, setsRight } from './observation'
import { pairOf, type Spot } from './spot'

/** What a thing that can be observed is called among all of them: `cable c-0021`, `run r-09 c-0021,c-0022`, `kind plain-2m`. */
type SubjectName = string

function nameOf(subject: Subject): SubjectName {
  if ('cable' in subject) return `cable ${subject.cable}`
  // with other leads a run is another
  if ('run' in subject) return `run ${subject.run} ${subject.leads.join()}`
  if ('kind' in subject) return `kind ${subject.kind}`
  if ('controller' in subject) return `controller ${subject.device} ${subject.controller}`
  return subject.port === undefined ? `device ${subject.device}` : `port ${subject.device}/${subject.port}`
}

type RunSubject = Extract<Subject, { run: string }>

/** The fastest that each cable copied between two sockets, by its id. */
export type BestCopies = ReadonlyMap<string, number>

/** What all observations of a site come to: what is learnt of each thing that was observed, and how fast cables copied between the same two sockets. */
export type Learned = {
  bySubject: ReadonlyMap<SubjectName, { subject: Subject; learnt: Learnt }>
  /** How each run lay when it was observed. */
  runs: ReadonlyMap<string, readonly RunSubject[]>
  /** By the pair of sockets and the way. */
  copied: ReadonlyMap<string, BestCopies>
}

/** What was learnt of a thing; undefined where nothing was. */
export const learntOf = ({ bySubject }: Pick<Learned, 'bySubject'>, subject: Subject): Learnt | undefined =>
  bySubject.get(nameOf(subject))?.learnt

export const learntOfCable = (learned: Pick<Learned, 'bySubject'>, cable: string): Learnt | undefined =>
  learntOf(learned, { cable })

/** What was learnt of one cable and of nothing else. */
export const learnedOfOne = (cable: string, learnt: Learnt | undefined): Learned => ({
  bySubject: new Map(learnt ? [[nameOf({ cable }), { subject: { cable }, learnt }]] : []),
  runs: new Map(),
  copied: new Map(),
})

/** What was learnt of a run, by the leads that lay in it. */
export const runRecords = (learned: Learned, run: string): { leads: readonly string[]; learnt: Learnt }[] =>
  (learned.runs.get(run) ?? []).map((subject) => ({
    leads: subject.leads,
    learnt: learntOf(learned, subject) ?? NOTHING_LEARNT,
  }))

/** The observations of a site, and whether simulated ones count on it. */
type Observed = { observations: readonly Observation[]; site: { practice: boolean } }

type Folded = { groups: ReadonlyMap<SubjectName, readonly Observation[]>; practice: boolean; learned: Learned }

/** What was folded is kept with the very list of observations it was folded from, for a site of either sort: to practise on, or not. */
const folded = keptWith<readonly Observation[], { latest: Folded | null }>(
  () => ({ latest: null }),
  ({ latest }, _, change) => (latest ? { latest: refolded(latest, change) } : undefined),
)

/** What is believed comes from here: the observations of a site, folded. */
export const learnedOf = (plan: Observed): Learned => foldedOf(plan).learned

/** Every observation of one cable, run, device, port, controller or kind, in the order they were written down. */
export function observationsOf(plan: Observed, subject: Subject | { run: string }): readonly Observation[] {
  const { groups } = foldedOf(plan)
  if ('run' in subject && !('leads' in subject))
    return [...groups.values()].flatMap((list) => (isOfRun(list, subject.run) ? list : []))
  return groups.get(nameOf(subject)) ?? []
}

const isOfRun = ([observation]: readonly Observation[], run: string): boolean =>
  observation !== undefined && 'run' in observation.subject && observation.subject.run === run

const foldedOf = (plan: Observed): Folded => finished(foldInSlices(plan))

/** What is believed of a site that has seen much, worked out a little at a time; after that `learnedOf` has it at hand. */
export function* learnInSlices(plan: Observed): InSlices<void> {
  yield* foldInSlices(plan)
}

function* foldInSlices({ observations, site }: Observed): InSlices<Folded> {
  const kept = folded(observations)
  const found = kept.latest
  if (found?.practice === site.practice) return found
  const groups = found?.groups ?? grouped(observations)
  yield
  const touched = bornOn(
    [...groups.values()].flatMap(([first]) => (first ? [first.subject] : [])),
    NOTHING_LEARNED.runs,
  )
  yield
  const learned = yield* learnedFrom(groups, NOTHING_LEARNED, touched, site.practice)
  const made: Folded = { groups, practice: site.practice, learned }
  kept.latest = made
  return made
}

function grouped(observations: readonly Observation[]): Map<SubjectName, Observation[]> {
  const groups = new Map<SubjectName, Observation[]>()
  for (const observation of observations) {
    const key = nameOf(observation.subject)
    const list = groups.get(key)
    if (list) list.push(observation)
    else groups.set(key, [observation])
  }
  return groups
}

/** The subjects of which something else is learnt when these were observed: themselves, the cables that lay in the runs among them, and runs that a cable lay in. */
function bornOn(subjects: Iterable<Subject>, runs: Learned['runs']): Map<SubjectName, Subject> {
  const found = new Map<SubjectName, Subject>()
  for (const subject of subjects) {
    found.set(nameOf(subject), subject)
    if ('run' in subject) for (const cable of subject.leads) found.set(nameOf({ cable }), { cable })
    if ('cable' in subject) for (const run of byLead(runs).get(subject.cable) ?? []) found.set(nameOf(run), run)
  }
  return found
}

/** Observations by what they are of. */
type Groups = ReadonlyMap<SubjectName, readonly Observation[]>

/**
 * What is learnt once some subjects are folded again; `before` is what was known of all others. Where all that changed is that some were added, what was
 * learnt goes on from there, at the cost of these.
 */
function* learnedFrom(
  groups: Groups,
  before: Learned,
  touched: ReadonlyMap<SubjectName, Subject>,
  practice: boolean,
  added: Groups | null = null,
): InSlices<Learned> {
  const changes = new Map<SubjectName, { subject: Subject; learnt: Learnt } | undefined>()
  const fold = (
    name: SubjectName,
    subject: Subject,
    listIn: (within: Groups) => readonly Observation[],
    more: Groups | null = added,
  ): void => {
    const known = before.bySubject.get(name)?.learnt
    const learnt =
      (more && known && learnMore(known, listIn(more), practice)) ?? learn(countedOf(listIn(groups), practice))
    changes.set(name, isEmpty(learnt) ? undefined : { subject, learnt })
  }
  let folded = 0
  for (const [name, subject] of touched) {
    if ('cable' in subject) continue
    fold(name, subject, (within) => [...(within.get(name) ?? []), ...setRightOn(subject, within)])
    folded += 1
    if (folded % AT_A_STEP === 0) yield
  }
  const runs = runsAfter(before.runs, touched, changes)
  // what was seen of runs speaks of the cables in them as well
  for (const [name, subject] of touched) {
    if (!('cable' in subject)) continue
    const [was, is] = [before.runs, runs].map((each) => byLead(each).get(subject.cable) ?? []) as [
      RunSubject[],
      RunSubject[],
    ]
    // a run of which nothing counts any more has still to be heard: it takes something back; of one that is new all has
    const lay = [...new Map([...was, ...is].map((run) => [nameOf(run), run])).values()]
    const isNew = lay.length > was.length
    fold(name, subject, (within) => [...(within.get(name) ?? []), ...seenInRuns(lay, within)], isNew ? null : added)
    folded += 1
    if (folded % AT_A_STEP === 0) yield
  }
  return { bySubject: patched(before.bySubject, changes), runs, copied: copiedAfter(before, changes) }
}

/** What is learnt now of some subjects; undefined of those of which nothing is any more. */
type Changes = Patch<SubjectName, { subject: Subject; learnt: Learnt }>

const NOTHING_LEARNED: Learned = { bySubject: new Map(), runs: new Map(), copied: new Map() }

/** Subjects folded in one step. */
const AT_A_STEP = 40

/** How the observed runs lay that a cable lay in, by its id. */
const byLead = keptWith((runs: Learned['runs']): ReadonlyMap<string, RunSubject[]> => {
  const found = new Map<string, RunSubject[]>()
  for (const subjects of runs.values())
    for (const subject of subjects)
      for (const lead of subject.leads) {
        const list = found.get(lead)
        if (list) list.push(subject)
        else found.set(lead, [subject])
      }
  return found
})

/** How each run lay when it was observed, once something else is learnt of some subjects. */
function runsAfter(
  known: Learned['runs'],
  touched: ReadonlyMap<SubjectName, Subject>,
  learnt: Changes,
): Learned['runs'] {
  const changes = new Map<string, readonly RunSubject[] | undefined>()
  for (const [name, subject] of touched) {
    if (!('run' in subject)) continue
    const lay = (changes.has(subject.run) ? changes.get(subject.run) : known.get(subject.run)) ?? []
    const others = lay.filter((each) => nameOf(each) !== name)
    const now = learnt.get(name)
      ? [...others, subject].sort((one, other) => (nameOf(one) < nameOf(other) ? -1 : 1))
      : others
    changes.set(subject.run, now.length > 0 ? now : undefined)
  }
  return patched(known, changes)
}

/**
 * What was seen of runs with a cable in them, as far as it speaks of that cable. What was seen with one lead was seen of that lead. Several in a row held
 * together what each of them held; which of them failed, nobody can tell.
 */
function* seenInRuns(
  runs: readonly RunSubject[],
  groups: ReadonlyMap<SubjectName, readonly Observation[]>,
): Iterable<Observation> {
  for (const run of runs) {
    for (const observation of groups.get(nameOf(run)) ?? []) {
      const { subject, where } = observation
      if (!('run' in subject)) continue
      // where nobody noted the socket it is that of the run, and no other; what it rests on is told of the run
      const there = { where: { ...where, port: where?.port ?? noSocketOf(subject) }, rests: undefined }
      if (setsRight(observation) && !where?.port) {
        // what was done about a run was done about all that was seen of it, in whichever socket
        for (const port of socketsSeen(groups.get(nameOf(run)) ?? [], subject))
          yield { ...observation, where: { ...where, port } }
      } else if (subject.leads.length === 1 || observation.kind === 'retraction') yield { ...observation, ...there }
      else if (observation.kind === 'trial' && observation.cameUp !== null)
        yield { ...observation, tried: observation.cameUp, ...there }
    }
  }
}

/** Stands for the socket of a run where nobody noted one. */
const noSocketOf = ({ run }: RunSubject): PortAddress => ({ device: 'run ', port: run })

function socketsSeen(observations: readonly Observation[], subject: RunSubject): PortAddress[] {
  const ports = [noSocketOf(subject), ...observations.flatMap(({ where }) => where?.port ?? [])]
  return [...new Map(ports.map((port) => [JSON.stringify(port), port])).values()]
}

/** What was done about the leads of a run, which was done about the run as well; and what takes something back, which may be that. */
function* setRightOn(subject: Subject, groups: Groups): Iterable<Observation> {
  if (!('run' in subject)) return
  for (const cable of subject.leads)
    for (const observation of groups.get(nameOf({ cable })) ?? [])
      if (observation.kind === 'set right' || observation.kind === 'retraction') yield observation
}

const copyKeys = (learnt: Learnt | undefined): Map<string, number> => {
  const best = new Map<string, number>()
  for (const series of learnt?.figures ?? []) {
    const pair = pairOf(series.spot)
    if (pair === null || !isCopies(series)) continue
    const key = `${series.measure} ${pair}`
    best.set(key, Math.max(mostOf(series).rate, best.get(key) ?? 0))
  }
  return best
}

/** How fast cables copied between two sockets, once something else is learnt of some of them. */
function copiedAfter({ bySubject, copied }: Learned, changes: Changes): Learned['copied'] {
  const own = new Map<string, Map<string, number>>()
  const listOf = (key: string): Map<string, number> => {
    const list = own.get(key) ?? new Map(copied.get(key))
    own.set(key, list)
    return list
  }
  for (const [name, now] of changes) {
    const was = bySubject.get(name)
    const subject = (now ?? was)?.subject
    if (!subject || !('cable' in subject)) continue
    for (const key of copyKeys(was?.learnt).keys()) listOf(key).delete(subject.cable)
    for (const [key, rate] of copyKeys(now?.learnt)) listOf(key).set(subject.cable, rate)
  }
  return patched(copied, new Map(Array.from(own, ([key, list]) => [key, list.size > 0 ? list : undefined])))
}

/** What a list of observations comes to that was made from another: only the subjects of what came and went are folded again. */
function refolded(known: Folded, { added, removed, replaced }: ListChange<Observation>): Folded {
  const [came, went] = [
    [...added, ...replaced.map(([, is]) => is)],
    [...removed, ...replaced.map(([was]) => was)],
  ]
  const gone = new Set(went.map(({ id }) => id))
  const fresh = grouped(came)
  const onlyAdded = went.length === 0
  const subjects = [...came, ...went].map(({ subject }) => subject)
  const changes = new Map<SubjectName, readonly Observation[] | undefined>()
  for (const name of new Set(subjects.map(nameOf))) {
    const were = known.groups.get(name) ?? []
    const list = [...(onlyAdded ? were : were.filter(({ id }) => !gone.has(id))), ...(fresh.get(name) ?? [])]
    changes.set(name, list.length > 0 ? list : undefined)
  }
  const groups = patched(known.groups, changes)
  const learned = finished(
    learnedFrom(groups, known.learned, bornOn(subjects, known.learned.runs), known.practice, onlyAdded ? fresh : null),
  )
  return { groups, practice: known.practice, learned }
}

/** What was learnt of each subject, as it is sent to browsers: they hold what is believed and not what it comes from. */
export type ToldLearnt = readonly (readonly [Subject, Learnt])[]

export const everythingLearnt = ({ bySubject }: Learned): ToldLearnt =>
  [...bySubject.values()].map(({ subject, learnt }) => [subject, learnt])

/** Takes what was learnt elsewhere as what a list of observations comes to; `before` is what was known of the subjects that are not told. */
export function adoptLearned(
  { observations, site }: Observed,
  told: ToldLearnt,
  before: Learned = NOTHING_LEARNED,
): void {
  const changes = new Map<SubjectName, { subject: Subject; learnt: Learnt } | undefined>()
  const touched = new Map<SubjectName, Subject>()
  for (const [subject, learnt] of told) {
    const name = nameOf(subject)
    touched.set(name, subject)
    // of what nothing counts any more nothing is known
    changes.set(name, isEmpty(learnt) ? undefined : { subject, learnt })
  }
  const learned: Learned = {
    bySubject: patched(before.bySubject, changes),
    runs: runsAfter(before.runs, touched, changes),
    copied: copiedAfter(before, changes),
  }
  folded.keep(observations, { latest: { groups: new Map(), practice: site.practice, learned } })
}

/** Nothing counts of it. */
const isEmpty = ({ latest }: Learnt): boolean => latest === NOTHING_LEARNT.latest

/** What is learnt now of the subjects that some observations bear on: for a browser that has to catch up. */
export const toldOf = (learned: Learned, subjects: readonly Subject[]): ToldLearnt =>
  [...bornOn(subjects, learned.runs).values()].map((subject) => [subject, learntOf(learned, subject) ?? NOTHING_LEARNT])

/** The entities that what was learnt of some subjects bears on. */
export const touchedByLearning = (subjects: readonly Subject[]): ReturnType<typeof entityOf>[] => subjects.map(entityOf)

/**
 * What is learnt of a site without what was tried of its runs as they lie. `there` tells for a cable which spots are those of its run; null: it lies in none.
 * What was said of leads stays, and what they did in other places.
 */
export function learnedElsewhere(
  learned: Learned,
  there: (cable: string) => ((spot: Spot) => boolean) | null,
): Learned {
  if (learned.runs.size === 0) return learned
  const bySubject = new ViewedMap(learned.bySubject, (known) => {
    const { subject, learnt } = known
    if ('run' in subject) return undefined
    const isThere = 'cable' in subject ? there(subject.cable) : null
    if (!isThere) return known
    return { subject, learnt: withSeries(learnt, (series) => (isThere(series.spot) ? null : series)) }
  })
  return { ...learned, bySubject, runs: new Map() }
}
