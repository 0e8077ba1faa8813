import { gradeReading, type ReadingGrade } from '../bench/grade-reading'
import type { Prediction } from '../bench/predict'
import type { Situation } from '../checks/situation'
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
import type { AcceptedAt, Learnt } from '../observe/learnt'
import { longestOf } from '../observe/ledger'
import { basisOf, isHold, type LinkSeries, seenOfMode } from '../observe/links'
import type { Tried, Unwritten } from '../observe/observation'
import { type PictureSeries, seenOfPicture } from '../observe/pictures'
import { type Changed, type Here, inOnePlace, isOtherController, type Spot, setupChanges } from '../observe/spot'
import type { Standing } from '../observe/standing'
import { NOTHING_COUNTED } from '../observe/tally'
import { formatPictureMode, parsePictureMode } from '../picture/mode-text'
import { streamRate } from '../picture/timing'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { Instant } from '../vocabulary/fields'
import type { PictureMode } from '../vocabulary/need'
import type { PortAddress, Run } from '../vocabulary/run'
import { isNoHarder } from './bearing'
import { isSpotOf, predictRun } from './predict-run'
import { changesSince, type FactChange, factsOfOne, type RestsNow } from './rests'
import type { RunTest } from './run-tests'

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
  /** It was taken before something changed that it rests on, and what. */
  stale: readonly FactChange[] | null
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
  /** It failed as the run lies now. */
  failed: boolean
  /** Whoever accepted the run did so without it. */
  waived: boolean
}

/** What each test of a run is held against, worked out once for each socket. */
export type OfRun = {
  run: Run
  learnt: Learnt | null
  accepted: AcceptedAt | null
  hardest: readonly string[]
  situationIn(socket: PortAddress): Situation
  nowIn(socket: PortAddress): RestsNow
}

const hereIn = (index: SiteIndex, run: Run, { socket }: RunTest): Here => hereOf(index, socketAt(index, socket), run)

/** Waived by name; whoever did without a picture does without an easier one in its place. */
function isWaivedBy({ key, kind, crossing }: RunTest, waived: string): boolean {
  if (key === waived) return true
  const need = kind === 'picture' ? crossing?.need : undefined
  const mode = need?.kind === 'picture' ? parsePictureMode(waived.replace(/^picture /, '')) : null
  return need?.kind === 'picture' && mode?.ok === true && isNoHarder(need.mode, mode.value)
}

/** How a test of a run stands: what came of it beside what is predicted, whether it has passed or failed as the run lies, and whether it was waived. */
export function standingOf(of: OfRun, index: SiteIndex, test: RunTest): TestStanding {
  const { run, learnt, accepted, hardest } = of
  const waived = accepted?.waived?.some((key) => isWaivedBy(test, key)) ?? false
  const untested: TestStanding = { test, prediction: null, result: null, passed: false, failed: false, waived }
  if (!learnt || !isTested(learnt, test, run)) return untested
  const situation = of.situationIn(test.socket)
  const prediction = predictRun(situation, test)
  const here = hereIn(index, run, test)
  const now = of.nowIn(test.socket)
  const changesOf = (spot: Spot): readonly FactChange[] => staleness(learnt, run, test, spot, here, now)
  const found = resultOf({ learnt, test, run, situation, prediction, here, hardest, changesOf })
  if (!found) return { ...untested, prediction }
  const { reading, at, spot, came, counted } = found
  const grade = gradeReading(prediction, reading)
  const stale = changesOf(spot)
  const result: TestResult = {
    reading,
    at,
    grade: grade && gradeBy(came, grade),
    came,
    counted,
    under: underOf(spot),
    stale: stale.length > 0 ? stale : null,
    easier: test.kind === 'soak' && hardest.length > 0 && spot.hard !== true,
    short: test.kind === 'soak' && watchedFor(reading) < test.seconds,
  }
  const good = result.grade !== null && result.grade.grade !== 'blocked' && !isLess(prediction, result.grade)
  const passed = good && isGood(came) && !result.stale && !result.easier && !result.short
  // what comes and goes has failed until it is cleared; what was set right is neither passed nor failed until somebody looks again
  const isBad = grade !== null && (grade.grade === 'blocked' || isLess(prediction, grade))
  const failed = grade !== null && !result.stale && came !== 'begun anew' && (!isGood(came) || isBad)
  return { test, prediction, result, passed, failed, waived }
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

/**
 * What has changed since a test was taken, of what that test rests on: no other need than its own, unless all go on at once. What was written down before Hallway
 * noted what it rests on tells only what was installed, and on which controller it was taken.
 */
function staleness(
  learnt: Learnt,
  run: Run,
  test: RunTest,
  spot: Spot,
  here: Here,
  now: RestsNow,
): readonly FactChange[] {
  const rests = spot.rests === undefined ? undefined : learnt.rests[spot.rests - 1]
  if (!rests)
    return [
      ...setupChanges(spot.setup, here.setup).map((change) => asFact('host', change)),
      ...setupChanges(spot.farSetup, here.farSetup).map((change) => asFact('device', change)),
      ...(isOtherController(spot, here)
        ? [asFact('host port says', { what: 'controller', was: spot.controller ?? '', is: here.controller ?? '' })]
        : []),
    ]
  const ofOne = factsOfOne(rests, run, test.crossing?.need.id ?? null)
  return changesSince(rests, now, (fact) => {
    if (fact === 'hot') return test.kind !== 'warmth'
    return test.kind === 'soak' ? fact !== 'beside' || spot.hard === true : ofOne(fact)
  })
}

const asFact = (fact: string, { what, was, is }: Changed): FactChange => ({ fact, figure: what, was, is })

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
  const isOwn = portKey(socket) === portKey(run.from)
  const there = <S extends { spot: Spot }>(all: readonly S[]): S[] => {
    const found = all.filter(({ spot }) => isThere(spot))
    // of a run that was moved what it did before is shown as stale
    return found.length > 0 || !isOwn ? found : all.filter(({ spot }) => spot.rests !== undefined)
  }
  const need = crossing?.need
  const asked = kind === 'picture' && need?.kind === 'picture' ? need.mode : null
  return {
    links: kind === 'link' || kind === 'soak' ? there(learnt.links.filter(({ copied }) => !copied)) : [],
    pictures:
      kind === 'soak'
        ? there(learnt.pictures)
        : asked === null
          ? []
          : there(learnt.pictures.filter((series) => isOfPicture(series, asked))),
    figures: there(learnt.figures.filter(({ measure }) => measure === kind)),
  }
}

const rateAsked = ({ crossing }: RunTest): BitsPerSecond | null =>
  crossing?.need.kind === 'picture' ? streamRate(crossing.need.mode) : null

/** It was the picture that is asked, or a harder one that held. */
const isOfPicture = ({ mode, held }: PictureSeries, asked: PictureMode): boolean =>
  formatPictureMode(mode) === formatPictureMode(asked) || (held && isNoHarder(asked, mode))

/** Something that this test stands by was tried. */
export function isTested(learnt: Learnt, test: RunTest, run: Run): boolean {
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
  changesOf(spot: Spot): readonly FactChange[]
}

function resultOf(asked: Asked): Found | null {
  const { learnt, test, run, situation, prediction, here, changesOf } = asked
  const { links, pictures, figures } = triedThere(learnt, test, run)
  // once something else lies there what was seen before is what was seen before
  const asSeen = <S extends LinkSeries | PictureSeries>(all: readonly S[]): S[] =>
    all.map((series) => (changesOf(series.spot).length > 0 ? { ...series, before: true } : series))
  if (test.kind === 'soak') return soakOf(asked, asSeen(links), asSeen(pictures))
  if (test.kind === 'link') {
    const last = latest(links)
    return last && { ...linkFound(last), ...linkCame(situation, asSeen(links), prediction, here) }
  }
  if (test.kind === 'picture') {
    const last = latest(pictures)
    return (
      last && { ...pictureFound(last), ...pictureCame(situation, asSeen(pictures), rateAsked(test) ?? last.rate, here) }
    )
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
  const now = watched.filter(({ series }) => !series.before)
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
