import type { Assessed } from '../checks/assess'
import { learntOfCable } from '../observe/learned'
import { portKey, type SiteIndex } from '../plan/site-index'
import type { Instant } from '../vocabulary/fields'
import { laidCables, type PortAddress, type Run } from '../vocabulary/run'
import { isRunSoak } from '../vocabulary/session'
import { keptProofOf, type RunProof } from './proof'
import type { RunTestKind } from './run-tests'
import type { TestStanding } from './test-standing'

/** Seconds that hands and eyes take for a test, beside what it waits for (common practice, for planning only). */
const HANDS: Record<RunTestKind, number> = {
  link: 60,
  picture: 120,
  write: 120,
  read: 120,
  watts: 120,
  'volts lost': 600,
  warmth: 60,
  battery: 180,
  'headset link': 120,
  frames: 120,
  'added delay': 300,
  sight: 60,
  soak: 60,
}
/** What a test waits for while hands are free: a plug warms for ten minutes, a battery is followed for an hour. */
const WAITS: Partial<Record<RunTestKind, number>> = { warmth: 600, battery: 3600 }
const SECONDS_A_PLUG = 20
/** A copy that Match calls near its limit is done three times: one reading is noise there (common practice). */
const REPEATS = 3

/** A test of the plan: how often it is done, and why more than once. */
export type PlannedTest = { standing: TestStanding; repeats: number }

/** One run in one socket: what is done there by hand, and how long it then goes on by itself. */
export type TestVisit = {
  run: Run
  socket: PortAddress
  tests: readonly PlannedTest[]
  /** Plugs put in for it: none where the run lies already. */
  plugs: number
  hands: number
  waits: number
  /** Why it comes last: it may harm what it is tested on. */
  risk: string | null
}

export type TestPlan = {
  visits: readonly (TestVisit & { start: number; end: number })[]
  /** Seconds of work, and until the last soak is over. */
  hands: number
  ends: number
  /** No order ends sooner. */
  atLeast: number
  /** All orders were tried. */
  exact: boolean
  /** Tests that are not done because another one shows the same. */
  spared: number
}

/** Which tests a plan is made for: all that have not passed, or only those that went stale. */
export type Wanted = 'open' | 'stale'

/** The tests that wait, as the smallest set of visits: what a soak shows as well is not tested apart. */
export function visitsOf(site: Assessed, wanted: Wanted): { visits: TestVisit[]; spared: number } {
  const { index } = site
  let spared = 0
  const visits = site.assessment.runs.flatMap((verdict): TestVisit[] => {
    const run = index.runs.get(verdict.id)
    const proof = run && keptProofOf(site, verdict)
    if (!run || !proof || !isLaid(proof)) return []
    const soaking = index.plan.soaks.find((soak) => isRunSoak(soak) && soak.run === run.id)
    const open = proof.tests.filter(
      ({ passed, result, test, waived }) =>
        !passed && !waived && (wanted === 'open' || result?.stale) && !(soaking && showsIn(test.kind)),
    )
    const bySocket = new Map<string, TestStanding[]>()
    for (const standing of open) {
      const socket = portKey(standing.test.socket)
      bySocket.set(socket, [...(bySocket.get(socket) ?? []), standing])
    }
    return [...bySocket].map(([socket, standings]) => {
      const soaks = standings.some(({ test }) => test.kind === 'soak')
      const kept = standings.filter(({ test }) => !(soaks && test.kind === 'link'))
      spared += standings.length - kept.length
      const tests = kept.map((standing): PlannedTest => ({ standing, repeats: repeatsOf(standing) }))
      const own = socket === portKey(run.from)
      const plugs = own ? 0 : 2
      return {
        run,
        socket: (kept[0] as TestStanding).test.socket,
        tests,
        plugs,
        hands:
          plugs * SECONDS_A_PLUG +
          tests.reduce((sum, { standing, repeats }) => sum + HANDS[standing.test.kind] * repeats, 0),
        // they wait side by side
        waits: Math.max(
          0,
          ...tests.map(({ standing: { test } }) => (test.kind === 'soak' ? test.seconds : (WAITS[test.kind] ?? 0))),
        ),
        risk: riskOf(index, run),
      }
    })
  })
  return { visits, spared }
}

/** What a soak that is under way shows by itself. */
const showsIn = (kind: RunTestKind): boolean => kind === 'soak' || kind === 'link'

const isLaid = ({ state }: RunProof): boolean => state !== 'planned'

const repeatsOf = ({ test, result }: TestStanding): number =>
  (test.kind === 'write' || test.kind === 'read') && result?.grade?.grade === 'tight' ? REPEATS : 1

/** A lead that got hot may do so again; one that dropped may take both screens with it. */
function riskOf(index: SiteIndex, run: Run): string | null {
  for (const id of laidCables(run)) {
    const learnt = learntOfCable(index.learned, id)
    const tag = index.cables.get(id)?.tag ?? id
    if (learnt?.hot) return `${tag} got hot before: on the equipment that matters least`
    if (learnt?.links.some(({ dropped }) => dropped)) return `${tag} dropped before`
  }
  return null
}

/** So many visits are put into every order there is. */
const TRIED_ALL = 7

/**
 * An order of the visits that is over as early as possible: one pair of hands goes from visit to visit, soaks go on side by side where they need no socket or run of
 * another. Risky ones come last. Exact for a few visits, by trying every order; for more the longest waits begin first, and `atLeast` says how much
 * earlier any order could end.
 */
export function orderTests(visits: readonly TestVisit[], spared = 0): TestPlan {
  const sound = visits.filter(({ risk }) => risk === null)
  const risky = visits.filter(({ risk }) => risk !== null)
  const byWait = (list: readonly TestVisit[]) => list.toSorted((one, other) => other.waits - one.waits)
  const greedy = scheduled([...byWait(sound), ...byWait(risky)])
  const exact = visits.length <= TRIED_ALL
  let best = greedy
  if (exact)
    for (const first of orders(sound))
      for (const last of orders(risky)) {
        const tried = scheduled([...first, ...last])
        if (tried.ends < best.ends) best = tried
      }
  const hands = visits.reduce((sum, visit) => sum + visit.hands, 0)
  return { ...best, hands, atLeast: exact ? best.ends : bound(visits, hands), exact, spared }
}

function scheduled(order: readonly TestVisit[]): Pick<TestPlan, 'visits' | 'ends'> {
  const free = new Map<string, number>()
  let now = 0
  let ends = 0
  const visits = order.map((visit) => {
    const held = [visit.run.id, portKey(visit.socket)]
    const start = Math.max(now, ...held.map((each) => free.get(each) ?? 0))
    now = start + visit.hands
    const end = now + visit.waits
    for (const each of held) free.set(each, end)
    ends = Math.max(ends, end)
    return { ...visit, start, end }
  })
  return { visits, ends }
}

/** Hands do one thing at a time, and a run or a socket holds one soak at a time: neither can be over sooner. */
function bound(visits: readonly TestVisit[], hands: number): number {
  const held = new Map<string, number>()
  for (const { run, socket, hands: own, waits } of visits)
    for (const each of [run.id, portKey(socket)]) held.set(each, (held.get(each) ?? 0) + own + waits)
  const last = Math.min(...visits.map(({ waits }) => waits))
  return Math.max(0, hands + (visits.length > 0 ? last : 0), ...held.values())
}

/** Every order of a few things. */
function* orders<T>(list: readonly T[]): Iterable<T[]> {
  if (list.length <= 1) {
    yield [...list]
    return
  }
  for (const [at, first] of list.entries())
    for (const rest of orders([...list.slice(0, at), ...list.slice(at + 1)])) yield [first, ...rest]
}

/** A run whose figure is known well enough to hold an instrument against: read at the start and at the end of a session. */
export type Reference = { run: Run; test: TestStanding; at: Instant }

/** The newest figure that passed as a run lies; null where none did. */
export function referenceOf(site: Assessed): Reference | null {
  let found: Reference | null = null
  for (const verdict of site.assessment.runs) {
    const run = site.index.runs.get(verdict.id)
    const proof = run && keptProofOf(site, verdict)
    if (!run || !proof) continue
    for (const test of proof.tests) {
      if (!test.passed || !test.result || !REFERENCES.has(test.test.kind)) continue
      if (found === null || test.result.at > found.at) found = { run, test, at: test.result.at }
    }
  }
  return found
}
const REFERENCES: ReadonlySet<RunTestKind> = new Set(['write', 'read', 'watts', 'headset link'])
