import { dataLink } from '../link/data-link'
import { type Door, doorsOf, openingOf } from '../link/doors'
import { type LaidRun, laidOnce } from '../link/lay'
import { learnInSlices } from '../observe/learned'
import { findPath, type Step } from '../path/find-path'
import { streamRate } from '../picture/timing'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { indexPlan, leadCable, type SiteIndex, socketAt } from '../plan/site-index'
import type { BitsPerSecond } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import type { LinkMode } from '../standards/link-modes'
import { DISPLAYPORT_LINKS } from '../standards/picture-links'
import { isExtension, leadShape } from '../standards/reach'
import type { PictureEnds } from '../tunnel/tunnel'
import type { Need, NeedKind } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'
import { finished, type InSlices } from '../work/in-slices'
import { findingOf } from './check'
import { type CheckName, checks, type Finding, type Reason } from './checks'
import { type Part, type Verdict, worstOf } from './finding'
import { withControllers } from './on-controllers'
import { pathCheck } from './path'
import { type Crossing, leadPart, portPart, situationOf } from './situation'

/** A need as it walks through one run. */
export type Flow = {
  needId: string
  label: string
  kind: NeedKind
  way: 'down' | 'up'
  rate: BitsPerSecond | null
  watts: Watts | null
  grade: Verdict
  /** It gets through by its rate; power it also asks for may still be missing. */
  passes: boolean
}

export type RunVerdict = {
  id: string
  tag: string
  grade: Verdict
  findings: readonly Finding[]
  /** Its ports and leads from the host end on. */
  parts: readonly Part[]
  mode: LinkMode | null
  doors: readonly Door[]
  /** Which door is the narrowest; null where all are closed to data and pictures alike and power alone is asked. */
  narrowest: number | null
  flows: readonly Flow[]
}

export type NeedVerdict = {
  id: string
  grade: Verdict
  /** Ports and leads from its first device to its last; empty where there is no way. */
  path: readonly Part[]
  runs: readonly string[]
  findings: readonly Finding[]
}

export type Assessment = { runs: readonly RunVerdict[]; needs: readonly NeedVerdict[] }

/** The way of every need, and what therefore crosses each run. */
export type Walks = {
  paths: ReadonlyMap<string, readonly Step[] | null>
  crossings: ReadonlyMap<string, readonly Crossing[]>
}

/** An assessment with what it was worked out from, so that after a change only what it touched is worked out again. */
export type Assessed = { index: SiteIndex; walks: Walks; assessment: Assessment }

/**
 * The verdict on a whole plan: every run by its worst finding, every need by the worst on its path. Findings come in the order
 * of the checks; runs and needs in the order of the plan. Pure: the same plan gives the same assessment.
 */
export const assess = (plan: Plan): Assessment => assessAnew(plan).assessment

export const assessAnew = (plan: Plan): Assessed => finished(assessInSlices(plan))

/** The same a little at a time: between two steps, each of about a millisecond, a page can answer whoever uses it. */
export function* assessInSlices(plan: Plan): InSlices<Assessed> {
  yield* learnInSlices(plan)
  const index = indexPlan(plan)
  yield
  const walks = yield* walkInSlices(index)
  const runs: RunVerdict[] = []
  for (const run of plan.runs) {
    runs.push(assessRun(index, run, walks.crossings.get(run.id) ?? []))
    if (runs.length % AT_A_STEP === 0) yield
  }
  const verdicts = byId(runs)
  yield
  const needs: NeedVerdict[] = []
  for (const need of plan.needs) {
    needs.push(needVerdict(index, need, walks.paths.get(need.id) ?? null, verdicts))
    if (needs.length % AT_A_STEP === 0) yield
  }
  return { index, walks, assessment: { runs, needs } }
}

/** Runs or needs worked out in one step. */
const AT_A_STEP = 20

function* walkInSlices(index: SiteIndex): InSlices<Walks> {
  const paths = new Map<string, readonly Step[] | null>()
  for (const need of index.plan.needs) {
    paths.set(need.id, findPath(index, need))
    if (paths.size % AT_A_STEP === 0) yield
  }
  return { paths, crossings: crossingsOn(index, paths, index.plan.needs, () => true) }
}

export const walkNeeds = (index: SiteIndex): Walks => finished(walkInSlices(index))

/** Which of some needs cross each of the runs asked for, in the order of the needs. Runs on one controller are asked for together. */
export function crossingsOn(
  index: SiteIndex,
  paths: Walks['paths'],
  needs: Iterable<Need>,
  asked: (run: string) => boolean,
): ReadonlyMap<string, Crossing[]> {
  const crossings = new Map<string, Crossing[]>()
  for (const need of needs) {
    const steps = paths.get(need.id) ?? []
    if (!steps.some(({ run }) => asked(run.id))) continue
    const ends = need.kind === 'picture' && steps.length > 0 ? pictureEnds(index, steps) : undefined
    const hubs = hubsAlong(index, steps)
    const disk = need.kind === 'storage' ? diskOf(index, need) : undefined
    for (const [at, { run, way }] of steps.entries()) {
      if (!asked(run.id)) continue
      const lastMile = way === 'down' ? at === steps.length - 1 : at === 0
      const list = crossings.get(run.id)
      const usb2 = !lastMile && speaksOnPair(need) && isUsb2Beyond(index, steps, at)
      const kept = need.kind === 'power' ? keptBeyond(index, steps, at) : 0
      const overUsb = need.kind === 'picture' ? madeOverUsb(index, steps[at] as Step) : undefined
      const crossing: Crossing = { need, way, lastMile, ends, hubs, usb2, disk, kept, overUsb }
      if (list) list.push(crossing)
      else crossings.set(run.id, [crossing])
    }
  }
  return withControllers(index, crossings)
}

/** The disk that a storage need writes to and reads from, where it was described. */
const diskOf = (index: SiteIndex, { from, to }: Need): Crossing['disk'] =>
  index.devices.get(to)?.disk ?? index.devices.get(from)?.disk

/** What a picture takes of a run as data, where the dock it comes to makes it over plain USB. */
const madeOverUsb = (index: SiteIndex, { run, way }: Step): BitsPerSecond | undefined =>
  way === 'down' ? index.devices.get(run.to.device)?.pictureOverUsb : undefined

/** What hubs without a supply keep of the power that goes over a run of a path, further on. */
const keptBeyond = (index: SiteIndex, steps: readonly Step[], at: number): Watts =>
  steps
    .slice(at, -1)
    .reduce((sum, { run, way }) => sum + (index.devices.get(run[way === 'down' ? 'to' : 'from'].device)?.keeps ?? 0), 0)

const speaksOnPair = ({ kind }: Need): boolean => kind !== 'picture' && kind !== 'power'

/** Whether a run between one of a path and its device end comes up as USB 2.0: the device is one of USB 2.0 for every hub before it. */
function isUsb2Beyond(index: SiteIndex, steps: readonly Step[], at: number): boolean {
  const here = steps[at]
  const beyond = here?.way === 'down' ? steps.slice(at + 1) : steps.slice(0, at)
  return beyond.some(
    ({ run, way }) => way === here?.way && dataLink(laidOnce(index, run), index.plan.policy).mode === 'usb2',
  )
}

/** Hubs and docks between the ends of a way, active extensions, and a hub for each pair of extender ends. */
function hubsAlong(index: SiteIndex, steps: readonly Step[]): number {
  let hubs = 0
  for (const [at, { run, way }] of steps.entries()) {
    for (const named of run.leads) {
      const { construction, ends } = leadCable(index, named)
      if (construction === 'active' && isExtension(leadShape(ends))) hubs += 1
    }
    const reached = index.devices.get(way === 'down' ? run.to.device : run.from.device)
    if (at === steps.length - 1) continue
    if (reached?.kind === 'hub' || reached?.kind === 'dock') hubs += 1
    if (reached?.kind === 'extender') hubs += 0.5
  }
  return Math.ceil(hubs)
}

/** The DisplayPort link that all ports along a picture's way allow; undefined where none of them names one. */
function pictureEnds(index: SiteIndex, steps: readonly Step[]): PictureEnds | undefined {
  const named = steps
    .flatMap(({ run }) => [socketAt(index, run.from).port, socketAt(index, run.to).port])
    .flatMap(({ displayport }) => (displayport ? [displayport] : []))
  if (named.length === 0) return undefined
  const link = DISPLAYPORT_LINKS[Math.min(...named.map((each) => DISPLAYPORT_LINKS.indexOf(each.link)))]
  const lanes = Math.min(...named.map((each) => each.lanes)) as PictureEnds['lanes']
  return link && { link, lanes, compression: named.every((each) => each.compression) }
}

/** The verdict on one run with what crosses it. */
export function assessRun(index: SiteIndex, run: Run, crossings: readonly Crossing[]): RunVerdict {
  const situation = situationOf(index, run, crossings)
  // a plain loop: this is the innermost step of everything
  const findings: Finding[] = []
  for (const check of checks)
    for (const found of check.find(situation)) findings.push(findingOf<CheckName, Reason>(check, found))
  const kinds = new Set(crossings.map(({ need }) => need.kind))
  const doors = doorsOf(situation.laid, situation.data, situation.picture.link, situation.policy, kinds)
  return {
    id: run.id,
    tag: run.tag,
    grade: worstOf(findings),
    findings,
    parts: partsOf(situation.laid),
    mode: situation.data.mode,
    doors,
    narrowest: narrowestDoor(doors, crossings),
    flows: crossings.map((crossing) =>
      flowOf(
        crossing,
        findings.filter((finding) => bearsOn(finding, crossing.need.id)),
      ),
    ),
  }
}

function flowOf({ need, way }: Crossing, findings: readonly Finding[]): Flow {
  return {
    needId: need.id,
    label: need.name ?? need.kind,
    kind: need.kind,
    way,
    rate: need.kind === 'picture' ? streamRate(need.mode) : 'rate' in need ? need.rate : null,
    watts: ('watts' in need ? need.watts : undefined) ?? null,
    grade: worstOf(findings),
    passes: findings.every(({ grade, check }) => grade !== 'blocked' || check === 'current'),
  }
}

/** The smallest opening for what crosses: by watts where only power does, by rate otherwise. A lead rather than a port where they tie. */
function narrowestDoor(doors: readonly Door[], crossings: readonly Crossing[]): number | null {
  const powerOnly = crossings.length > 0 && crossings.every(({ need }) => need.kind === 'power')
  const width = powerOnly ? (door: Door) => door.watts : openingOf
  if (doors.every((door) => width(door) === 0)) return null
  let narrowest = 0
  for (const [at, door] of doors.entries()) {
    const current = doors[narrowest]
    if (!current) continue
    const less = width(door) < width(current)
    const tiedLead = width(door) === width(current) && door.kind === 'lead' && current.kind === 'port'
    if (less || tiedLead) narrowest = at
  }
  return narrowest
}

/** Findings about a need itself, and those that bear on whatever crosses the run. */
const bearsOn = (finding: Finding, needId: string): boolean => finding.needId === undefined || finding.needId === needId

/** The verdict on one need by what it meets on its way; null steps: there is no way. */
export function needVerdict(
  index: SiteIndex,
  need: Need,
  steps: readonly Step[] | null,
  runs: ReadonlyMap<string, RunVerdict>,
): NeedVerdict {
  if (steps === null) {
    const findings = Array.from(pathCheck.find({ index, need }), (found) => findingOf(pathCheck, found))
    return { id: need.id, grade: 'blocked', path: [], runs: [], findings }
  }
  const findings: Finding[] = []
  const path: Part[] = []
  for (const { run, way } of steps) {
    const verdict = runs.get(run.id)
    if (!verdict) continue
    for (const finding of verdict.findings) if (bearsOn(finding, need.id)) findings.push(finding)
    path.push(...(way === 'down' ? verdict.parts : [...verdict.parts].reverse()))
  }
  const told = narrowestBand(findings)
  return { id: need.id, grade: worstOf(told), path, runs: steps.map(({ run }) => run.id), findings: told }
}

/** Each run on a path tells what a disk comes to over it; over the whole path it comes to the least of them. */
function narrowestBand(findings: readonly Finding[]): readonly Finding[] {
  const bands = findings.filter(({ check }) => check === 'storage target')
  if (bands.length < 2) return findings
  const shareOf = ({ have, need }: Finding): number => (have ?? 0) / (need ?? 1)
  const least = bands.reduce((narrow, next) => (shareOf(next) < shareOf(narrow) ? next : narrow))
  return findings.filter((finding) => finding.check !== 'storage target' || finding === least)
}

const partsOf = ({ from, leads, to }: LaidRun): Part[] => [portPart(from), ...leads.map(leadPart), portPart(to)]

/** What a run is laid for. */
const PURPOSE: ReadonlySet<Finding['check']> = new Set(['picture', 'rate', 'current'])

/** The one finding that matters: the first of the worst grade, and where all is clear what the run was laid for. */
export function leadingFinding(findings: readonly Finding[]): Finding | null {
  const grade = worstOf(findings)
  const graded = findings.filter((finding) => finding.grade === grade)
  const purpose = grade === 'clear' ? graded.find(({ check }) => PURPOSE.has(check)) : undefined
  return purpose ?? graded[0] ?? findings[0] ?? null
}
