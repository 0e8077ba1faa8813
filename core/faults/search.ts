import type { AttemptObservation, SymptomObservation } from '../observe/observation'
import { citeSource } from '../standards/source'
import type { Instant } from '../vocabulary/fields'
import type { Search, Symptom, TryName } from '../vocabulary/search'
import type { FollowUp } from './cause'
import { type Cause, causesOf, causeWords, followUpOf } from './causes'
import { symptomEvidence } from './evidence'
import { type Answer, misfitOf } from './misfit'
import { type Conclusion, conclude, nextTries, type Problem, problemOf, type Ranked, somethingElse } from './next-try'
import { byGroup, information, outcomeLikelihood, posterior } from './odds'
import { looseLeads, type Scene } from './scene'
import { forbids, type Raised, type Stop, stopsOf } from './stops'
import { looksOf, symptomFacts } from './symptoms'
import { triesOf, tryKey } from './tries'
import { goesWith } from './try'

/** What was seen and tried in a search, oldest first, without what was taken back. */
export type Seen = { symptoms: readonly SymptomObservation[]; tries: readonly AttemptObservation[] }

export type CauseView = {
  key: string
  words: string
  odds: number
  source: string
  followUp: FollowUp
  part: Cause['part']
  /** What speaks for it and against it, in words. */
  pro: readonly string[]
  contra: readonly string[]
}

/** Causes that are settled together, the likeliest first. */
export type GroupView = { odds: number; causes: readonly CauseView[] }

/** What may come of a try, and which cause is the likeliest then. */
export type OutcomeView = { name: string; says: string; means: string; meansOdds: number }

export type TryView = {
  key: string
  name: TryName
  how: string
  with: string | null
  minutes: number
  bits: number
  outcomes: readonly OutcomeView[]
}

/** A symptom that may be looked for, with what it would tell. */
export type LookView = { symptom: Symptom; saw: string; look: string; bits: number }

/** A stretch of the run with how likely the fault sits there. */
export type StretchView = { label: string; odds: number }

export type SearchStanding = {
  stops: readonly Stop[]
  /** Where it may sit, from the host on; what belongs to the run as a whole comes last. */
  stretches: readonly StretchView[]
  groups: readonly GroupView[]
  conclusion: Conclusion
  next: readonly TryView[]
  /** What would tell something if there were what it takes. */
  lacking: readonly { how: string; lacks: string }[]
  /** What a stop forbids that would tell something. */
  forbidden: readonly string[]
  looks: readonly LookView[]
  /** Tries of the run as it was before it was changed: they no longer count. */
  outdated: readonly string[]
  /** An answer that does not fit the others. */
  misfit: { words: string; id: string } | null
}

type Piece = Answer & { at: Instant }

/** Tries that are shown beside the next one, and looks. */
const SHOWN_TRIES = 8
const SHOWN_LOOKS = 4
const SHOWN_GROUPS = 12

/** The problem of a scene; worked out once where many searches of it are asked. */
export const problemAt = (scene: Scene): Problem => problemOf(causesOf(scene), triesOf(scene))

/** What was seen and tried, as evidence: of a symptom and of a try the later word counts. */
export function evidenceOf({ causes, attempts }: Problem, { symptoms, tries }: Seen): Piece[] {
  const pieces = new Map<string, Piece>()
  for (const { id, at, what, not } of symptoms) {
    if (what === undefined) continue
    const evidence = symptomEvidence(causes, what, not ? 'absent' : 'seen')
    const { saw } = symptomFacts[what]
    pieces.set(evidence.key, { ...evidence, words: not ? `Not so: ${saw}` : saw, id, at })
  }
  for (const { id, at, what, part, outcome, says, also = [] } of tries) {
    const key = tryKey(what, part)
    const attempt = attempts.find((each) => each.key === key)
    if (!attempt) continue
    const outcomes = also.reduce((made, name) => {
      const other = attempts.find((each) => each.name === name)
      return other ? goesWith(made, other.outcomes) : made
    }, attempt.outcomes)
    pieces.delete(key)
    pieces.set(key, { key, words: says, id, at, likelihood: outcomeLikelihood(causes, outcomes, outcome) })
  }
  return [...pieces.values()]
}

/** What in a search raised a stop: a symptom, a plug that was felt hot, a lead of the run that ran hot. */
export function raisedBy(scene: Scene, search: Search, { symptoms, tries }: Seen): Raised[] {
  const raised: Raised[] = []
  for (const { what, not, at } of symptoms) {
    const stop = what && !not ? symptomFacts[what].stops : undefined
    if (what && stop) raised.push({ stop, at, why: symptomFacts[what].saw })
  }
  for (const { what, outcome, at, says } of tries)
    if (what === 'feel the plugs' && outcome === 'hot') raised.push({ stop: 'hot', at, why: says })
  for (const { cable, known } of looseLeads(scene))
    if (known.hot) raised.push({ stop: 'hot', at: later(known.hot.at, search.since), why: `${cable.tag} ran hot` })
  return raised
}
/** A lead that ran hot before the search is a stop from its beginning. */
const later = (one: Instant, other: Instant): Instant => (one > other ? one : other)

/**
 * How a search stands: what must be dealt with first, which causes are how likely and what speaks for and against each, what to try next and what each outcome
 * would mean, and whether that is an answer.
 */
export function standingOfSearch(scene: Scene, search: Search, seen: Seen): SearchStanding {
  const problem = problemAt(scene)
  const { causes, priors, groups, attempts } = problem
  const { searching } = scene.index.plan.policy
  const evidence = evidenceOf(problem, seen)
  const shares = posterior(priors, evidence)
  const stops = stopsOf(search, raisedBy(scene, search, seen))
  const tried = new Set(evidence.map(({ key }) => key))
  const done = new Set(attempts.flatMap(({ key }, at) => (tried.has(key) ? [at] : [])))
  const telling = nextTries(problem, shares, done, searching)
  const allowed = telling.filter(({ attempt }) => !stops.some((stop) => forbids(stop, attempt.name)))
  const sums = byGroup(shares, groups)
  const views = causes.map((cause, at) => viewOf(cause, shares[at] ?? 0, at, evidence))
  return {
    stops,
    stretches: stretchesOf(scene, causes, shares),
    groups: sums
      .map((odds, group) => ({
        odds,
        causes: views
          .filter((_, at) => groups.of[at] === group)
          .sort((one, other) => other.odds - one.odds || (one.key < other.key ? -1 : 1)),
      }))
      .sort((one, other) => other.odds - one.odds)
      .slice(0, SHOWN_GROUPS),
    conclusion: conclude(problem, shares, telling, somethingElse(problem)),
    next: allowed.slice(0, SHOWN_TRIES).map((ranked) => tryViewOf(problem, shares, ranked)),
    lacking: lackingOf(problem, shares, done),
    forbidden: telling.filter((each) => !allowed.includes(each)).map(({ attempt }) => attempt.how),
    looks: looksOf(scene)
      .filter((symptom) => !tried.has(`look: ${symptom}`))
      .map((symptom): LookView => {
        const table = (['seen', 'absent'] as const).map((told) => symptomEvidence(causes, symptom, told).likelihood)
        const { saw, look } = symptomFacts[symptom]
        return { symptom, saw, look, bits: information(shares, table, groups) }
      })
      .sort((one, other) => other.bits - one.bits)
      .slice(0, SHOWN_LOOKS),
    outdated: seen.tries
      .filter(({ what, part }) => !attempts.some(({ key }) => key === tryKey(what, part)))
      .map(({ id }) => id),
    misfit: misfitOf(problem, evidence),
  }
}

/** How likely the fault sits at the host, in each lead, at the far end, or in the run as a whole. */
function stretchesOf(scene: Scene, causes: Problem['causes'], shares: readonly number[]): StretchView[] {
  const { from, to } = scene.laid
  const leads = looseLeads(scene).map(({ cable }) => ({ label: cable.tag, has: (id: string) => id === cable.id }))
  const at = (device: string) => (id: string) => id === device || id.startsWith(`${device}/`)
  const stretches = [
    { label: from.device.name, has: at(from.device.id) },
    ...leads,
    { label: to.device.name, has: at(to.device.id) },
  ]
  const odds = new Array<number>(stretches.length + 1).fill(0)
  for (const [cause, { part }] of causes.entries()) {
    const found = stretches.findIndex(({ has }) => has(part.id))
    const where = found < 0 ? stretches.length : found
    odds[where] = (odds[where] ?? 0) + (shares[cause] ?? 0)
  }
  return [...stretches.map(({ label }) => label), 'the run as a whole'].map((label, where) => ({
    label,
    odds: odds[where] ?? 0,
  }))
}

/** A likelihood that lies so far from the usual one speaks for a cause, or against it. */
const SPEAKS = 1.6

function viewOf(cause: Cause, odds: number, at: number, evidence: readonly Piece[]): CauseView {
  const pro: string[] = []
  const contra: string[] = []
  for (const { likelihood, words } of evidence) {
    const usual = likelihood.reduce((sum, each) => sum + each, 0) / likelihood.length
    const ratio = (likelihood[at] ?? usual) / usual
    if (ratio > SPEAKS) pro.push(words)
    if (ratio < 1 / SPEAKS) contra.push(words)
  }
  const { key, part, source } = cause
  return {
    key,
    words: causeWords(cause),
    odds,
    source: citeSource(source),
    followUp: followUpOf(cause),
    part,
    pro,
    contra,
  }
}

function tryViewOf(problem: Problem, shares: readonly number[], { attempt, at, bits }: Ranked): TryView {
  const { key, name, how, minutes } = attempt
  const table = problem.tables[at] ?? []
  return {
    key,
    name,
    how,
    with: attempt.with ?? null,
    minutes: Math.round(minutes),
    bits,
    outcomes: attempt.outcomes.map(({ name: outcome, says }, row): OutcomeView => {
      const likelihood = table[row] ?? []
      const after = posterior(shares, [{ likelihood }])
      const sums = byGroup(after, problem.groups)
      const most = sums.indexOf(Math.max(...sums))
      const best = problem.causes
        .map((cause, number) => ({ cause, share: problem.groups.of[number] === most ? (after[number] ?? 0) : -1 }))
        .reduce((top, each) => (each.share > top.share ? each : top))
      return { name: outcome, says, means: causeWords(best.cause), meansOdds: sums[most] ?? 0 }
    }),
  }
}

/** What would tell something if it were at hand, the most telling first. */
function lackingOf(problem: Problem, shares: readonly number[], done: ReadonlySet<number>) {
  const { attempts } = problem
  const lacking = attempts.flatMap((attempt, at) =>
    attempt.lacks === undefined || done.has(at) ? [] : [{ attempt, at }],
  )
  return lacking
    .map(({ attempt, at }) => ({
      how: attempt.how,
      lacks: attempt.lacks ?? '',
      bits: information(shares, problem.tables[at] ?? [], problem.groups),
    }))
    .filter(({ bits }) => bits >= WORTH_GETTING)
    .sort((one, other) => other.bits - one.bits)
    .map(({ how, lacks }) => ({ how, lacks }))
}
const WORTH_GETTING = 0.15
