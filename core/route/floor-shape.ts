import type { Place, Plan } from '../plan/plan'
import type { Floor, Pathway, PathwayPoint, Spot } from '../vocabulary/floor'
import { spotKey } from './network'

/** A floor as figures, in metres: what stands where, and which spots can be moved. All of it is what the plan says. */
export type FloorShape = {
  bounds: Bounds
  lines: FloorLine[]
  joints: Joint[]
  places: Place[]
}
export type Bounds = { x: number; y: number; width: number; height: number }
/** The stretches of a pathway that lie on the floor; `leaves` where it goes on upon another. */
export type FloorLine = { pathway: Pathway; pieces: PathwayPoint[][]; leaves: boolean }
/** A spot with a point of a pathway, a place, or a device that stands by itself at it; `stands` is what its plate says. */
export type Joint = { key: string; at: Spot; names: string[]; place: Place | null; stands: string[] }

/** Shown of a floor on which nothing is yet. */
const EMPTY: Bounds = { x: 0, y: 0, width: 20, height: 12 }
const MARGIN = 1.5

export function floorShape(plan: Pick<Plan, 'pathways' | 'places' | 'devices'>, floor: Floor): FloorShape {
  const joints = new Map<string, Joint>()
  const jointAt = ({ x, y }: Spot): Joint => {
    const at = { floor: floor.id, x, y }
    const key = spotKey(at)
    const known = joints.get(key) ?? { key, at, names: [], place: null, stands: [] }
    joints.set(key, known)
    return known
  }
  const places = plan.places.filter(({ at }) => at?.floor === floor.id)
  for (const place of places) {
    const joint = jointAt(place.at as Spot)
    joint.place ??= place
    joint.names.push(place.name)
    joint.stands.push(place.name)
  }
  for (const { at, name } of plan.devices) {
    if (at?.floor !== floor.id) continue
    const joint = jointAt(at)
    joint.names.push(name)
    joint.stands.push(name)
  }
  const lines = plan.pathways.flatMap((pathway): FloorLine[] => {
    const pieces: PathwayPoint[][] = []
    let piece: PathwayPoint[] = []
    for (const point of pathway.points) {
      if (point.floor === floor.id) piece.push(point)
      else if (piece.length > 0) {
        pieces.push(piece)
        piece = []
      }
    }
    if (piece.length > 0) pieces.push(piece)
    for (const point of pieces.flat()) {
      const { names } = jointAt(point)
      if (names.at(-1) !== pathway.name) names.push(pathway.name)
    }
    return pieces.length > 0 ? [{ pathway, pieces, leaves: pathway.points.length > pieces.flat().length }] : []
  })
  return { bounds: boundsOf(floor, [...joints.values()]), lines, joints: [...joints.values()], places }
}

function boundsOf({ drawing }: Floor, joints: readonly Joint[]): Bounds {
  const corners = drawing
    ? [
        { x: 0, y: 0 },
        { x: drawing.width * drawing.metresPerPixel, y: drawing.height * drawing.metresPerPixel },
      ]
    : []
  const all = [...corners, ...joints.map(({ at }) => at)]
  if (all.length === 0) return EMPTY
  const [left, right, top, bottom] = all.reduce(
    ([left, right, top, bottom], { x, y }) => [
      Math.min(left, x),
      Math.max(right, x),
      Math.min(top, y),
      Math.max(bottom, y),
    ],
    [Infinity, -Infinity, Infinity, -Infinity] as [number, number, number, number],
  )
  return {
    x: left - MARGIN,
    y: top - MARGIN,
    width: Math.max(right - left, 4) + 2 * MARGIN,
    height: Math.max(bottom - top, 3) + 2 * MARGIN,
  }
}
