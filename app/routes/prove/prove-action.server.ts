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
import { sharedModes } from '../../../core/link/shared-modes'
import { circumstancesSchema, HELD_BACK_BY } from '../../../core/observe/every'
import type { Tried, Unwritten } from '../../../core/observe/observation'
import { modeFrom } from '../../../core/observe/seen-text'
import { byId } from '../../../core/plan/lookup'
import { indexPlan, type SiteIndex, socketAt } from '../../../core/plan/site-index'
import { predictedSituation, predictRun, soakedPicture } from '../../../core/prove/predict-run'
import { acceptedNow, proofOf } from '../../../core/prove/proof'
import { type RunTest, runTests } from '../../../core/prove/run-tests'
import { parseDuration } from '../../../core/quantity/duration'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { bestMode, type LinkMode } from '../../../core/standards/link-modes'
import { laidCables, type Run } from '../../../core/vocabulary/run'
import type { Hand } from '../../../server/sites/change-site'
import { type MakeChange, refused } from '../../../server/sites/change-site'
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
  if (run.leads.length === 0 || laidCables(run).length !== run.leads.length)
    return refused('run', 'not all of its leads are here yet')
  const index = indexPlan(plan)
  const crossings = walkNeeds(index).crossings.get(run.id) ?? []
  switch (form.get('intent')) {
    case 'soak': {
      const test = testNamed(runTests(index, run, crossings), said(form, 'test'))
      const seconds = parseDuration(said(form, 'for'))
      if (test?.kind !== 'soak') return refused('test', 'this run asks for no such soak')
      if (seconds === null || seconds < 60 || seconds > 60 * 86_400)
        return refused('for', 'a soak lasts from 60 s to 60 days: write 8 h, or 10 days')
      return startRunSoak(plan, place, run, { socket: test.socket, seconds, hard: form.get('hard') === 'on' }, witness)
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
      const less = said(form, 'less') || null
      if (proof.passed < proof.tests.length && less === null)
        return refused('less', 'not all of its tests have passed: say why it is accepted all the same')
      const conditions = said(form, 'conditions') || null
      return acceptRun(run, { less, conditions, where: whereAt(index, run.from, run.to) }, witness)
    }
    case 'result': {
      const test = testNamed(runTests(index, run, crossings), said(form, 'test'))
      if (!test) return refused('test', 'this run asks for no such test')
      const read = readResult(index, run, crossings, test, form)
      if (!read.ok) return refused('value', read.problem)
      const taken = takenIn(index, run, test, form)
      return taken.ok ? proveRun(run, [read.value], taken.value, witness) : refused('circumstances', taken.problem)
    }
    default:
      return refused('intent', 'nothing was asked for')
  }
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
  form: FormData,
): Parsed<Unwritten<Tried>> {
  const text = said(form, 'value', 4000)
  if (test.kind === 'link' || test.kind === 'soak') {
    const lower = text.toLowerCase()
    const spoken = sharedModes(index, run)
    const seen = lower === 'nothing' || lower === 'dropped' ? lower : modeFrom(lower, spoken)
    if (seen === null) return unreadable('Choose what came up, that nothing did, or that it dropped.')
    const tried = predictedMode(index, run, crossings, test.socket) ?? bestShared(index, run) ?? 'usb2'
    const seconds = test.kind === 'soak' ? (parseDuration(said(form, 'for')) ?? 0) : 0
    const best = seen === 'nothing' || seen === 'dropped' ? tried : (bestMode([tried, seen]) ?? tried)
    return parsed(trialSeen({ tried: best, seen, seconds, soak: 60 }))
  }
  const asked = askedOf(test)
  if (!asked) return unreadable('That test takes no figure.')
  const read = readValue(asked, text)
  if (!read.ok) return read
  const limit = HELD_BACK_BY.find((each) => each === form.get('limit'))
  const made = said(form, 'with', 120)
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

/** Where and under what a test was taken: filled in from the plan, and as the form corrects it. */
function takenIn(index: SiteIndex, run: Run, test: RunTest, form: FormData): Parsed<Taken> {
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
  const note = said(form, 'note', 500)
  const instrument = said(form, 'instrument', 120)
  return parsed({
    where: whereAt(index, test.socket, run.to),
    ...(Object.keys(given).length > 0 ? { circumstances: circumstances.data } : {}),
    ...(note ? { note } : {}),
    ...(instrument ? { instrument: { name: instrument, simulated: form.get('simulated') === 'on' } } : {}),
  })
}
