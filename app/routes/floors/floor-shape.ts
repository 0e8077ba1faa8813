import type { Place, Plan } from '../../../core/plan/plan'
import { spotKey } from '../../../core/route/network'
import type { Floor, Pathway, PathwayPoint, Spot } from '../../../core/vocabulary/floor'

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

export type View = { x: number; y: number; k: number }
export const MAP_WIDTH = 1000
export const MAP_HEIGHT = 620

/** The view that shows all of a floor. */
export function wholeFloor({ x, y, width, height }: Bounds): View {
  const k = Math.min(MAP_WIDTH / width, MAP_HEIGHT / height)
  return { x: (MAP_WIDTH - width * k) / 2 - x * k, y: (MAP_HEIGHT - height * k) / 2 - y * k, k }
}

/** Where a hand lets go: on the nearest joint within reach, else on the nearest stretch of a pathway, else on the grid. */
export function snapped(at: Spot, { joints, lines }: FloorShape, reach: number, but?: string): Spot {
  const near = nearest(
    joints.filter(({ key }) => key !== but).map((joint) => joint.at),
    at,
    reach,
  )
  if (near) return near
  const feet = lines.flatMap(({ pieces }) =>
    pieces.flatMap((piece) =>
      piece.slice(1).flatMap((to, number) => {
        const from = piece[number]
        return from && ![from, to].some((end) => spotKey(end) === but) ? footOn(from, to, at) : []
      }),
    ),
  )
  const foot = nearest(feet, at, reach)
  return foot ?? { floor: at.floor, x: Math.round(at.x * 10) / 10, y: Math.round(at.y * 10) / 10 }
}

function nearest(spots: readonly Spot[], at: Spot, reach: number): Spot | null {
  let best: Spot | null = null
  let least = reach
  for (const spot of spots) {
    const away = Math.hypot(spot.x - at.x, spot.y - at.y)
    if (away <= least) {
      least = away
      best = spot
    }
  }
  return best && { floor: at.floor, x: best.x, y: best.y }
}

/** The spot of a stretch that is nearest to another. */
function footOn(from: Spot, to: Spot, at: Spot): Spot {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const square = dx * dx + dy * dy
  const share = square === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - from.x) * dx + (at.y - from.y) * dy) / square))
  const kept = (metres: number): number => Math.round(metres * 1000) / 1000
  return { floor: at.floor, x: kept(from.x + share * dx), y: kept(from.y + share * dy) }
}
