import { type PathwayPoint, pathwaySchema } from '../../vocabulary/floor'
import { listOf } from '../../vocabulary/list'

const samePoint = (one: PathwayPoint, other: PathwayPoint): boolean =>
  one.floor === other.floor && one.x === other.x && one.y === other.y && one.height === other.height

export const pathways = listOf(pathwaySchema, {
  noun: 'pathway',
  most: 5000,
  *references({ points }) {
    for (const [at, { floor }] of points.entries()) yield { path: `points[${at}].floor`, to: 'floors', id: floor }
  },
  *faults({ points }) {
    for (const [at, point] of points.entries()) {
      const before = points[at - 1]
      if (before && samePoint(before, point))
        yield { path: `points[${at}]`, reason: 'a pathway goes on from point to point; two of its points are one' }
    }
  },
  bears: (on, { id }) => on.pathway(id),
})
