import { devicesBeside } from '../bench/where'
import type { Assessed, RunVerdict } from '../checks/assess'
import { laidAt } from '../install/work-list'
import { learntOfCable, runRecords } from '../observe/learned'
import type { AcceptedAt, LaidAt, Learnt } from '../observe/learnt'
import { byId } from '../plan/lookup'
import { leadCable, portKey, type SiteIndex } from '../plan/site-index'
import { laidCables, type PortAddress, type Run } from '../vocabulary/run'
import { hardestOf } from './hardest'
import { predictedSituation } from './predict-run'
import { changesSince, type FactChange, restsNow } from './rests'
import { runTests } from './run-tests'
import { isTested, type OfRun, standingOf, type TestStanding } from './test-standing'

/** How far a run has come. */
export const RUN_STATES = ['planned', 'laid', 'failed', 'stale', 'proved', 'accepted'] as const
export type RunState = (typeof RUN_STATES)[number]

export type RunProof = {
  state: RunState
  tests: readonly TestStanding[]
  /** Tests that have to pass before a run is proved, and how many of them have. */
  asked: number
  passed: number
  /** Tests that failed as it lies, and those that are to be done again; without what was waived. */
  failed: number
  stale: number
  laid: LaidAt | null
  accepted: AcceptedAt | null
  /** What has changed since it was accepted, so that this does not stand any more. */
  outdated: readonly FactChange[]
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
 * How far a run has come: planned, laid, failed in a test, proved by every test its needs ask for, stale since something changed, or accepted. With other leads
 * it is another run, and begins anew.
 */
export function proofOf({ index, walks }: Site, run: Run): RunProof {
  const crossings = walks.crossings.get(run.id) ?? []
  const learnt = learntNow(index, run)
  const accepted = learnt?.accepted ?? null
  const of: OfRun = {
    run,
    learnt,
    accepted,
    hardest: hardestOf(index, run, crossings),
    situationIn: bySocket((socket) => predictedSituation(index, run, crossings, socket)),
    nowIn: bySocket((socket) => restsNow(index, run, crossings, socket)),
  }
  const tests = runTests(index, run, crossings).map((test) => standingOf(of, index, test))
  const asked = tests.filter(({ test }) => !test.optional)
  const passed = asked.filter((test) => test.passed).length
  const open = tests.filter(({ waived }) => !waived)
  const failed = open.filter((test) => test.failed).length
  const stale = open.filter(({ result }) => result?.stale).length
  const laid = laidAt(index, run)
  const outdated = accepted?.rests ? changesSince(accepted.rests, of.nowIn(run.from)) : []
  return {
    state: stateOf({
      laid: laid !== null || tests.some(({ result }) => result),
      isAccepted: accepted !== null && outdated.length === 0 && tests.every((test) => isCovered(accepted, test)),
      isProved: asked.length > 0 && passed === asked.length,
      failed,
      stale: stale + outdated.length,
    }),
    tests,
    asked: asked.length,
    passed,
    failed,
    stale,
    laid,
    accepted,
    outdated,
    hardest: of.hardest,
  }
}

function bySocket<T>(work: (socket: PortAddress) => T): (socket: PortAddress) => T {
  const known = new Map<string, T>()
  return (socket) => {
    const key = portKey(socket)
    const found = known.get(key) ?? work(socket)
    known.set(key, found)
    return found
  }
}

/**
 * Whether an acceptance stands for a test: it has passed, or was waived by name. One from before that was noted stands for what it stood for then: for all that
 * is not stale, and where nothing was said to be missing not for what has failed since.
 */
function isCovered(accepted: AcceptedAt, { test, result, passed, failed, waived }: TestStanding): boolean {
  if (passed || waived) return true
  if (result?.stale) return false
  if (accepted.rests) return test.optional === true && !failed
  return !failed || accepted.less !== null || result === null || result.at <= accepted.at
}

/** The tests that an acceptance would do without: those asked for that have not passed, and any that failed. */
export const missingOf = ({ tests }: RunProof): TestStanding[] =>
  tests.filter(({ test, passed, failed }) => failed || (!passed && !test.optional))

/** Acceptance is asked first: it implies that every test passed or was waived. What failed then comes before what is to be done again. */
function stateOf({
  laid,
  isAccepted,
  isProved,
  failed,
  stale,
}: {
  laid: boolean
  isAccepted: boolean
  isProved: boolean
  failed: number
  stale: number
}): RunState {
  if (isAccepted) return 'accepted'
  if (failed > 0) return 'failed'
  if (stale > 0) return 'stale'
  if (isProved) return 'proved'
  return laid ? 'laid' : 'planned'
}

const kept = new WeakMap<RunVerdict, { by: readonly unknown[]; proof: RunProof }>()

/** The same of a run that was judged, kept until something of it changes. */
export function keptProofOf(site: Assessed, verdict: RunVerdict): RunProof | null {
  const run = site.index.runs.get(verdict.id)
  if (!run) return null
  const by = dependsOn(site, run)
  const known = kept.get(verdict)
  if (known && known.by.length === by.length && known.by.every((each, at) => each === by[at])) return known.proof
  const proof = proofOf(site, run)
  kept.set(verdict, { by, proof })
  return proof
}

/** All that a proof is made of beside the verdict of its run: what stands elsewhere may change without another verdict. */
function dependsOn({ index, walks }: Site, run: Run): unknown[] {
  const ends = [run.from, run.to].map(({ device }) => index.devices.get(device))
  return [
    run,
    ...ends,
    ...ends.map((device) => index.places.get(device?.place ?? '')),
    learntNow(index, run),
    walks.crossings.get(run.id),
    ...run.leads.flatMap((lead) => [
      leadCable(index, lead),
      'cable' in lead ? learntOfCable(index.learned, lead.cable)?.hot?.at : null,
    ]),
    ...devicesBeside(index, run.from, run.id),
  ]
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

/** States in which a run lies and waits for somebody: to be mended, tested, tested again, or accepted. */
const WAITING: ReadonlySet<RunState> = new Set(['failed', 'stale', 'laid', 'proved'])

/** Runs that lie and wait for somebody. Nothing is predicted for that, unless somebody accepted a run. */
export function runsToProve(site: Assessed): Run[] {
  const { index, walks } = site
  const verdicts = byId(site.assessment.runs)
  return index.plan.runs.filter((run) => {
    const learnt = learntNow(index, run)
    if (!learnt) return false
    if (learnt.accepted) {
      const verdict = verdicts.get(run.id)
      const proof = verdict && keptProofOf(site, verdict)
      return proof ? WAITING.has(proof.state) : false
    }
    if (learnt.laid) return true
    return runTests(index, run, walks.crossings.get(run.id) ?? []).some((test) => isTested(learnt, test, run))
  })
}
