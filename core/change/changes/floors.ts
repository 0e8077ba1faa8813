import type { Plan, Place as SitePlace } from '../../plan/plan'
import { followedRoute, wayOf } from '../../route/follow'
import { spotKey } from '../../route/network'
import { joinedAt } from '../../route/split'
import type { Device } from '../../vocabulary/device'
import type { Floor, Pathway, PathwayPoint, Spot } from '../../vocabulary/floor'
import type { Run } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { changedWhat } from '../differences'

/** A new floor, or one that is saved. */
export const saveFloor = (floor: Floor, base: LogPosition | null): ChangeToMake => ({
  what: base === null ? { name: 'add floor', about: [floor.name] } : changedWhat('change floor', 'floors', floor.id),
  edits: [{ list: 'floors', id: floor.id, base, value: floor }],
})

/** Takes a floor away; what still stands on it is told by whoever applies the change. */
export const deleteFloor = (floor: Floor, base: LogPosition): ChangeToMake => ({
  what: { name: 'delete floor', about: [floor.name] },
  edits: [{ list: 'floors', id: floor.id, base, value: null }],
})

/** A new pathway, or one that is saved. What it touches on its way it joins; runs that follow the pathways go along. */
export const savePathway = (plan: Plan, pathway: Pathway, base: LogPosition | null, at: LogPosition): ChangeToMake => ({
  what:
    base === null
      ? { name: 'lay pathway', about: [pathway.name] }
      : changedWhat('change pathway', 'pathways', pathway.id),
  edits: [
    { list: 'pathways', id: pathway.id, base, value: pathway },
    ...joins(
      plan.pathways.filter(({ id }) => id !== pathway.id),
      pathway.points,
      at,
    ),
  ],
})

const joins = (pathways: readonly Pathway[], spots: readonly Spot[], base: LogPosition): Edit[] =>
  joinedAt(pathways, spots).map((value) => ({ list: 'pathways', id: value.id, base, value }))

export const deletePathway = (pathway: Pathway, base: LogPosition): ChangeToMake => ({
  what: { name: 'delete pathway', about: [pathway.name] },
  edits: [{ list: 'pathways', id: pathway.id, base, value: null }],
})

/** Puts places on a floor, or changes how they stand there. */
export const standPlaces = (plan: Plan, places: readonly SitePlace[], base: LogPosition): ChangeToMake => ({
  what: { name: 'stand on floor', about: places.map(({ name }) => name) },
  edits: [
    ...places.map((value): Edit => ({ list: 'places', id: value.id, base, value })),
    ...joins(
      plan.pathways,
      places.flatMap(({ at }) => at ?? []),
      base,
    ),
  ],
})

/**
 * Moves a spot with all that is at it: the places and devices that stand there and every pathway with a point there, so that what was joined stays joined.
 * A pathway whose points would fall together is left as it is. No edits where nothing is there any more.
 */
export function moveSpot(plan: Plan, base: LogPosition, from: Spot, to: Spot): ChangeToMake {
  const key = spotKey(from)
  const at = { floor: to.floor, x: to.x, y: to.y }
  const edits: Edit[] = []
  const names: string[] = []
  const move = (list: 'places' | 'devices' | 'pathways', value: SitePlace | Device | Pathway): void => {
    edits.push({ list, id: value.id, base, value } as Edit)
    names.push(value.name)
  }
  for (const place of plan.places) if (place.at && spotKey(place.at) === key) move('places', { ...place, at })
  for (const device of plan.devices) if (device.at && spotKey(device.at) === key) move('devices', { ...device, at })
  for (const pathway of plan.pathways) {
    if (!pathway.points.some((point) => spotKey(point) === key)) continue
    const points = pathway.points.map((point) => (spotKey(point) === key ? { ...point, ...at } : point))
    if (goesOn(points)) move('pathways', { ...pathway, points })
  }
  const moved = new Set(edits.map(({ id }) => id))
  const others = plan.pathways.filter(({ id }) => !moved.has(id))
  // where nothing stood there is nothing to join either
  const joined = edits.length > 0 ? joins(others, [at], base) : []
  return { what: { name: 'move on floor', about: names.slice(0, 4) }, edits: [...edits, ...joined] }
}

const goesOn = (points: readonly PathwayPoint[]): boolean =>
  points.every((point, at) => {
    const before = points[at - 1]
    return !before || spotKey(before) !== spotKey(point) || before.height !== point.height
  })

/** The runs that could follow the pathways and do not: both their ends stand on them, and a way leads from one to the other. */
export const couldFollow = (plan: Plan): Run[] =>
  plan.runs.filter((run) => !run.route.follows && !('why' in wayOf(plan, run)))

/** Lets runs take the shortest way over the pathways, now and whenever these change. */
export const followPathways = (plan: Plan, runs: readonly Run[], base: LogPosition): ChangeToMake => ({
  what: { name: 'follow pathways', about: runs.map(({ tag }) => tag) },
  edits: runs.map((run) => {
    const route = followedRoute(plan, { ...run, route: { ...run.route, follows: true } })
    return { list: 'runs', id: run.id, base, value: { ...run, route } }
  }),
})
