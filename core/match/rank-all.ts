import type { Aspect, RunToJudge } from '../checks/aspect'
import { assessRun, walkNeeds } from '../checks/assess'
import { aspects, checks } from '../checks/checks'
import { GRADES, type Verdict } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { type Spots, spotsOf } from '../checks/spots'
import { captiveLength } from '../link/captive'
import { factsOf } from '../link/lay'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { gradeFacts } from '../standards/grades'
import type { Cable } from '../vocabulary/cable'
import type { Run } from '../vocabulary/run'
import { isOffered, plugsInto } from './rank'

/** The drawer ranked for one run: positions in `cables`, best first, and the verdict on each. */
export type Ranked = { order: Uint32Array; grades: Uint8Array }
export type Ranking = { cables: readonly Cable[]; byRun: ReadonlyMap<string, Ranked> }

/** Index into GRADES as `Ranked.grades` keeps it. */
export const gradeAt = (ranked: Ranked, place: number): Verdict => GRADES[ranked.grades[place] ?? 0] as Verdict

/** What the verdict on a pair is, apart from whether the lead reaches: it repeats over leads and runs that are alike. */
type Rest = { grade: Verdict; blocks: number }

/**
 * Every cable ranked for every run: the same order as `rankCables` gives run by run.
 *
 * A verdict depends on a lead's length only through whether it spans the route and between which limits of its reach it lies. So leads of one kind and one
 * such interval are judged once for all runs that are alike. Only the span is looked at pair by pair. The
 * drawer is sorted once by what breaks ties, and each run deals it into the classes of its order.
 */
export function rankAll(index: SiteIndex): Ranking {
  const { cables } = drawerOf(index)
  const { crossings } = walkNeeds(index)
  const byRun = new Map<string, Ranked>()
  for (const run of index.plan.runs) byRun.set(run.id, rankedFor(index, run, crossings.get(run.id) ?? []).ranked)
  return { cables, byRun }
}

/** Every cable ranked for one run, which need not be laid yet: best first, as `rankCables` has them. */
export function rankRun(index: SiteIndex, run: Run, crossed: readonly Crossing[]): Cable[] {
  const { cables, ranked } = rankedFor(index, run, crossed)
  return Array.from(ranked.order, (at) => cables[at] as Cable)
}

/**
 * The cables that lie in no run and do the job of one, clear or tight, best first, of which so many at most. `taken` says which lie in runs that the
 * index, of a part of a site, does not know.
 */
export function freeCables(
  index: SiteIndex,
  run: Run,
  crossed: readonly Crossing[],
  most: number,
  taken: SiteIndex['runOf'] = index.runOf,
): { cable: Cable; grade: Verdict }[] {
  const { cables, ranked } = rankedFor(index, run, crossed)
  const found: { cable: Cable; grade: Verdict }[] = []
  for (let place = 0; place < ranked.order.length && found.length < most; place += 1) {
    const grade = gradeAt(ranked, place)
    if (grade === 'blocked') break
    const cable = cables[ranked.order[place] as number] as Cable
    if (!index.runOf.has(cable.id) && !taken.has(cable.id)) found.push({ cable, grade })
  }
  return found
}

/** The free cables that do not do the job of one run alone, the nearest to it first, so many at most: with something else beside them they may. */
export function nearestFree(
  index: SiteIndex,
  run: Run,
  crossed: readonly Crossing[],
  most: number,
  taken: SiteIndex['runOf'] = index.runOf,
): Cable[] {
  const { cables, ranked } = rankedFor(index, run, crossed)
  const found: Cable[] = []
  for (let place = 0; place < ranked.order.length && found.length < most; place += 1) {
    if (gradeAt(ranked, place) !== 'blocked') continue
    const cable = cables[ranked.order[place] as number] as Cable
    if (!index.runOf.has(cable.id) && !taken.has(cable.id)) found.push(cable)
  }
  return found
}

/** The best cable that does the job of a run and lies in another one; null where none does. */
export function bestLaidElsewhere(
  index: SiteIndex,
  run: Run,
  crossed: readonly Crossing[],
): { cable: Cable; run: Run } | null {
  const { cables, ranked } = rankedFor(index, run, crossed)
  for (let place = 0; place < ranked.order.length; place += 1) {
    if (gradeAt(ranked, place) === 'blocked') return null
    const cable = cables[ranked.order[place] as number] as Cable
    const laid = index.runOf.get(cable.id)
    if (laid && laid.id !== run.id) return { cable, run: laid }
  }
  return null
}

function rankedFor(index: SiteIndex, run: Run, crossed: readonly Crossing[]) {
  const drawer = drawerOf(index)
  const { cables, told, spots } = drawer
  const asked: RunToJudge = { index, run, crossed, spots }
  const likeness = likenessOf(asked)
  const rests = told.get(likeness) ?? []
  if (told.size >= MOST_TOLD) told.clear()
  told.set(likeness, rests)
  return { cables, ranked: rankOne(asked, drawer, rests) }
}

type Rests = (Rest | null | undefined)[]
type Drawer = {
  cables: readonly Cable[]
  numbers: readonly number[]
  /** What runs that are alike have been told already. */
  told: Map<string, Rests>
  spots: Spots
}
/** So many sorts of runs are remembered. */
const MOST_TOLD = 3000
const drawers = new WeakMap<SiteIndex['learned'], { index: SiteIndex; drawer: Drawer }>()

/** The drawer in the order that breaks ties, and of which sort each cable is. It is kept for as long as nothing that it follows from is another. */
function drawerOf(index: SiteIndex): Drawer {
  const found = drawers.get(index.learned)
  const { plan } = index
  if (found && found.index.plan.policy === plan.policy && sameCables(found.index, index)) return found.drawer
  const cables = plan.cables
    .filter((cable) => isOffered(index, cable))
    .sort(
      (one, other) =>
        markedOf(index, one) - markedOf(index, other) || one.length - other.length || (one.tag < other.tag ? -1 : 1),
    )
  const drawer: Drawer = {
    cables,
    numbers: numbered(cables.map((cable) => sortOf(index, cable))),
    told: new Map(),
    spots: spotsOf(index, cables),
  }
  drawers.set(index.learned, { index, drawer })
  return drawer
}

/** Whether two plans have the same cables of the same kinds; what else is in the catalogue bears on none of them. */
const sameCables = (one: SiteIndex, other: SiteIndex): boolean =>
  one.cables === other.cables &&
  (one.kinds === other.kinds ||
    [...one.cablesOfKind.keys()].every((kind) => one.kinds.get(kind) === other.kinds.get(kind)))

/** Deals the drawer, already in the order that breaks ties, into classes by verdict, blocks, whether it lies elsewhere, and pairing. */
function rankOne(asked: RunToJudge, { cables, numbers }: Drawer, rests: Rests): Ranked {
  const { index, run, crossed } = asked
  // the own leads of the devices span a part of it
  const own = captiveLength(index, run)
  const route = run.route.length - own
  const wanted = leadFor(run.route.length, index.plan.policy) - own
  const classes = new Map<number, number[]>()
  const lost = run.route.follows === true && !run.route.legs
  const unlike = new Set(aspects.flatMap(({ leadsUnlike }) => [...(leadsUnlike?.(asked) ?? [])]))
  const likeNone = aspects.some(({ isRunUnlike }) => isRunUnlike?.(index, run))
  for (const [at, cable] of cables.entries()) {
    const number = numbers[at] as number
    const alone = number < 0 || likeNone || unlike.has(cable.id)
    let rest = alone ? undefined : rests[number]
    if (rest === undefined) {
      rest = judge(index, run, crossed, cable)
      if (!alone) rests[number] = rest
    }
    if (rest === null) continue
    const short = !atLeast(cable.length, route)
    const grade =
      short || rest.grade === 'blocked' ? 0 : lost || !atLeast(cable.length, wanted) || rest.grade === 'tight' ? 1 : 2
    const blocks = rest.blocks + (short ? 1 : 0)
    const laidIn = index.runOf.get(cable.id)
    const elsewhere = laidIn !== undefined && laidIn.id !== run.id ? 1 : 0
    const supplied = cable.suppliedWith === run.from.device || cable.suppliedWith === run.to.device ? 0 : 1
    const key = (2 - grade) * 10_000 + blocks * 4 + elsewhere * 2 + supplied
    const list = classes.get(key)
    if (list) list.push(at)
    else classes.set(key, [at])
  }
  const keys = [...classes.keys()].sort((one, other) => one - other)
  const order = Uint32Array.from(keys.flatMap((key) => classes.get(key) ?? []))
  const grades = new Uint8Array(order.length)
  let place = 0
  for (const key of keys) {
    const count = classes.get(key)?.length ?? 0
    grades.fill(2 - Math.floor(key / 10_000), place, place + count)
    place += count
  }
  return { order, grades }
}

/** The verdict without the span; null where the cable does not plug into both ports. */
function judge(index: SiteIndex, run: Run, crossed: readonly Crossing[], cable: Cable): Rest | null {
  if (!plugsInto(cable, socketAt(index, run.from).port, socketAt(index, run.to).port)) return null
  const { findings } = assessRun(index, { ...run, leads: [{ cable: cable.id, reversed: false }] }, crossed)
  const others = findings.filter(({ check }) => !PAIRWISE.has(check))
  const blocks = others.filter((finding) => finding.grade === 'blocked').length
  return {
    grade: blocks > 0 ? 'blocked' : others.some((finding) => finding.grade === 'tight') ? 'tight' : 'clear',
    blocks,
  }
}

const markedOf = (index: SiteIndex, cable: Cable): number => {
  const grade = factsOf(index, cable).known.grade.value
  return grade === null ? 0 : gradeFacts[grade].marked
}

/** Checks whose word is looked at pair by pair: a lead spans a route or it does not. */
const PAIRWISE: ReadonlySet<string> = new Set(
  checks.flatMap(({ name, reads }) => (reads.some(({ isPairwise }: Aspect) => isPairwise) ? [name] : [])),
)

/** Leads of one sort are judged alike; null for one that is like no other. */
const sortOf = (index: SiteIndex, cable: Cable): string | null =>
  aspects.some(({ isLeadUnlike }) => isLeadUnlike?.(index, cable))
    ? null
    : JSON.stringify(aspects.map(({ ofLead }) => ofLead?.(index, cable)))

/** A small number for each sort; -1 for what is like no other. */
function numbered(sorts: readonly (string | null)[]): number[] {
  const numbers = new Map<string, number>()
  return sorts.map((sort) => {
    if (sort === null) return -1
    const known = numbers.get(sort) ?? numbers.size
    numbers.set(sort, known)
    return known
  })
}

/** What of a run its verdicts follow from, apart from the length of its route and from names. */
const likenessOf = (asked: RunToJudge): string => JSON.stringify(aspects.map(({ ofRun }) => ofRun?.(asked)))
