import { MOST_POINTS, type Pathway, type PathwayPoint, type Spot, toMillimetre } from '../vocabulary/floor'
import { spotKey } from './network'

/** A spot is on a stretch where it is no further from it than what keeping millimetres may move it. */
const ON_IT = 0.0015

/** Where a spot lies along a stretch, from 0 to 1; null where it is not on it, or at one of its ends. */
function along(from: PathwayPoint, to: PathwayPoint, spot: Spot): number | null {
  if (from.floor !== spot.floor || to.floor !== spot.floor) return null
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const square = dx * dx + dy * dy
  if (square === 0) return null
  const share = ((spot.x - from.x) * dx + (spot.y - from.y) * dy) / square
  if (share <= 0 || share >= 1) return null
  const away = Math.hypot(from.x + share * dx - spot.x, from.y + share * dy - spot.y)
  return away <= ON_IT ? share : null
}

/** A pathway with a point at each of the spots that lie on one of its stretches, so that what ends there joins it. */
function withPointsAt(pathway: Pathway, spots: readonly Spot[]): Pathway {
  let points = pathway.points
  for (const spot of spots) {
    if (points.length >= MOST_POINTS || points.some((point) => spotKey(point) === spotKey(spot))) continue
    const at = points.findIndex((point, number) => {
      const next = points[number + 1]
      return next !== undefined && along(point, next, spot) !== null
    })
    const [from, to] = [points[at], points[at + 1]]
    if (!from || !to) continue
    const share = along(from, to, spot) ?? 0
    const height = toMillimetre(from.height + share * (to.height - from.height))
    points = points.toSpliced(at + 1, 0, { floor: spot.floor, x: spot.x, y: spot.y, height })
  }
  return points === pathway.points ? pathway : { ...pathway, points }
}

/** The pathways that get a point where one of the spots lies on them, as they are then. */
export const joinedAt = (pathways: readonly Pathway[], spots: readonly Spot[]): Pathway[] =>
  pathways.flatMap((pathway) => {
    const joined = withPointsAt(pathway, spots)
    return joined === pathway ? [] : joined
  })
