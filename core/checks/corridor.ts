import { type Door, openingOf } from '../link/doors'
import type { Step } from '../path/find-path'
import { byId } from '../plan/lookup'
import type { Need } from '../vocabulary/need'
import type { Assessed, Flow, RunVerdict } from './assess'
import { worstOf } from './finding'

/** A flow as it walks a corridor. */
export type Walker = Flow & {
  /** The first and the last of the doors it walks through, where that is not all of them: it shares a stretch of the way. */
  stretch?: readonly [first: number, last: number]
}

/** What a corridor is drawn from: one run, or the whole path of a need. */
export type Corridor = Pick<RunVerdict, 'grade' | 'doors' | 'narrowest'> & { flows: readonly Walker[] }

/**
 * The whole path of a need from its first device to its last: the doors of each run on it, as the assessment has them, with the need walking through, and
 * whatever else walks through some of them. Null where there is no way.
 */
export function corridorOf({ walks, assessment }: Assessed, need: Need): Corridor | null {
  const steps = walks.paths.get(need.id)
  const verdict = byId(assessment.needs).get(need.id)
  if (!steps || steps.length === 0 || !verdict) return null
  const rooms: Room[] = []
  const doors: Door[] = []
  for (const step of steps) {
    const own = byId(assessment.runs).get(step.run.id)
    if (!own) return null
    rooms.push({ step, own, first: doors.length })
    doors.push(...(step.way === 'down' ? own.doors : [...own.doors].reverse()))
  }
  const [flow] = rooms[0]?.own.flows.filter(({ needId }) => needId === need.id) ?? []
  if (!flow) return null
  const passes = rooms.every(({ own }) => own.flows.some(({ needId, passes }) => needId === need.id && passes))
  const width = need.kind === 'power' ? (door: Door) => door.watts : openingOf
  const narrowest = doors.reduce((least, door, at) => (width(door) < width(doors[least] ?? door) ? at : least), 0)
  const walker: Walker = { ...flow, way: 'down', grade: verdict.grade, passes }
  return { grade: verdict.grade, doors, narrowest, flows: [walker, ...besides(rooms, need)] }
}

/** A run on the way, and which of the doors of the way is its first. */
type Room = { step: Step; own: RunVerdict; first: number }

/** What shares the way: each need as often as it comes in and goes out again, by the worst of what becomes of it on that stretch. */
function besides(rooms: readonly Room[], { id }: Need): Walker[] {
  const walkers: Walker[] = []
  let before = new Map<string, Walker>()
  for (const { step, own, first } of rooms) {
    const last = first + own.doors.length - 1
    const now = new Map<string, Walker>()
    for (const flow of own.flows) {
      if (flow.needId === id) continue
      const way = flow.way === step.way ? 'down' : 'up'
      const on = before.get(flow.needId)
      if (on?.way === way) {
        on.stretch = [on.stretch?.[0] ?? first, last]
        on.grade = worstOf([on, flow])
        on.passes &&= flow.passes
        now.set(flow.needId, on)
        continue
      }
      const walker: Walker = { ...flow, way, stretch: [first, last] }
      walkers.push(walker)
      now.set(flow.needId, walker)
    }
    before = now
  }
  return walkers
}
