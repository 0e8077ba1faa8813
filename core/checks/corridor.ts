import { type Door, openingOf } from '../link/doors'
import { byId } from '../plan/lookup'
import type { Need } from '../plan/need'
import type { Assessed, Flow, RunVerdict } from './assess'

/** What a corridor is drawn from: one run, or the whole path of a need. */
export type Corridor = Pick<RunVerdict, 'grade' | 'doors' | 'narrowest' | 'flows'>

/**
 * The whole path of a need from its first device to its last: the doors of each run on it, as the assessment has them, with the need walking through. Null
 * where there is no way.
 */
export function corridorOf({ walks, assessment }: Assessed, need: Need): Corridor | null {
  const steps = walks.paths.get(need.id)
  const verdict = byId(assessment.needs).get(need.id)
  if (!steps || steps.length === 0 || !verdict) return null
  const doors: Door[] = []
  let flow: Flow | undefined
  let passes = true
  for (const { run, way } of steps) {
    const own = byId(assessment.runs).get(run.id)
    if (!own) return null
    doors.push(...(way === 'down' ? own.doors : [...own.doors].reverse()))
    const crossing = own.flows.find(({ needId }) => needId === need.id)
    flow ??= crossing
    passes &&= crossing?.passes ?? false
  }
  if (!flow) return null
  const width = need.kind === 'power' ? (door: Door) => door.watts : openingOf
  const narrowest = doors.reduce((least, door, at) => (width(door) < width(doors[least] ?? door) ? at : least), 0)
  return { grade: verdict.grade, doors, narrowest, flows: [{ ...flow, way: 'down', grade: verdict.grade, passes }] }
}
