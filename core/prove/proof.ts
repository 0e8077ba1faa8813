import { gradeReading, type ReadingGrade } from '../bench/grade-reading'
import type { Prediction } from '../bench/predict'
import type { Assessed, RunVerdict } from '../checks/assess'
import type { Situation } from '../checks/situation'
import { laidAt } from '../install/work-list'
import { hereOf } from '../link/lay'
import { WARMTHS } from '../observe/kinds/warmth'
import { runRecords } from '../observe/learned'
import type { AcceptedAt, Figure, FigureName, LaidAt, Learnt } from '../observe/learnt'
import type { Tried, Unwritten } from '../observe/observation'
import { type Here, isStale, type Spot } from '../observe/spot'
import { formatPictureMode } from '../picture/mode-text'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import type { Device } from '../vocabulary/device'
import type { Instant } from '../vocabulary/fields'
import { laidCables, type PortAddress, type Run } from '../vocabulary/run'
import { hardestOf } from './hardest'
import { isSpotOf, predictedSituation, predictRun } from './predict-run'
import { type RunTest, runTests } from './run-tests'

/** What came of a test last, beside what was predicted. */
export type TestResult = {
  reading: Unwritten<Tried>
  at: Instant
  grade: ReadingGrade | null
  /** What was installed then, or the controller it was taken on. */
  under: string
  /** It was taken before something changed; what is installed now, and what was. */
  stale: { was: string; is: string } | null
  /** It passed while less went on than the plan has. */
  easier: boolean
  /** Watched for less than is asked. */
  short: boolean
}

/** `prediction` is worked out where there is something to hold against it. */
export type TestStanding = {
  test: RunTest
  prediction: Prediction | null
  result: TestResult | null
  passed: boolean
}

/** How far a run has come. */
export const RUN_STATES = ['planned', 'laid', 'stale', 'proved', 'accepted'] as const
export type RunState = (typeof RUN_STATES)[number]

export type RunProof = {
  state: RunState
  tests: readonly TestStanding[]
  passed: number
  /** Tests that failed as it lies. */
  failed: number
  stale: number
  laid: LaidAt | null
  accepted: AcceptedAt | null
  /** What goes on at once in the hardest case; empty where one thing alone crosses it. */
  hardest: readonly string[]
}

type Site = Pick<Assessed, 'index' | 'walks'>

/** What was learnt of a run with the leads that lie in it now. */
const learntNow = (index: SiteIndex, run: Run): Learnt | null => {
  const leads = laidCables(run).join()
  return runRecords(index.learned, run.id).find((record) => record.leads.join() === leads)?.learnt ?? null
}

/** The acceptance of a run with the leads that lie in it now. */
export const acceptedNow = (index: SiteIndex, run: Run): AcceptedAt | null => learntNow(index, run)?.accepted ?? null

/**
 * How far a run has come: planned, laid, proved by every test its needs ask for, stale since something changed, or accepted. With other leads it is another run,
 * and begins anew.
 */
export function proofOf({ index, walks }: Site, run: Run): RunProof {
  const crossings = walks.crossings.get(run.id) ?? []
  const learnt = learntNow(index, run)
  const hardest = hardestOf(index, run, crossings)
  const situations = new Map<string, Situation>()
  const situationIn = (socket: PortAddress): Situation => {
    const key = portKey(socket)
    const situation = situations.get(key) ?? predictedSituation(index, run, crossings, socket)
    situations.set(key, situation)
    return situation
  }
  const tests = runTests(index, run, crossings).map((test) => standingOf(test, run, learnt, hardest, situationIn))
  const passed = tests.filter((test) => test.passed).length
  const failed = tests.filter(({ result }) => result && !result.stale && result.grade?.grade === 'blocked').length
  const stale = tests.filter(({ result }) => result?.stale).length
  const laid = laidAt(index, run)
  const accepted = learnt?.accepted ?? null
  return {
    state: stateOf({ laid: laid !== null || tests.some(({ result }) => result), accepted, tests, passed, stale }),
    tests,
    passed,
    failed,
    stale,
    laid,
    accepted,
    hardest,
  }
}

function stateOf({
  laid,
  accepted,
  tests,
  passed,
  stale,
}: {
  laid: boolean
  accepted: AcceptedAt | null
  tests: readonly TestStanding[]
  passed: number
  stale: number
}): RunState {
  if (stale > 0) return 'stale'
  if (accepted) return 'accepted'
  if (tests.length > 0 && passed === tests.length) return 'proved'
  return laid ? 'laid' : 'planned'
}

const kept = new WeakMap<
  RunVerdict,
  { from: Device | undefined; to: Device | undefined; learnt: Learnt | null; proof: RunProof }
>()

/** The same of a run that was judged, kept until something of it changes. */
export function keptProofOf(site: Assessed, verdict: RunVerdict): RunProof | null {
  const { index } = site
  const run = index.runs.get(verdict.id)
  if (!run) return null
  const ends = { from: index.devices.get(run.from.device), to: index.devices.get(run.to.device) }
  const learnt = learntNow(index, run)
  const known = kept.get(verdict)
  if (known && known.from === ends.from && known.to === ends.to && known.learnt === learnt) return known.proof
  const proof = proofOf(site, run)
  kept.set(verdict, { ...ends, learnt, proof })
  return proof
}

/** The same for every run of a site, in its order. */
export function proofsOf(site: Assessed): ReadonlyMap<string, RunProof> {
  const proofs = new Map<string, RunProof>()
  for (const verdict of site.assessment.runs) {
    const proof = keptProofOf(site, verdict)
    if (proof) proofs.set(verdict.id, proof)
  }
  return proofs
}

/** Runs that lie and wait for somebody: to be tested, to be tested again, or to be accepted. Nothing is predicted for that. */
export function runsToProve({ index, walks }: Site): Run[] {
  return index.plan.runs.filter((run) => {
    const learnt = learntNow(index, run)
    if (!learnt) return false
    if (learnt.laid && !learnt.accepted) return true
    const found = runTests(index, run, walks.crossings.get(run.id) ?? []).flatMap((test) => {
      const last = lastOf(learnt, test, isSpotOf(run, test.socket))
      return last ? [{ test, last }] : []
    })
    const lies = learnt.laid !== null || found.length > 0
    return lies && (!learnt.accepted || found.some(({ test, last }) => staleness(last.spot, hereIn(index, run, test))))
  })
}

const hereIn = (index: SiteIndex, run: Run, { socket }: RunTest): Here => hereOf(index, socketAt(index, socket), run.id)

function standingOf(
  test: RunTest,
  run: Run,
  learnt: Learnt | null,
  hardest: readonly string[],
  situationIn: (socket: PortAddress) => Situation,
): TestStanding {
  const found = learnt ? lastOf(learnt, test, isSpotOf(run, test.socket)) : null
  if (!found) return { test, prediction: null, result: null, passed: false }
  const situation = situationIn(test.socket)
  const { index } = situation
  const prediction = predictRun(situation, test)
  const result: TestResult = {
    reading: found.reading,
    at: found.at,
    grade: gradeReading(prediction, found.reading),
    under: underOf(found.spot),
    stale: staleness(found.spot, hereIn(index, run, test)),
    easier: test.kind === 'soak' && hardest.length > 0 && found.spot.hard !== true,
    short: test.kind === 'soak' && watchedFor(found.reading) < test.seconds,
  }
  const good = result.grade !== null && result.grade.grade !== 'blocked' && !isLess(prediction, result.grade)
  return { test, prediction, result, passed: good && !result.stale && !result.easier && !result.short }
}

/** A link that came up lower than planned "works", and has failed all the same. */
const isLess = (prediction: Prediction, { grade }: ReadingGrade): boolean =>
  prediction.kind === 'link' && grade !== 'clear'

function watchedFor(reading: Unwritten<Tried>): number {
  if (reading.kind === 'trial') return reading.cameUp === null ? 0 : (reading.seconds ?? 0)
  return reading.measure === 'picture' && reading.held ? (reading.seconds ?? 0) : 0
}

function staleness(spot: Spot, here: Here): TestResult['stale'] {
  if (!isStale(spot, here)) return null
  return {
    was: underOf(spot),
    is:
      spot.setup === undefined || spot.setup === here.setup
        ? `controller ${here.controller}`
        : here.setup || 'nothing noted',
  }
}

const underOf = ({ setup, controller }: Spot): string =>
  setup || (controller === undefined ? '' : `controller ${controller}`)

type Found = { reading: Unwritten<Tried>; at: Instant; spot: Spot }

/** The reading that a test stands by: the latest, but a long look is not undone by a short one, and a drop not by a look shorter than the one it came in. */
function lastOf(learnt: Learnt, test: RunTest, isThere: (spot: Spot) => boolean): Found | null {
  const there = <Seen extends { spot: Spot; at: Instant }>(list: readonly Seen[]): Seen[] =>
    list.filter(({ spot }) => isThere(spot)).sort((one, other) => (one.at < other.at ? -1 : 1))
  switch (test.kind) {
    case 'link': {
      const last = there(learnt.trials.filter(({ copied }) => !copied)).at(-1)
      return last ? { reading: trialReading(last), at: last.at, spot: last.spot } : null
    }
    case 'soak':
      return lastSoak([
        ...there(learnt.trials.filter(({ copied }) => !copied)).map((trial) => ({
          ...trial,
          held: trial.cameUp !== null,
          reading: trialReading(trial),
        })),
        ...there(learnt.pictures).map((picture) => ({ ...picture, reading: pictureReading(picture) })),
      ])
    case 'write':
    case 'read': {
      const last = there(learnt.copies.filter(({ way }) => way === test.kind)).at(-1)
      if (!last) return null
      const { rate, limit, at, spot } = last
      return { reading: { kind: 'reading', measure: test.kind, rate, limit }, at, spot }
    }
    case 'watts': {
      const last = there(learnt.watts).at(-1)
      if (!last) return null
      return {
        reading: { kind: 'reading', measure: 'watts', watts: last.watts, limit: last.limit },
        at: last.at,
        spot: last.spot,
      }
    }
    case 'picture': {
      const need = test.crossing?.need
      if (need?.kind !== 'picture') return null
      const asked = formatPictureMode(need.mode)
      const last = there(learnt.pictures.filter(({ mode }) => formatPictureMode(mode) === asked)).at(-1)
      if (!last) return null
      return { reading: pictureReading(last), at: last.at, spot: last.spot }
    }
    default: {
      const measure: FigureName = test.kind
      const last = there(learnt.figures.filter((figure) => figure.measure === measure)).at(-1)
      return last ? { reading: figureReading(last, test), at: last.at, spot: last.spot } : null
    }
  }
}

type Watched = Found & { held: boolean; seconds?: number }

/**
 * The soak that a run stands by: the hardest, of these the longest. What dropped stands until a soak as hard and as long clears it. Once something else is
 * installed all of it begins anew.
 */
function lastSoak(watched: readonly Watched[]): Found | null {
  let now: Watched | null = null
  for (const next of [...watched].sort((one, other) => (one.at < other.at ? -1 : 1)))
    if (next.seconds && (now === null || !next.held || replaces(next, now))) now = next
  return now
}

function replaces(next: Watched, now: Watched): boolean {
  if (next.spot.setup !== now.spot.setup) return true
  if (now.spot.hard && !next.spot.hard) return false
  const harder = now.held && next.spot.hard === true && !now.spot.hard
  return harder || (next.seconds ?? 0) >= (now.seconds ?? 0)
}

const pictureReading = ({ mode, held, seconds }: Learnt['pictures'][number]): Unwritten<Tried> => ({
  kind: 'reading',
  measure: 'picture',
  mode,
  held,
  ...(seconds === undefined ? {} : { seconds }),
})

const trialReading = ({ basis, tried, cameUp, seconds }: Learnt['trials'][number]): Unwritten<Tried> => ({
  kind: 'trial',
  basis,
  tried,
  cameUp,
  ...(seconds === undefined ? {} : { seconds }),
})

/** The one figure that is kept of a reading, as the reading it came from. */
function figureReading({ measure, value }: Figure, { amps }: RunTest): Unwritten<Tried> {
  switch (measure) {
    case 'battery':
      return { kind: 'reading', measure, slope: value, hours: 0 }
    case 'added delay':
      return { kind: 'reading', measure, ms: value }
    case 'frames':
      return { kind: 'reading', measure, asked: value, came: 0 }
    case 'headset link':
      return { kind: 'reading', measure, rate: value }
    case 'sight':
      return { kind: 'reading', measure, good: value > 0 }
    case 'warmth':
      return { kind: 'reading', measure, felt: WARMTHS[value] ?? 'hot' }
    case 'volts lost':
      return { kind: 'reading', measure, volts: value, amps }
  }
}
