import { gradeReading, type ReadingGrade } from '../bench/grade-reading'
import type { Prediction } from '../bench/predict'
import type { Assessed, RunVerdict } from '../checks/assess'
import type { Situation } from '../checks/situation'
import { laidAt } from '../install/work-list'
import { hereOf, oughtOf } from '../link/lay'
import { CAME, type Came, came, failures, isGood } from '../observe/came'
import {
  AT_ONCE,
  type FigureSeries,
  figureTally,
  ladderOf,
  type Measure,
  type Read,
  withWorth,
} from '../observe/figures'
import { runRecords } from '../observe/learned'
import type { AcceptedAt, LaidAt, Learnt } from '../observe/learnt'
import { longestOf } from '../observe/ledger'
import { basisOf, isHold, type LinkSeries, seenOfMode } from '../observe/links'
import type { Tried, Unwritten } from '../observe/observation'
import { type PictureSeries, seenOfPicture } from '../observe/pictures'
import { type Here, inOnePlace, isStale, type Spot } from '../observe/spot'
import type { Standing } from '../observe/standing'
import { NOTHING_COUNTED } from '../observe/tally'
import { formatPictureMode } from '../picture/mode-text'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { Device } from '../vocabulary/device'
import type { Instant } from '../vocabulary/fields'
import { laidCables, type PortAddress, type Run } from '../vocabulary/run'
import { hardestOf } from './hardest'
import { isSpotOf, predictedSituation, predictRun } from './predict-run'
import { type RunTest, runTests } from './run-tests'

type Counted = { held: number; failed: number }

/** What came of a test, beside what was predicted. */
export type TestResult = {
  reading: Unwritten<Tried>
  at: Instant
  grade: ReadingGrade | null
  /** What all tries of it come to, and how often it held and failed. */
  came: Came
  counted: Counted
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
  /** Tests that have to pass before a run is proved, and how many of them have. */
  asked: number
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
  const asked = tests.filter(({ test }) => !test.optional)
  const passed = asked.filter((test) => test.passed).length
  const failed = tests.filter(({ result }) => result && !result.stale && result.grade?.grade === 'blocked').length
  const stale = tests.filter(({ result }) => result?.stale).length
  const laid = laidAt(index, run)
  const accepted = learnt?.accepted ?? null
  return {
    state: stateOf({
      laid: laid !== null || tests.some(({ result }) => result),
      accepted,
      isProved: asked.length > 0 && passed === asked.length && failed === 0,
      stale,
    }),
    tests,
    asked: asked.length,
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
  isProved,
  stale,
}: {
  laid: boolean
  accepted: AcceptedAt | null
  isProved: boolean
  stale: number
}): RunState {
  if (stale > 0) return 'stale'
  if (accepted) return 'accepted'
  if (isProved) return 'proved'
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
    const tested = runTests(index, run, walks.crossings.get(run.id) ?? []).filter((test) => isTested(learnt, test, run))
    const lies = learnt.laid !== null || tested.length > 0
    return lies && (!learnt.accepted || tested.some((test) => isTestStale(index, learnt, test, run)))
  })
}

/** All that was seen of a test was seen before something changed. */
function isTestStale(index: SiteIndex, learnt: Learnt, test: RunTest, run: Run): boolean {
  const { links, pictures, figures } = triedThere(learnt, test, run)
  const here = hereIn(index, run, test)
  return [...links, ...pictures, ...figures].every(({ spot }) => isStale(spot, here))
}

const hereIn = (index: SiteIndex, run: Run, { socket }: RunTest): Here => hereOf(index, socketAt(index, socket), run.id)

function standingOf(
  test: RunTest,
  run: Run,
  learnt: Learnt | null,
  hardest: readonly string[],
  situationIn: (socket: PortAddress) => Situation,
): TestStanding {
  if (!learnt || !isTested(learnt, test, run)) return { test, prediction: null, result: null, passed: false }
  const situation = situationIn(test.socket)
  const { index } = situation
  const prediction = predictRun(situation, test)
  const here = hereIn(index, run, test)
  const found = resultOf({ learnt, test, run, situation, prediction, here, hardest })
  if (!found) return { test, prediction, result: null, passed: false }
  const { reading, at, spot, came, counted } = found
  const grade = gradeReading(prediction, reading)
  const result: TestResult = {
    reading,
    at,
    grade: grade && gradeBy(came, grade),
    came,
    counted,
    under: underOf(spot),
    stale: staleness(spot, here),
    easier: test.kind === 'soak' && hardest.length > 0 && spot.hard !== true,
    short: test.kind === 'soak' && watchedFor(reading) < test.seconds,
  }
  const good = result.grade !== null && result.grade.grade !== 'blocked' && !isLess(prediction, result.grade)
  const passed = good && isGood(came) && !result.stale && !result.easier && !result.short
  return { test, prediction, result, passed }
}

/** The last reading may be good where all of them together are not. */
function gradeBy(came: Came, last: ReadingGrade): ReadingGrade {
  if (isGood(came)) return last
  if (came === 'failed') return { grade: 'blocked', beyond: false }
  return last.grade === 'clear' ? { grade: 'tight', beyond: false } : last
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

/** The tries of a run that a test stands by. */
type TriedThere = {
  links: readonly LinkSeries[]
  pictures: readonly PictureSeries[]
  figures: readonly FigureSeries[]
}

function triedThere(learnt: Learnt, { socket, kind, crossing }: RunTest, run: Run): TriedThere {
  const isThere = isSpotOf(run, socket)
  const there = <S extends { spot: Spot }>(all: readonly S[]): S[] => all.filter(({ spot }) => isThere(spot))
  const need = crossing?.need
  const asked = kind === 'picture' && need?.kind === 'picture' ? formatPictureMode(need.mode) : null
  return {
    links: kind === 'link' || kind === 'soak' ? there(learnt.links).filter(({ copied }) => !copied) : [],
    pictures:
      kind === 'soak'
        ? there(learnt.pictures)
        : asked === null
          ? []
          : there(learnt.pictures).filter(({ mode }) => formatPictureMode(mode) === asked),
    figures: there(learnt.figures).filter(({ measure }) => measure === kind),
  }
}

function isTested(learnt: Learnt, test: RunTest, run: Run): boolean {
  const { links, pictures, figures } = triedThere(learnt, test, run)
  if (test.kind === 'soak') return [...links, ...pictures].some((series) => longestOf(series) > 0)
  return links.length + pictures.length + figures.length > 0
}

/** What a test stands by: the reading that is shown, and what all of them come to. */
type Found = { reading: Unwritten<Tried>; at: Instant; spot: Spot; came: Came; counted: Counted }

type Asked = {
  learnt: Learnt
  test: RunTest
  run: Run
  situation: Situation
  prediction: Prediction
  here: Here
  hardest: readonly string[]
}

function resultOf(asked: Asked): Found | null {
  const { learnt, test, run, situation, prediction, here } = asked
  const { links, pictures, figures } = triedThere(learnt, test, run)
  if (test.kind === 'soak') return soakOf(asked, links, pictures)
  if (test.kind === 'link') {
    const last = latest(links)
    return last && { ...linkFound(last), ...linkCame(situation, links, prediction, here) }
  }
  if (test.kind === 'picture') {
    const last = latest(pictures)
    return last && { ...pictureFound(last), ...pictureCame(situation, pictures, last.rate, here) }
  }
  const series = latestOf(figures.map((each) => ({ series: { ...each, at: each.last.at } })))?.series ?? null
  return series && figureFound(series, prediction)
}

const latest = <S extends { at: Instant }>(all: readonly S[]): S | null =>
  all.reduce<S | null>((last, each) => (last === null || each.at > last.at ? each : last), null)

const HELD: { came: Came; counted: Counted } = { came: 'held', counted: { held: 0, failed: 0 } }

const summary = (standing: Standing | null): { came: Came; counted: Counted } =>
  standing ? { came: standing.came, counted: { held: standing.tally.held, failed: failures(standing.tally) } } : HELD

/** What the links tried come to in the mode that is planned; where none is planned nothing can have failed in it. */
function linkCame(
  { laid }: Situation,
  links: readonly LinkSeries[],
  prediction: Prediction,
  here: Here,
): { came: Came; counted: Counted } {
  const [first] = laid.leads
  const mode = prediction.kind === 'link' ? prediction.mode : null
  if (!first || mode === null) return HELD
  return summary(seenOfMode(links.map(inOnePlace), mode, oughtOf(first), here).here)
}

const pictureCame = ({ laid }: Situation, pictures: readonly PictureSeries[], rate: BitsPerSecond, here: Here) =>
  summary(seenOfPicture(pictures.map(inOnePlace), rate, laid.asks, here).here)

/**
 * The soak that a run stands by: the longest, of the hardest that there was. What dropped stands until it is cleared. Once something else is installed all of it
 * begins anew.
 */
function soakOf(
  { situation, prediction, here, hardest }: Asked,
  links: readonly LinkSeries[],
  pictures: readonly PictureSeries[],
): Found | null {
  const watched = [
    ...links.map((series) => ({ series, held: isHold(series), found: linkFound(series, longestOf(series)) })),
    ...pictures.map((series) => ({ series, held: series.held, found: pictureFound(series, longestOf(series)) })),
  ].filter(({ series }) => longestOf(series) > 0)
  const now = watched.filter(({ series }) => !series.before && !isStale(series.spot, here))
  const counting = now.length > 0 ? now : watched
  const largest = Math.max(0, ...pictures.map(({ rate }) => rate))
  const stands = [
    linkCame(situation, links, prediction, here),
    ...(largest > 0 ? [pictureCame(situation, pictures, largest, here)] : []),
  ]
  const worst = stands.reduce((one, other) => (CAME.indexOf(other.came) < CAME.indexOf(one.came) ? other : one))
  const failed = latestOf(counting.filter(({ held }) => !held))
  if (!isGood(worst.came) && failed) return { ...failed.found, ...worst }
  const held = counting.filter((each) => each.held)
  const hard = hardest.length > 0 ? held.filter(({ series }) => series.spot.hard) : []
  const best = (hard.length > 0 ? hard : held).reduce<(typeof held)[number] | null>(
    (most, each) => (most === null || longestOf(each.series) > longestOf(most.series) ? each : most),
    null,
  )
  const standsBy = best ?? failed
  return standsBy && { ...standsBy.found, ...worst }
}

const latestOf = <E extends { series: { at: Instant } }>(all: readonly E[]): E | null =>
  all.reduce<E | null>((last, each) => (last === null || each.series.at > last.series.at ? each : last), null)

type Shown = Pick<Found, 'reading' | 'at' | 'spot'>

function linkFound(series: LinkSeries, seconds: number | undefined = series.watched): Shown {
  const { tried, cameUp, at, spot } = series
  const basis = basisOf(series)
  return { reading: { kind: 'trial', basis, tried, cameUp, ...(seconds === undefined ? {} : { seconds }) }, at, spot }
}

function pictureFound({ mode, held, at, spot, watched }: PictureSeries, seconds: number | undefined = watched): Shown {
  return {
    reading: { kind: 'reading', measure: 'picture', mode, held, ...(seconds === undefined ? {} : { seconds }) },
    at,
    spot,
  }
}

/** The last figure as it was read, and what all of them come to: a figure that a grade refuses was not reached. */
function figureFound(series: FigureSeries, prediction: Prediction): Found {
  const { spot, last } = series
  const enough = ladderOf(series).counts.find(
    ([worth]) => gradeReading(prediction, readingOf(series, worth))?.grade !== 'blocked',
  )
  const tally = figureTally(series, enough?.[0] ?? Number.POSITIVE_INFINITY, 'unknown')
  return {
    reading: readingAs(series.measure, last),
    at: last.at,
    spot,
    came: came(tally, NOTHING_COUNTED, AT_ONCE) ?? 'held',
    counted: { held: tally.held, failed: tally.atOnce },
  }
}

const readingAs = (measure: Measure, { at: _, id: __, ...read }: Read): Unwritten<Tried> =>
  ({ kind: 'reading', measure, ...read }) as unknown as Unwritten<Tried>

/** A reading of a measure that is worth so much. */
const readingOf = ({ measure, last }: FigureSeries, worth: number): Unwritten<Tried> =>
  readingAs(measure, withWorth(measure, last, worth))
