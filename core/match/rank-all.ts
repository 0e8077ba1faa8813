import { assessRun, walkNeeds } from '../checks/assess'
import { GRADES, type Verdict } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { conditionsAlong } from '../checks/surroundings'
import { isWornInArea } from '../headset/area'
import { factsOf, knownOf, socketInUse } from '../link/lay'
import { wasTried } from '../observe/known'
import { runRecords } from '../observe/learned'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import { atLeast, atMost } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { type Construction, gradeFacts } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import { bookReach, type LeadShape } from '../standards/reach'
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
 * A verdict depends on a lead's length only through whether it spans the route and between which limits of its reach it lies. So
 * leads of one kind and one such interval are judged once for all runs that are alike, and only the span is looked at pair by pair. The
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

function rankedFor(index: SiteIndex, run: Run, crossed: readonly Crossing[]) {
  const { cables, numbers, told, spots } = drawerOf(index)
  const likeness = likenessOf(index, run, crossed, spots)
  const rests = told.get(likeness) ?? []
  if (told.size >= MOST_TOLD) told.clear()
  told.set(likeness, rests)
  return { cables, ranked: rankOne(index, run, crossed, cables, numbers, rests) }
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
function rankOne(
  index: SiteIndex,
  run: Run,
  crossed: readonly Crossing[],
  cables: readonly Cable[],
  numbers: readonly number[],
  rests: Rests,
): Ranked {
  const route = run.route.length
  const wanted = leadFor(route, index.plan.policy)
  const classes = new Map<number, number[]>()
  const lost = run.route.follows === true && !run.route.legs
  const spoken = spokenOf(index, run)
  const measured = [run.from, run.to].some((end) => isWornInArea(index, socketAt(index, end).device))
  for (const [at, cable] of cables.entries()) {
    const number = numbers[at] as number
    const alone = number < 0 || measured || spoken.has(cable.id)
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
  const others = findings.filter((finding) => finding.check !== 'length')
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

/**
 * The cables of which something was seen in a socket of a run, or in that very run: of these a verdict depends on the run itself and not only on its sort,
 * which tells the controller, what is installed, and whether anything else is plugged in.
 */
function spokenOf(index: SiteIndex, run: Run): ReadonlySet<string> {
  const { spots } = drawerOf(index)
  const found = new Set([run.from, run.to].flatMap((end) => spots.byPort.get(portKey(end)) ?? []))
  for (const { leads } of runRecords(index.learned, run.id)) for (const lead of leads) found.add(lead)
  return found
}

/** The cables of which something was seen in each socket. */
function spotsOf(index: SiteIndex, cables: readonly Cable[]): Spots {
  const spots = new Map<string, string[]>()
  let [setup, alone] = [false, false]
  const note = (place: string | undefined, id: string): void => {
    if (place === undefined) return
    const list = spots.get(place)
    if (list) list.push(id)
    else spots.set(place, [id])
  }
  for (const cable of cables) {
    const { trials, copies, pictures, watts } = knownOf(index, cable)
    for (const { spot } of [...trials, ...copies, ...pictures, ...watts]) {
      note(spot.port, cable.id)
      note(spot.far, cable.id)
      setup ||= spot.setup !== undefined
      alone ||= spot.alone === true
    }
  }
  return { byPort: spots, setup, alone }
}

/** The cables of which something was seen in each socket; whether anything was seen with a setup noted, or with all else unplugged. */
type Spots = { byPort: ReadonlyMap<string, readonly string[]>; setup: boolean; alone: boolean }

/** Leads of one sort are judged alike; null for one that is like no other: its wire makes every centimetre count. */
function sortOf(index: SiteIndex, cable: Cable): string | null {
  if (cable.awg !== undefined) return null
  const { reach, known, shape } = factsOf(index, cable)
  const { fed, unfed } = reach
  const limits = [...fed.data, ...unfed.data, ...unfed.displayport, ...unfed.hdmi].map((row) => row.reach)
  const interval = between(cable.length, limits)
  const supplied = index.plan.policy.cables === 'supplied' ? cable.suppliedWith : null
  return JSON.stringify([
    cable.ends,
    cable.oneWay,
    cable.construction,
    cable.feed,
    cable.kind,
    known,
    cable.thickness,
    supplied,
    // what was tried counts up to a length that no row of its own grade tells
    wasTried(known) ? between(cable.length, booksOf(cable.construction, shape)) : null,
    interval,
  ])
}

/** How many limits a length is beyond. */
const between = (length: number, limits: readonly number[]): number =>
  limits.filter((limit) => !atMost(length, limit)).length

/** How long a lead of a build may be for each mode, whatever grade it turns out to be. */
const booksOf = (construction: Construction, shape: LeadShape): number[] =>
  LINK_MODES.flatMap((mode) => FEEDINGS.map((feeding) => bookReach(construction, shape, feeding, mode)))
const FEEDINGS = ['fed', 'unfed'] as const

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

/** What of a run a verdict may depend on, apart from the length of its route and from names. */
function likenessOf(index: SiteIndex, run: Run, crossed: readonly Crossing[], spots: Spots): string {
  const ends = [run.from, run.to].map((address) => {
    const { device, port } = socketInUse(index, address)
    const taken = (index.runsIn.get(portKey(address))?.length ?? 0) > 1
    const supplied = index.plan.policy.cables === 'supplied' ? device.id : null
    const mains = device.place ? index.places.get(device.place)?.mains : null
    const other = device.ports.some((each) => each.displayport?.direction === 'in')
    return [
      { ...port, id: '', name: '' },
      device.kind,
      device.battery,
      device.disk,
      device.busPowered,
      device.screen,
      spots.setup ? device.installed : null,
      spots.alone ? (index.runsAt.get(device.id) ?? []).some(({ id }) => id !== run.id) : null,
      taken,
      supplied,
      mains,
      other,
    ]
  })
  const needs = crossed.map(({ need, ...way }) => [
    { ...need, id: '', name: '', note: '', from: '', to: '', through: '' },
    [run.from.device, run.to.device].indexOf(need.to),
    way,
  ])
  return JSON.stringify([
    ends,
    needs,
    run.route.through,
    run.route.bend,
    run.route.conduit,
    conditionsAlong(index, run),
  ])
}
