import type { Touched } from '../change/change'
import { touchedBetween } from '../change/touched'
import { learntOfCable } from '../observe/learned'
import { pairOf } from '../observe/spot'
import { findPath, type Step } from '../path/find-path'
import { type Entity, type EntityList, entityLists, isPlanList } from '../plan/entity'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { indexPlan, type SiteIndex, sharesSection } from '../plan/site-index'
import type { Bearing } from '../vocabulary/list'
import type { Run } from '../vocabulary/run'
import { finished, type Steps } from '../work/steps'
import { type Assessed, assessInSteps, assessRun, crossingsOn, needVerdict, type RunVerdict } from './assess'

/**
 * The assessment of a plan that was made from an assessed one by changes. Only runs that what they touched bears on are judged again, with the needs
 * that cross them; the answer is the one that assessing anew gives. `observed` are the cables and runs of which something was learnt, where the
 * observations themselves are not at hand.
 */
export const reassess = (before: Assessed, plan: Plan, observed: readonly Touched[] = []): Assessed =>
  finished(reassessInSteps(before, plan, observed))

/** The same a little at a time, where a change bears on everything. */
export function* reassessInSteps(before: Assessed, plan: Plan, observed: readonly Touched[] = []): Steps<Assessed> {
  if (plan === before.index.plan) return before
  // what a site goes by, and whether it is one to practise on, bears on everything
  if (plan.policy !== before.index.plan.policy || plan.site.practice !== before.index.plan.site.practice)
    return yield* assessInSteps(plan)
  const index = indexPlan(plan)
  const asked: Asked = { before: before.index, after: index, runs: new Set(), needs: new Set(), anyWay: false }
  for (const each of [...touchedBetween(before.index.plan, plan), ...observed]) mark(asked, each)

  const paths = new Map(before.walks.paths)
  const repathed = new Set([...asked.needs, ...(asked.anyWay ? plan.needs.map(({ id }) => id) : [])])
  for (const id of repathed) {
    const need = index.needs.get(id)
    const old = paths.get(id) ?? null
    const steps = need ? findPath(index, need) : null
    if (need) paths.set(id, steps)
    else paths.delete(id)
    if (asked.needs.has(id) || !sameWay(old, steps)) {
      asked.needs.add(id)
      for (const { run } of [...(old ?? []), ...(steps ?? [])]) asked.runs.add(run.id)
    }
  }
  for (const id of before.walks.paths.keys()) if (!index.needs.has(id)) paths.delete(id)
  // what a run passes on, how many hubs lie on a way and what its ports speak bears on every run of a need's way
  for (const [id, steps] of crossingAny(paths, asked.runs)) {
    asked.needs.add(id)
    // a run that was changed in place is another value of the same id
    paths.set(
      id,
      steps.map((step) => ({ ...step, run: index.runs.get(step.run.id) ?? step.run })),
    )
  }
  for (const id of asked.needs) for (const { run } of paths.get(id) ?? []) asked.runs.add(run.id)
  // and what crosses those is weighed with it
  for (const [id] of crossingAny(paths, asked.runs)) asked.needs.add(id)

  const crossings = new Map(before.walks.crossings)
  const crossing = plan.needs.filter(({ id }) => asked.needs.has(id))
  const fresh = crossingsOn(index, paths, crossing, (run) => asked.runs.has(run))
  for (const id of asked.runs) {
    const list = fresh.get(id)
    if (list) crossings.set(id, list)
    else crossings.delete(id)
  }
  const runs = yield* keptOr(before.assessment.runs, plan.runs, asked.runs, (run) =>
    assessRun(index, run, crossings.get(run.id) ?? []),
  )
  const onWays = new Set([...asked.needs].flatMap((id) => (paths.get(id) ?? []).map(({ run }) => run.id)))
  const verdicts = new Map<string, RunVerdict>()
  for (const verdict of runs) if (onWays.has(verdict.id)) verdicts.set(verdict.id, verdict)
  const needs = yield* keptOr(before.assessment.needs, plan.needs, asked.needs, (need) =>
    needVerdict(index, need, paths.get(need.id) ?? null, verdicts),
  )
  return { index, walks: { paths, crossings }, assessment: { runs, needs } }
}

function* crossingAny(
  paths: ReadonlyMap<string, readonly Step[] | null>,
  runs: ReadonlySet<string>,
): Iterable<[string, readonly Step[]]> {
  for (const [id, steps] of paths) if (steps?.some(({ run }) => runs.has(run.id))) yield [id, steps]
}

/** Verdicts worked out in one step. */
const AT_A_STEP = 20

/** A verdict for each item: the one there was, unless it is asked for or there was none. */
function* keptOr<Verdict extends { id: string }, Item extends { id: string }>(
  before: readonly Verdict[],
  items: readonly Item[],
  asked: ReadonlySet<string>,
  work: (item: Item) => Verdict,
): Steps<Verdict[]> {
  const verdicts: Verdict[] = []
  let worked = 0
  for (const [at, item] of items.entries()) {
    // lists that only grow keep the places of what they had
    const old = before[at]?.id === item.id ? before[at] : byId(before).get(item.id)
    if (old && !asked.has(item.id)) {
      verdicts.push(old)
      continue
    }
    verdicts.push(work(item))
    worked += 1
    if (worked % AT_A_STEP === 0) yield
  }
  return verdicts
}

type Asked = {
  before: SiteIndex
  after: SiteIndex
  runs: Set<string>
  needs: Set<string>
  /** Ports or the ways between them changed, so that any need may take another way. */
  anyWay: boolean
}

function mark(asked: Asked, { list, id, moved }: Touched): void {
  const { bears } = planListOf(list)
  const entity = [asked.before, asked.after].flatMap(({ plan }) =>
    isPlanList(list) ? (byId<Item>(plan[list]).get(id) ?? []) : [],
  )[0]
  // what is learnt of it may be told of something whose list the browser does not hold
  bears?.(bearingOf(asked), (entity ?? { id }) as never, moved === true)
}

type Item = { id: string }
const planListOf = (list: Touched['list']): EntityList<Entity> => entityLists[list] as EntityList<Entity>

/** How a change is borne on: by what was there before it and after it. */
const bearingOf = (asked: Asked): Bearing => {
  const { before, after } = asked
  return {
    place(id) {
      for (const index of [before, after])
        for (const device of index.plan.devices) if (device.place === id) markDevice(asked, device.id)
    },
    device(id) {
      asked.anyWay = true
      markDevice(asked, id)
      for (const need of after.plan.needs) if (need.from === id || need.to === id) asked.needs.add(need.id)
    },
    pathway(id) {
      for (const index of [before, after]) for (const run of index.runsAlong.get(id) ?? []) asked.runs.add(run.id)
    },
    kind: (id) => markKind(asked, id),
    cable: (id) => markCable(asked, id),
    run(id, moved) {
      markRun(asked, before.runs.get(id))
      markRun(asked, after.runs.get(id))
      asked.anyWay ||= moved || !sameEnds(before.runs.get(id), after.runs.get(id))
    },
    onlyRun: (id) => void asked.runs.add(id),
    need: (id) => void asked.needs.add(id),
  }
}

/** A cable is the limit where another copies clearly faster between the same two sockets. */
function markRivals({ before, after, runs }: Asked, id: string): void {
  for (const { learned, runOf } of [before, after])
    for (const { way, spot } of learntOfCable(learned, id)?.copies ?? [])
      for (const [rival] of learned.copied.get(`${way} ${pairOf(spot)}`) ?? []) {
        const laid = runOf.get(rival)
        if (laid) runs.add(laid.id)
      }
}

/** A device bears on all runs at it: its ports, its pool, its place, its battery. */
function markDevice(asked: Asked, id: string): void {
  for (const index of [asked.before, asked.after]) for (const run of index.runsAt.get(id) ?? []) asked.runs.add(run.id)
}

/** A run bears on its neighbours at both devices, which share ports and pools with it. */
function markRun(asked: Asked, run: Run | undefined): void {
  if (!run) return
  asked.runs.add(run.id)
  for (const { device } of [run.from, run.to]) markDevice(asked, device)
  markConduits(asked, run)
}

/** A run bears on those that lie in one conduit or tray with it, where somebody counts what is in it. */
function markConduits({ before, after, runs }: Asked, run: Run | undefined): void {
  for (const index of run ? [before, after] : [])
    for (const other of sharesSection(index, run as Run)) runs.add(other.id)
}

function markKind(asked: Asked, id: string): void {
  for (const index of [asked.before, asked.after])
    for (const cable of index.cablesOfKind.get(id) ?? []) markCable(asked, cable.id)
  markToBuy(asked, id)
}

/** A cable bears on the run it lies in, and as part of its kind's record on all runs with cables of that kind. */
function markCable(asked: Asked, id: string): void {
  markRivals(asked, id)
  for (const index of [asked.before, asked.after]) {
    const run = index.runOf.get(id)
    if (run) asked.runs.add(run.id)
    markConduits(asked, run)
    const kind = index.cables.get(id)?.kind
    for (const sibling of kind ? (index.cablesOfKind.get(kind) ?? []) : []) {
      const laid = index.runOf.get(sibling.id)
      if (laid) asked.runs.add(laid.id)
    }
    if (kind) markToBuy(asked, kind)
  }
}

/** Runs with a lead of the kind that is yet to be had. */
function markToBuy({ before, after, runs }: Asked, kind: string): void {
  for (const index of [before, after]) for (const run of index.runsOfKind.get(kind) ?? []) runs.add(run.id)
}

const sameEnds = (one: Run | undefined, other: Run | undefined): boolean =>
  one !== undefined &&
  other !== undefined &&
  one.from.device === other.from.device &&
  one.from.port === other.from.port &&
  one.to.device === other.to.device &&
  one.to.port === other.to.port

const sameWay = (one: readonly Step[] | null, other: readonly Step[] | null): boolean =>
  one === other ||
  (one !== null &&
    other !== null &&
    one.length === other.length &&
    one.every((step, at) => step.run.id === other[at]?.run.id && step.way === other[at]?.way))
