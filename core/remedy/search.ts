import type { Edit, LogPosition } from '../change/change'
import { editsBetween } from '../change/edits-between'
import { type Assessed, assessAnew, leadingFinding, type RunVerdict } from '../checks/assess'
import type { Finding } from '../checks/checks'
import { severity, type Verdict } from '../checks/finding'
import { judged } from '../checks/look-ahead'
import { isWorse, type Turned, turnedBetween } from '../checks/turned'
import { bestLaidElsewhere } from '../match/rank-all'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import type { SiteIndex } from '../plan/site-index'
import type { Run } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import { EFFORTS, type Effort, type Move, type MoveWords, type Scene } from './move'
import { proposers } from './moves'
import { roomOf } from './room'

/** One or two small changes that together open what is too narrow, judged on the whole site. */
export type WayOut = {
  moves: readonly MoveWords[]
  effort: Effort
  /** What has to be bought for it, in the site's currency; null where somebody has to ask. */
  price: number | null
  after: Verdict
  worse: readonly Turned[]
  edits: readonly Edit[]
}

export type WaysOut = {
  /** What helps, the least disruptive first and of those the cheapest. */
  ways: readonly WayOut[]
  /** How many changes were tried, alone or two together. */
  tried: number
  /** Leads of which evidence is all that is missing, by their tags: proved on the bench, they do. */
  prove: readonly string[]
  /** Where nothing helps: a lead that would do, and the run that it lies in. */
  elsewhere: { cable: string; run: string } | null
  /** Where nothing helps: what still stands in the way after what came nearest, which may be nothing at all. */
  closest: { moves: readonly MoveWords[]; leading: Finding } | null
}

/** How much is looked for: all that helps, or one way only. */
export type Wanted = 'all' | 'one'

const MOST_WAYS = 10
const MOST_PAIRED = 14
const MOST_LEADS = 3
const UNKNOWN_PRICE = Number.MAX_VALUE

/**
 * What would make a run clear: a search over small changes of the plan, singly, and two together where no single one does. Each is judged on the part of the
 * site the run can bear on. What is offered is judged once more on all of it, so that whatever gets worse elsewhere is told. Cables in `given` go to other
 * runs. Pure and a step at a time.
 */
export function* findWaysOut(
  site: Assessed,
  runId: string,
  base: LogPosition,
  wanted: Wanted = 'all',
  given: ReadonlyMap<string, Run> = new Map(),
): InSlices<WaysOut> {
  const room = roomOf(site.index, runId)
  const before = assessAnew(room)
  const scene = sceneOf(before, withGiven(site.index, given), runId)
  if (!scene || scene.verdict.grade === 'clear')
    return { ways: [], tried: 0, prove: [], elsewhere: null, closest: null }
  const attempts: Attempt[] = []
  for (const propose of proposers) {
    yield
    for (const move of propose(scene)) {
      const attempt = tried(before, room, runId, [move])
      if (!attempt) continue
      attempts.push(attempt)
      if (wanted === 'one' && isDone(attempt)) return answer([asMoved(site, base, attempt)], attempts, scene)
      yield
    }
  }
  if (!attempts.some((attempt) => attempt.after === 'clear')) {
    for (const [one, other] of [...pairsOf(attempts, scene.run)]) {
      const attempt = tried(before, room, runId, [one, other])
      if (attempt) attempts.push(attempt)
      if (attempt && wanted === 'one' && isDone(attempt)) return answer([asMoved(site, base, attempt)], attempts, scene)
      yield
    }
  }
  const helping = attempts.filter((attempt) => helps(attempt, attempts, scene.verdict.grade)).sort(leastFirst)
  if (wanted === 'one')
    return answer(
      helping.slice(0, 1).map((attempt) => asMoved(site, base, attempt)),
      attempts,
      scene,
    )
  const ways: WayOut[] = []
  for (const attempt of bestOfEach(helping)) {
    yield
    const way = onSite(site, runId, base, attempt)
    // what follows from it on the whole site may take back what it bettered
    if (severity[way.after] < severity[scene.verdict.grade]) ways.push(way)
  }
  return answer(ways, attempts, scene)
}

/** The site as it is when some of its free cables are given to other runs. */
function withGiven(index: SiteIndex, given: ReadonlyMap<string, Run>): SiteIndex {
  return given.size === 0 ? index : { ...index, runOf: new Map([...index.runOf, ...given]) }
}

/** It betters the run; of two changes together both do, as neither comes as far alone. */
function helps({ moves, after }: Attempt, attempts: readonly Attempt[], now: Verdict): boolean {
  if (severity[after] >= severity[now]) return false
  return (
    moves.length < 2 ||
    !attempts.some(
      (alone) =>
        alone.moves.length === 1 && moves.includes(alone.moves[0] as Move) && severity[alone.after] <= severity[after],
    )
  )
}

function sceneOf({ index, walks, assessment }: Assessed, site: SiteIndex, runId: string): Scene | null {
  const run = index.runs.get(runId)
  const verdict = assessment.runs.find(({ id }) => id === runId)
  return run && verdict ? { index, site, run, verdict, crossings: walks.crossings.get(runId) ?? [] } : null
}

type Attempt = {
  moves: readonly Move[]
  after: Verdict
  worse: readonly Turned[]
  /** What still blocks the run: how near it came. */
  blocks: number
  leading: Finding | null
}

/** Which two changes are worth trying together: those that come nearest alone; of a run without a lead each that lays one, with anything beside it. */
function* pairsOf(attempts: readonly Attempt[], { leads }: Run): Iterable<[Move, Move]> {
  const near = [...attempts].sort((one, other) => one.blocks - other.blocks).flatMap(({ moves }) => moves)
  if (leads.length === 0) {
    for (const lead of near.filter(laysLead).slice(0, MOST_LEADS))
      for (const other of near) if (!laysLead(other)) yield [lead, other]
    return
  }
  const hopeful = near.slice(0, MOST_PAIRED)
  for (const [at, one] of hopeful.entries())
    for (const other of hopeful.slice(at + 1)) if (one.family !== other.family) yield [one, other]
}
const laysLead = ({ words: { code } }: Move): boolean => code === 'drawer lead' || code === 'bought lead'

const isDone = ({ after, worse }: Attempt): boolean => after === 'clear' && worse.length === 0

function tried(before: Assessed, room: Plan, runId: string, moves: readonly Move[]): Attempt | null {
  const plan = applied(room, moves)
  if (!plan) return null
  const { index, assessment } = assessAnew(plan)
  const verdict = assessment.runs.find(({ id }) => id === runId)
  if (!verdict) return null
  const blocks = verdict.findings.filter(({ grade }) => grade === 'blocked').length
  const worse = turnedBetween(before.assessment, assessment, index).filter(isWorse)
  return { moves, after: verdict.grade, worse, blocks, leading: leadingFinding(verdict.findings) }
}

function applied(plan: Plan, moves: readonly Move[]): Plan | null {
  let now: Plan | null = plan
  for (const move of moves) now = now && move.apply(now)
  return now
}

const effortOf = (moves: readonly { effort: Effort }[]): Effort =>
  EFFORTS[Math.max(...moves.map(({ effort }) => EFFORTS.indexOf(effort)))] ?? 'building'

const priceOf = (moves: readonly { price: number | null }[]): number | null =>
  moves.reduce<number | null>((sum, { price }) => (sum === null || price === null ? null : sum + price), 0)

/** Harmless before harmful, clear before tight, one before two, then by what it disturbs and what it costs. */
const leastFirst = (one: Attempt, other: Attempt): number =>
  one.worse.length - other.worse.length ||
  severity[one.after] - severity[other.after] ||
  one.moves.length - other.moves.length ||
  EFFORTS.indexOf(effortOf(one.moves)) - EFFORTS.indexOf(effortOf(other.moves)) ||
  (priceOf(one.moves) ?? UNKNOWN_PRICE) - (priceOf(other.moves) ?? UNKNOWN_PRICE)

/** Leads that do are told apart by price. */
const FEW = 2

/** The best of each family: whoever is shown three leads that all do has read two too many; leads are told apart by price. */
function bestOfEach(attempts: readonly Attempt[]): Attempt[] {
  const seen = new Map<string, number>()
  const kept: Attempt[] = []
  for (const attempt of attempts) {
    const family = attempt.moves.map((move) => move.family).join(' + ')
    const count = seen.get(family) ?? 0
    if (count >= (attempt.moves.at(-1)?.few ? FEW : 1)) continue
    seen.set(family, count + 1)
    kept.push(attempt)
  }
  return kept.slice(0, MOST_WAYS)
}

const wordsOf = ({ moves }: Attempt): Pick<WayOut, 'moves' | 'effort' | 'price'> => ({
  moves: moves.map(({ words }) => words),
  effort: effortOf(moves),
  price: priceOf(moves),
})

/** A way out as it was judged, in its room. Many together are judged on the whole site once, by whoever puts them together. */
function asMoved({ index: { plan } }: Assessed, base: LogPosition, attempt: Attempt): WayOut {
  const edits = editsBetween(plan, applied(plan, attempt.moves) ?? plan, base)
  return { ...wordsOf(attempt), after: attempt.after, worse: attempt.worse, edits }
}

/** A way out as the whole site with exactly its edits judges it. */
function onSite(site: Assessed, runId: string, base: LogPosition, attempt: Attempt): WayOut {
  const { plan } = site.index
  const edits = editsBetween(plan, applied(plan, attempt.moves) ?? plan, base)
  const { index, assessment } = judged(site, edits)
  const after = byId(assessment.runs).get(runId)?.grade ?? 'blocked'
  return { ...wordsOf(attempt), after, worse: turnedBetween(site.assessment, assessment, index).filter(isWorse), edits }
}

function answer(ways: readonly WayOut[], attempts: readonly Attempt[], scene: Scene): WaysOut {
  const { verdict } = scene
  const prove = onlyEvidenceMissing(verdict)
  const found = { ways, tried: attempts.length, prove }
  if (ways.length > 0) return { ...found, elsewhere: null, closest: null }
  const laid = bestLaidElsewhere(scene.index, scene.run, scene.crossings)
  const elsewhere = laid && { cable: laid.cable.tag, run: laid.run.tag }
  const [nearest] = [...attempts].sort((one, other) => one.blocks - other.blocks || leastFirst(one, other))
  const leading = nearest?.leading ?? leadingFinding(verdict.findings)
  const moves = (nearest?.moves ?? []).map(({ words }) => words)
  return { ...found, elsewhere, closest: leading && { moves, leading } }
}

/** The leads to prove where that is all that keeps a run from being clear. */
function onlyEvidenceMissing({ findings }: RunVerdict): string[] {
  const against = findings.filter(({ grade }) => grade === 'tight' || grade === 'blocked')
  const testable = against.every(
    ({ part, remedies }) =>
      part.kind === 'lead' && remedies.length > 0 && remedies.every(({ code }) => code === 'test-it'),
  )
  return testable ? [...new Set(against.map(({ part }) => part.label))] : []
}
