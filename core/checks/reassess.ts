import type { Touched } from '../change/change'
import { touchedBetween } from '../change/touched'
import { besideOnController } from '../link/controller'
import { findPath, type Step } from '../path/find-path'
import { type Entity, type EntityList, entityLists, isPlanList } from '../plan/entity'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { indexPlan, type SiteIndex } from '../plan/site-index'
import type { Bearing } from '../vocabulary/list'
import type { Run } from '../vocabulary/run'
import { finished, type InSlices } from '../work/in-slices'
import { madeFrom } from '../work/kept'
import { patched } from '../work/patched-map'
import type { Aspect, Between } from './aspect'
import { type Assessed, assessInSlices, assessRun, crossingsOn, needVerdict, type Walks } from './assess'
import { aspects } from './checks'
import type { Crossing } from './situation'

/**
 * The assessment of a plan that was made from an assessed one by changes. Only runs that what they touched bears on are judged again, with the needs
 * that cross them; the answer is the one that assessing anew gives. `observed` are the cables and runs of which something was learnt, where the
 * observations themselves are not at hand. `by` is what the verdicts asked for follow from: all aspects, where nobody asks for those of some checks alone.
 */
export const reassess = (
  before: Assessed,
  plan: Plan,
  observed: readonly Touched[] = [],
  by: readonly Aspect[] = aspects,
): Assessed => finished(reassessInSlices(before, plan, observed, by))

/** The same a little at a time, where a change bears on everything. */
export function* reassessInSlices(
  before: Assessed,
  plan: Plan,
  observed: readonly Touched[] = [],
  by: readonly Aspect[] = aspects,
): InSlices<Assessed> {
  if (plan === before.index.plan) return before
  // what a site goes by, and whether it is one to practise on, bears on everything
  if (plan.policy !== before.index.plan.policy || plan.site.practice !== before.index.plan.site.practice)
    return yield* assessInSlices(plan)
  const index = indexPlan(plan)
  const site: Between = { before: before.index, after: index }
  const marked: Marked = { runs: new Set(), needs: new Set(), anyPath: false }
  for (const each of [...touchedBetween(before.index.plan, plan), ...observed]) mark(site, marked, by, each)

  const { changes, crossed } = pathsChanged(before, index, marked)
  // what a run passes on, how many hubs lie on a path and what its ports speak is told to every run of it
  for (const id of needsOn(before, changes, marked.runs)) {
    const steps = changes.get(id) ?? before.walks.paths.get(id) ?? []
    for (const { run } of steps) crossed.add(run.id)
    // a run that was changed in place is another value of the same id
    changes.set(
      id,
      steps.map((step) => ({ ...step, run: index.runs.get(step.run.id) ?? step.run })),
    )
  }
  for (const id of marked.runs) crossed.add(id)
  for (const id of besideOnControllers([before.index, index], crossed)) crossed.add(id)
  const paths = patched(before.walks.paths, changes)
  const crossings = patched(before.walks.crossings, crossingsChanged(before, index, paths, changes, crossed))
  for (const id of crossed) if (crossings.get(id) !== before.walks.crossings.get(id)) marked.runs.add(id)

  const runs = yield* keptOr(before.assessment.runs, plan.runs, marked.runs, (run) =>
    assessRun(index, run, crossings.get(run.id) ?? []),
  )
  for (const id of needsOn(before, changes, marked.runs)) marked.needs.add(id)
  const needs = yield* keptOr(before.assessment.needs, plan.needs, marked.needs, (need) =>
    needVerdict(index, need, paths.get(need.id) ?? null, byId(runs)),
  )
  return { index, walks: { paths, crossings }, assessment: { runs, needs } }
}

/** Runs that share a controller with some runs, before a change or after it. */
const besideOnControllers = (indexes: readonly SiteIndex[], runs: Iterable<string>): string[] =>
  [...runs].flatMap((id) =>
    indexes.flatMap((index) => {
      const run = index.runs.get(id)
      return run ? besideOnController(index, run).map((beside) => beside.id) : []
    }),
  )

/** Paths that are others than before; undefined of needs that are gone. */
type PathsChanged = Map<string, readonly Step[] | null | undefined>

/** The paths of needs that may take another, and the runs that those which do have left or come to. */
function pathsChanged(
  before: Assessed,
  index: SiteIndex,
  marked: Marked,
): { changes: PathsChanged; crossed: Set<string> } {
  const changes: PathsChanged = new Map()
  const crossed = new Set<string>()
  const sought = marked.anyPath ? [...marked.needs, ...index.plan.needs.map(({ id }) => id)] : marked.needs
  for (const id of new Set(sought)) {
    const need = index.needs.get(id)
    const old = before.walks.paths.get(id) ?? null
    const steps = need ? findPath(index, need) : null
    if (!marked.needs.has(id) && sameSteps(old, steps)) continue
    changes.set(id, need ? steps : undefined)
    marked.needs.add(id)
    for (const { run } of [...(old ?? []), ...(steps ?? [])]) crossed.add(run.id)
  }
  return { changes, crossed }
}

/** The needs that cross some runs now. */
function needsOn(before: Assessed, changes: PathsChanged, runs: ReadonlySet<string>): Set<string> {
  const found = new Set<string>()
  for (const id of runs)
    for (const { need } of before.walks.crossings.get(id) ?? []) if (!changes.has(need.id)) found.add(need.id)
  for (const [id, steps] of changes) if (steps?.some(({ run }) => runs.has(run.id))) found.add(id)
  return found
}

/** What crosses each of some runs, where it is something else than before. */
function crossingsChanged(
  before: Assessed,
  index: SiteIndex,
  paths: Walks['paths'],
  changes: PathsChanged,
  runs: ReadonlySet<string>,
): Map<string, readonly Crossing[] | undefined> {
  const crossing = needsOn(before, changes, runs)
  const needs = crossing.size > 0 ? index.plan.needs.filter(({ id }) => crossing.has(id)) : []
  const fresh = crossingsOn(index, paths, needs, (run) => runs.has(run))
  const changed = new Map<string, readonly Crossing[] | undefined>()
  for (const id of runs)
    if (!sameCrossings(before.walks.crossings.get(id), fresh.get(id))) changed.set(id, fresh.get(id))
  return changed
}

/** Verdicts worked out in one step. */
const AT_A_STEP = 20

/** A verdict for each item: the one there was, unless it is asked for or there was none. */
function* keptOr<Verdict extends { id: string }, Item extends { id: string }>(
  before: readonly Verdict[],
  items: readonly Item[],
  asked: ReadonlySet<string>,
  work: (item: Item) => Verdict,
): InSlices<readonly Verdict[]> {
  const verdicts: Verdict[] = []
  const replaced: [Verdict, Verdict][] = []
  let worked = 0
  let inPlace = items.length === before.length
  for (const [at, item] of items.entries()) {
    // lists that only grow keep the places of what they had
    const stayed = before[at]?.id === item.id
    inPlace &&= stayed
    const old = stayed ? before[at] : byId(before).get(item.id)
    if (old && !asked.has(item.id)) {
      verdicts.push(old)
      continue
    }
    const verdict = work(item)
    verdicts.push(verdict)
    if (old) replaced.push([old, verdict])
    worked += 1
    if (worked % AT_A_STEP === 0) yield
  }
  return inPlace
    ? madeFrom<Verdict, readonly Verdict[]>(before, verdicts, { replaced, added: [], removed: [], reordered: false })
    : verdicts
}

/** What has to be judged again. */
type Marked = {
  runs: Set<string>
  needs: Set<string>
  /** Ports or the paths between them changed, so that any need may take another path. */
  anyPath: boolean
}

function mark(site: Between, marked: Marked, by: readonly Aspect[], { list, id, moved }: Touched): void {
  const { bears } = planListOf(list)
  const entity = [site.before, site.after].flatMap(({ plan }) =>
    isPlanList(list) ? (byId<Item>(plan[list]).get(id) ?? []) : [],
  )[0]
  // what is learnt of it may be told of something whose list the browser does not hold
  bears?.(bearingOf(site, marked, by), (entity ?? { id }) as never, moved === true)
}

type Item = { id: string }

/** The lists as the assessment asks them, by name alone: what their entities are is theirs. */
const planListOf = (list: Touched['list']): EntityList<Entity> => entityLists[list] as EntityList<Entity>

/** What a change is borne on: the runs that any aspect of a verdict names, and the needs whose paths may be others. */
const bearingOf = (site: Between, marked: Marked, by: readonly Aspect[]): Bearing => {
  const ask = (event: keyof NonNullable<Aspect['bears']>, id: string): void => {
    for (const { bears } of by) for (const run of bears?.[event]?.(site, id) ?? []) marked.runs.add(run)
  }
  const { before, after } = site
  return {
    place: (id) => ask('place', id),
    device(id) {
      marked.anyPath = true
      ask('device', id)
      for (const need of after.plan.needs) if (need.from === id || need.to === id) marked.needs.add(need.id)
    },
    pathway: (id) => ask('pathway', id),
    kind: (id) => ask('kind', id),
    cable: (id) => ask('cable', id),
    run(id, moved) {
      ask('run', id)
      if (!moved && sameEnds(before.runs.get(id), after.runs.get(id))) return
      marked.anyPath = true
      ask('joined', id)
    },
    onlyRun: (id) => ask('runSeen', id),
    need(id) {
      marked.needs.add(id)
      ask('need', id)
    },
  }
}

const sameEnds = (one: Run | undefined, other: Run | undefined): boolean =>
  one !== undefined &&
  other !== undefined &&
  one.from.device === other.from.device &&
  one.from.port === other.from.port &&
  one.to.device === other.to.device &&
  one.to.port === other.to.port

const sameSteps = (one: readonly Step[] | null, other: readonly Step[] | null): boolean =>
  one === other ||
  (one !== null &&
    other !== null &&
    one.length === other.length &&
    one.every((step, at) => step.run.id === other[at]?.run.id && step.way === other[at]?.way))

const sameCrossings = (one: readonly Crossing[] = [], other: readonly Crossing[] = []): boolean =>
  one.length === other.length && one.every((crossing, at) => sameCrossing(crossing, other[at] as Crossing))

const sameCrossing = (one: Crossing, other: Crossing): boolean =>
  one.need === other.need &&
  one.way === other.way &&
  one.lastMile === other.lastMile &&
  one.hubs === other.hubs &&
  one.usb2 === other.usb2 &&
  one.disk === other.disk &&
  one.kept === other.kept &&
  one.overUsb === other.overUsb &&
  one.controller?.name === other.controller?.name &&
  one.controller?.carries === other.controller?.carries &&
  one.controller?.before.down === other.controller?.before.down &&
  one.controller?.before.up === other.controller?.before.up &&
  one.ends?.link === other.ends?.link &&
  one.ends?.lanes === other.ends?.lanes &&
  one.ends?.compression === other.ends?.compression
