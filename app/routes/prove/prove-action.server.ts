import { type AskedValue, readValue } from '../../../core/bench/read-value'
import { trialSeen } from '../../../core/bench/take-reading'
import { besideAt, whereAt } from '../../../core/bench/where'
import type { Copy } from '../../../core/change/change'
import {
  acceptRun,
  endRunSoak,
  noteDrop,
  proveRun,
  soakOfRun,
  startRunSoak,
  stopRunSoak,
  type Taken,
  withdrawAcceptance,
} from '../../../core/change/changes/prove'
import { walkNeeds } from '../../../core/checks/assess'
import { isAtHand } from '../../../core/link/captive'
import { sharedModes } from '../../../core/link/shared-modes'
import { circumstancesSchema, HELD_BACK_BY, type HeldBackBy } from '../../../core/observe/every'
import type { Tried, Unwritten } from '../../../core/observe/observation'
import { modeFrom } from '../../../core/observe/seen-text'
import { byId } from '../../../core/plan/lookup'
import { indexPlan, type SiteIndex, socketAt } from '../../../core/plan/site-index'
import { parseRepeats } from '../../../core/prove/before-after'
import type { JobSeen } from '../../../core/prove/jobs'
import { PASTED_KINDS, type ReadOff, readPasted } from '../../../core/prove/pasted'
import { predictedSituation, predictRun, soakedPicture } from '../../../core/prove/predict-run'
import { acceptedNow, missingOf, proofOf } from '../../../core/prove/proof'
import { takenAt } from '../../../core/prove/rests'
import { type RunTest, runTests } from '../../../core/prove/run-tests'
import { MOST_REPEATS } from '../../../core/quantity/compare'
import { parseDuration } from '../../../core/quantity/duration'
import { parseLength } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import type { ToWrite } from '../../../core/series/instrument-lines'
import { bestMode, type LinkMode } from '../../../core/standards/link-modes'
import type { Run } from '../../../core/vocabulary/run'
import type { Series } from '../../../server/series/series'
import type { Hand } from '../../../server/sites/change-site'
import { type MakeChange, NOTHING_TO_CHANGE, refused } from '../../../server/sites/change-site'
import { witnessOf } from '../../witness.server'

const said = (form: FormData, name: string, most = 300): string =>
  String(form.get(name) ?? '')
    .trim()
    .slice(0, most)

/** What a form of a run's proof asks for, as a change of the site as it stands. */
export function draftProof({ plan, place }: Copy, runId: string, form: FormData, hand: Hand): ReturnType<MakeChange> {
  const run = byId(plan.runs).get(runId)
  if (!run) return refused('run', 'somebody removed this run meanwhile')
  const witness = witnessOf(hand)
  const soak = soakOfRun(plan, run.id)
  switch (form.get('intent')) {
    case 'drop':
      return soak ? noteDrop(soak, place, run.tag, witness.at) : refused('soak', 'it does not soak any more')
    case 'call-off':
      return soak ? stopRunSoak(soak, place, run.tag) : refused('soak', 'it does not soak any more')
    case 'withdraw':
      return acceptedNow(indexPlan(plan), run)
        ? withdrawAcceptance(run, witness)
        : refused('run', 'nobody has accepted it')
    default:
  }
  const index = indexPlan(plan)
  if (!isAtHand(index, run)) return refused('run', 'not all of its leads are here yet')
  const crossings = walkNeeds(index).crossings.get(run.id) ?? []
  switch (form.get('intent')) {
    case 'soak': {
      const test = testNamed(runTests(index, run, crossings), said(form, 'test'))
      const seconds = parseDuration(said(form, 'for'))
      if (test?.kind !== 'soak') return refused('test', 'this run asks for no such soak')
      if (seconds === null || seconds < 60 || seconds > 60 * 86_400)
        return refused('for', 'a soak lasts from 60 s to 60 days: write 8 h, or 10 days')
      const hard = form.get('hard') === 'on'
      const { rests } = takenAt(index, run, crossings, test.socket)
      return startRunSoak(plan, place, run, { socket: test.socket, seconds, hard, rests }, witness)
    }
    case 'end': {
      if (!soak) return refused('soak', 'it does not soak any more')
      const { data } = predictedSituation(index, run, crossings, soak.socket)
      const picture = data.mode === null ? soakedPicture({ crossings }) : null
      const what = picture ? { picture } : { link: data.mode ?? bestShared(index, run) ?? 'usb2' }
      return endRunSoak(soak, place, run, { what, where: whereAt(index, soak.socket, run.to) }, witness)
    }
    case 'accept': {
      const proof = proofOf({ index, walks: { paths: new Map(), crossings: new Map([[run.id, crossings]]) } }, run)
      const waived = missingOf(proof).map(({ test }) => test.key)
      const less = said(form, 'less') || null
      if (waived.length > 0 && less === null)
        return refused('less', 'not all of its tests have passed: say why it is accepted all the same')
      const conditions = said(form, 'conditions') || null
      return acceptRun(run, { less, waived, conditions, ...takenAt(index, run, crossings) }, witness)
    }
    case 'job': {
      const read = readJob(form)
      if (!read.ok) return refused('job', read.problem)
      return proveRun(run, [read.value], { ...takenAt(index, run, crossings), ...besideAll(index, run) }, witness)
    }
    case 'result': {
      const test = testNamed(runTests(index, run, crossings), said(form, 'test'))
      if (!test) return refused('test', 'this run asks for no such test')
      const typed = typedIn(form)
      const pasted = typed.text === '' ? readOff(index, run, test, form) : null
      if (pasted && !pasted.ok) return refused('value', pasted.problem)
      const read = readResult(index, run, crossings, test, pasted ? { ...typed, text: pasted.value.value } : typed)
      if (!read.ok) return refused('value', read.problem)
      const taken = takenIn(index, run, crossings, test, form, pasted ? `read off: ${pasted.value.words}` : '')
      return taken.ok ? proveRun(run, [read.value], taken.value, witness) : refused('circumstances', taken.problem)
    }
    default:
      return refused('intent', 'nothing was asked for')
  }
}

/** What came of the readings of an instrument: what was written down of them, and what no test of the run takes. */
export type WrittenDown = { written: string[]; problems: string[] }

/** Writes down what an instrument read of a run, one observation for each thing it measured, in one change. `told` is filled with what came of each. */
export function draftReadings(
  { plan }: Copy,
  series: Series,
  found: readonly ToWrite[],
  hand: Hand,
  told: WrittenDown,
): ReturnType<MakeChange> {
  told.written = []
  told.problems = []
  const run = byId(plan.runs).get(series.run)
  if (!run) return refused('run', 'somebody removed this run meanwhile')
  const index = indexPlan(plan)
  if (!isAtHand(index, run)) return refused('run', 'not all of its leads are here yet')
  const crossings = walkNeeds(index).crossings.get(run.id) ?? []
  const tests = runTests(index, run, crossings)
  const readings: Unwritten<Tried>[] = []
  for (const { test: key, value, note, spread } of found) {
    const test = testNamed(tests, key)
    const read = test
      ? readResult(index, run, crossings, test, { text: value, seconds: null, limit: null, made: '' })
      : unreadable('this run asks for no such test')
    if (!read.ok) {
      told.problems.push(`${key}: ${read.problem}`)
      continue
    }
    told.written.push(`${key}: ${note}`)
    const kept = read.value.kind === 'reading' ? { series: series.id, ...(spread ? { spread } : {}) } : {}
    readings.push({ ...read.value, ...kept, note: note.slice(0, 500) })
  }
  if (readings.length === 0) return NOTHING_TO_CHANGE
  const taken: Taken = {
    ...takenAt(index, run, crossings),
    ...besideAll(index, run),
    instrument: { name: series.instrument, simulated: series.simulated },
  }
  return proveRun(run, readings, taken, witnessOf(hand))
}

function besideAll(index: SiteIndex, run: Run): Pick<Taken, 'circumstances'> {
  const beside = circumstancesSchema.safeParse(besideAt(index, run.from, run.id))
  return beside.success && Object.keys(beside.data).length > 0 ? { circumstances: beside.data } : {}
}

/** What somebody typed of a test, and what they said of it. */
type Typed = { text: string; seconds: number | null; limit: HeldBackBy | null; made: string }

const typedIn = (form: FormData): Typed => ({
  text: said(form, 'value', 4000),
  seconds: parseDuration(said(form, 'for')),
  limit: HELD_BACK_BY.find((each) => each === form.get('limit')) ?? null,
  made: said(form, 'with', 120),
})

/** A real job as it was timed over the run, and over the way it is held against. */
function readJob(form: FormData): Parsed<Unwritten<JobSeen>> {
  const broke = said(form, 'broke', 2)
  if (!/^\d*$/.test(broke) || Number(broke) > MOST_REPEATS)
    return unreadable(`Say how often it broke off: 0 to ${MOST_REPEATS}.`)
  const times = said(form, 'two', 600)
  const own = times === '' && Number(broke) > 0 ? parsed([]) : parseRepeats(times, 1)
  if (!own.ok) return own
  const name = said(form, 'first', 80)
  const direct = said(form, 'one', 600) === '' ? null : parseRepeats(said(form, 'one', 600), 1)
  if (direct && !direct.ok) return direct
  const typed = said(form, 'length', 40)
  const length = typed === '' ? null : parseLength(typed)
  if (length && !length.ok) return length
  const [what, unit] = [said(form, 'what', 120), said(form, 'unit', 20) || 's']
  if (what === '') return unreadable('Say which job it is: "copy the rushes".')
  if ([...own.value, ...(direct?.value ?? [])].some((figure) => figure < 0))
    return unreadable('A job takes no less than nothing.')
  return parsed({
    kind: 'reading',
    measure: 'job',
    what,
    figures: own.value,
    ...(Number(broke) > 0 ? { brokeOff: Number(broke) } : {}),
    unit,
    ...(form.get('more') === 'on' ? { moreIsBetter: true } : {}),
    ...(form.get('cached') === 'on' ? { cached: true } : {}),
    ...(direct
      ? {
          against: {
            what: name || 'the direct way',
            figures: direct.value,
            ...(length ? { length: Math.min(1000, length.value) } : {}),
          },
        }
      : {}),
  })
}

type Crossings = Parameters<typeof runTests>[2]

const testNamed = (tests: readonly RunTest[], key: string): RunTest | undefined =>
  tests.find((test) => test.key === key)

function predictedMode(index: SiteIndex, run: Run, crossings: Crossings, socket: Run['from']): LinkMode | null {
  return predictedSituation(index, run, crossings, socket).data.mode
}

const bestShared = (index: SiteIndex, run: Run): LinkMode | null => bestMode(sharedModes(index, run))

/** What somebody wrote down of a test, or what can be written instead. */
function readResult(
  index: SiteIndex,
  run: Run,
  crossings: Crossings,
  test: RunTest,
  { text, seconds: watched, limit, made }: Typed,
): Parsed<Unwritten<Tried>> {
  if (test.kind === 'link' || test.kind === 'soak') {
    const lower = text.toLowerCase()
    const spoken = sharedModes(index, run)
    const seen = lower === 'nothing' || lower === 'dropped' ? lower : modeFrom(lower, spoken)
    if (seen === null) return unreadable('Choose what came up, that nothing did, or that it dropped.')
    const tried = predictedMode(index, run, crossings, test.socket) ?? bestShared(index, run) ?? 'usb2'
    const seconds = test.kind === 'soak' ? (watched ?? 0) : 0
    const best = seen === 'nothing' || seen === 'dropped' ? tried : (bestMode([tried, seen]) ?? tried)
    return parsed(trialSeen({ tried: best, seen, seconds, soak: 60 }))
  }
  const asked = askedOf(test)
  if (!asked) return unreadable('That test takes no figure.')
  const read = readValue(asked, text)
  if (!read.ok) return read
  const prediction = predictRun(predictedSituation(index, run, crossings, test.socket), test)
  const byItself = prediction.kind === 'rate' && prediction.limitedBy === 'drive' ? ({ limit: 'disk' } as const) : {}
  return parsed({
    ...read.value,
    ...byItself,
    ...(limit ? { limit } : {}),
    with: made || socketAt(index, test.kind === 'watts' ? test.socket : run.to).device.name,
  })
}

function askedOf(test: RunTest): AskedValue | null {
  const { kind, crossing, amps } = test
  if (kind === 'link' || kind === 'soak') return null
  if (kind === 'picture') return crossing?.need.kind === 'picture' ? { kind, mode: crossing.need.mode } : null
  return kind === 'volts lost' ? { kind, amps } : { kind }
}

/** Longer is a log, and belongs to Survey. */
const LONGEST_PASTED = 100_000

/** What a screen says of a test, pasted in place of a figure. */
function readOff(index: SiteIndex, run: Run, test: RunTest, form: FormData): Parsed<ReadOff> {
  const text = said(form, 'pasted', LONGEST_PASTED)
  const kind = PASTED_KINDS.find((each) => each === test.kind)
  if (text === '' || !kind) return unreadable('Write down what you read, or paste what the screen says.')
  const { crossing } = test
  const mode = crossing?.need.kind === 'picture' ? crossing.need.mode : null
  return readPasted({ kind, spoken: sharedModes(index, run), mode }, text)
}

/** Where and under what a test was taken: filled in from the plan, and as the form corrects it. */
function takenIn(
  index: SiteIndex,
  run: Run,
  crossings: Crossings,
  test: RunTest,
  form: FormData,
  readOffWords: string,
): Parsed<Taken> {
  const alone = form.get('alone') === 'on'
  const charge = said(form, 'charge').replace(/ ?%$/, '')
  const supply = said(form, 'supply', 120)
  const given = {
    ...(alone ? { alone: true } : besideAt(index, test.socket, run.id)),
    ...(form.get('hard') === 'on' ? { hard: true } : {}),
    ...(charge === '' ? {} : { charge: Number(charge) }),
    ...(supply === '' ? {} : { supply }),
  }
  const circumstances = circumstancesSchema.safeParse(given)
  if (!circumstances.success)
    return unreadable(`what else may have mattered: ${circumstances.error.issues[0]?.message}`)
  const note = [said(form, 'note', 500), readOffWords].filter(Boolean).join('; ').slice(0, 500)
  const instrument = said(form, 'instrument', 120)
  return parsed({
    ...takenAt(index, run, crossings, test.socket),
    ...(Object.keys(given).length > 0 ? { circumstances: circumstances.data } : {}),
    ...(note ? { note } : {}),
    ...(instrument ? { instrument: { name: instrument, simulated: form.get('simulated') === 'on' } } : {}),
  })
}
