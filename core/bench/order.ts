import { fewestPlugs, plugsBetween, plugsOver, portsOf, type Setup, soakOf } from './setup'

/** What a person does next: `attend` plugs a cable in, takes what can be read at once and starts a soak; `read` takes a soak's end. */
export type BenchStep = {
  kind: 'attend' | 'read'
  cable: string
  setup: Setup
  /** Ends that go in anew; none for a reading. */
  plug: readonly ('from' | 'to')[]
  /** When it can be done, in seconds from now, if all goes as planned. */
  at: number
}

/** A cable with the setups it still has to go through; `last`: not before all others are done and nothing else is plugged in to soak. */
export type BenchCable = { id: string; setups: readonly Setup[]; last?: boolean }
/** A soak that is already running. */
export type Underway = { cable: string; setup: Setup; secondsLeft: number }

export type BenchOrder = {
  steps: BenchStep[]
  /** Plugs put in, all together, and the fewest that could be. */
  plugs: number
  fewest: number
  seconds: number
}

/** What hands take: common practice for planning only. */
const SECONDS_A_PLUG = 5
const SECONDS_A_READING = 10

type Job = {
  id: string
  last: boolean
  queue: Setup[]
  at: Setup | null
  soaking: { setup: Setup; until: number } | null
}

/**
 * Orders a session so that the fewest plugs are put in. While one cable soaks, the next is tested where the ports allow.
 *
 * Every cable goes through its setups along the path with the fewest plugs, one way or the other: which is the least there can be, as
 * another cable always costs both its ends. A soak holds its two ports; until it ends other cables take the setups that need
 * neither. Where that would cost a plug more, soaks are waited for instead.
 */
export function orderBench(cables: readonly BenchCable[], underway: readonly Underway[] = []): BenchOrder {
  const paths = new Map<string, Setup[]>()
  const queued = cables.map(({ id, setups, last = false }) => {
    const running = underway.find((each) => each.cable === id)
    // what soaks now is read, not plugged in again
    const ahead = running ? setups.filter((setup) => plugsBetween(setup, running.setup) > 0) : setups
    const at = running?.setup ?? null
    return { id, last, path: bestPath(ahead, at, paths), at }
  })
  const fewest = queued.reduce((sum, { path, at }) => sum + (path.length > 0 ? plugsOver(path, at) : 0), 0)
  const together = simulate(queued, underway, 'together')
  if (together.plugs <= fewest) return { ...together, fewest }
  return { ...simulate(queued, underway, 'one by one'), fewest }
}

/** Cables with the same setups before them share one search. */
function bestPath(setups: readonly Setup[], at: Setup | null, known: Map<string, Setup[]>): Setup[] {
  const from = at ? String(portsOf(at)) : ''
  const key = [from, ...setups.map((setup) => `${portsOf(setup)} ${setup.tests.map((test) => test.id)}`)].join('|')
  const found = known.get(key)
  if (found) return found
  const path = fewestPlugs(setups, at)
  known.set(key, path)
  return path
}

function simulate(
  queued: readonly { id: string; last: boolean; path: readonly Setup[] }[],
  underway: readonly Underway[],
  manner: 'together' | 'one by one',
): Omit<BenchOrder, 'fewest'> {
  const jobs: Job[] = queued.map(({ id, last, path }) => {
    const running = underway.find((each) => each.cable === id)
    return {
      id,
      last,
      queue: [...path],
      at: running?.setup ?? null,
      soaking: running ? { setup: running.setup, until: running.secondsLeft } : null,
    }
  })
  const steps: BenchStep[] = []
  let now = 0
  let plugs = 0
  for (;;) {
    const soaking = jobs.filter((job) => job.soaking)
    const over = soaking.find((job) => (job.soaking?.until ?? 0) <= now)
    if (over?.soaking) {
      steps.push({ kind: 'read', cable: over.id, setup: over.soaking.setup, plug: [], at: now })
      over.soaking = null
      now += SECONDS_A_READING
      continue
    }
    const next = manner === 'one by one' && soaking.length > 0 ? null : nextJob(jobs)
    if (!next) {
      if (soaking.length === 0) break
      now = Math.min(...soaking.map((job) => job.soaking?.until ?? 0))
      continue
    }
    const { job, queue } = next
    const [setup, ...rest] = queue as [Setup, ...Setup[]]
    const plug = endsToPlug(job.at, setup)
    steps.push({ kind: 'attend', cable: job.id, setup, plug, at: now })
    plugs += plug.length
    now += plug.length * SECONDS_A_PLUG + quickTests(setup) * SECONDS_A_READING
    liftOthers(jobs, job, setup)
    job.at = setup
    job.queue = rest
    const soak = soakOf(setup)
    if (soak > 0) job.soaking = { setup, until: now + soak }
  }
  return { steps, plugs, seconds: now }
}

const quickTests = (setup: Setup): number =>
  setup.tests.filter((test) => test.kind !== 'link' || test.soak === 0).length

function endsToPlug(at: Setup | null, setup: Setup): ('from' | 'to')[] {
  if (at === null) return ['from', 'to']
  const [from, to] = portsOf(at)
  const [nextFrom, nextTo] = portsOf(setup)
  return [...(from === nextFrom ? [] : (['from'] as const)), ...(to === nextTo ? [] : (['to'] as const))]
}

/** The cable to go on with: one already begun before a new one, and of a new one's two directions the one whose first ports are free. */
function nextJob(jobs: readonly Job[]): { job: Job; queue: Setup[] } | null {
  const held = new Set(jobs.flatMap((job) => (job.soaking ? portsOf(job.soaking.setup) : [])))
  const isFree = (setup: Setup | undefined): boolean =>
    setup !== undefined && portsOf(setup).every((port) => !held.has(port))
  const others = jobs.some((job) => !job.last && (job.soaking !== null || job.queue.length > 0))
  const ready = jobs.filter((job) => job.soaking === null && job.queue.length > 0 && !(job.last && others))
  const begun = ready.filter((job) => job.at !== null && isFree(job.queue[0]))
  const smooth = begun.find((job) => !disturbs(jobs, job, job.queue[0] as Setup))
  if (smooth) return { job: smooth, queue: smooth.queue }
  for (const job of ready) {
    if (job.at !== null) continue
    for (const queue of [job.queue, [...job.queue].reverse()]) {
      if (isFree(queue[0]) && !disturbs(jobs, job, queue[0] as Setup)) return { job, queue }
    }
  }
  // nothing goes smoothly any more: rather a plug too many than a session that stands still
  const [stuck] = begun
  if (stuck && !jobs.some((job) => job.soaking)) return { job: stuck, queue: stuck.queue }
  return null
}

/** Whether plugging in here would pull out an end that another cable could have left in for its next setup. */
function disturbs(jobs: readonly Job[], self: Job, setup: Setup): boolean {
  const wanted = new Set(portsOf(setup))
  return jobs.some((job) => {
    const [next] = job.queue
    if (job === self || job.at === null || next === undefined || job.soaking) return false
    if (!portsOf(job.at).some((port) => wanted.has(port))) return false
    return plugsBetween(job.at, next) < 2
  })
}

/** A cable whose ports are taken over lies on the bench: it starts anew with both ends. */
function liftOthers(jobs: readonly Job[], self: Job, setup: Setup): void {
  const taken = new Set(portsOf(setup))
  for (const job of jobs) {
    if (job !== self && job.at !== null && !job.soaking && portsOf(job.at).some((port) => taken.has(port)))
      job.at = null
  }
}
