import type { Bounds, FloorShape } from '../../../core/route/floor-shape'
import { spotKey } from '../../../core/route/network'
import type { Spot } from '../../../core/vocabulary/floor'

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
