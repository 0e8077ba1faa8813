import fc from 'fast-check'
import { UndirectedGraph } from 'graphology'
import { dijkstra } from 'graphology-shortest-path'
import { expect, it } from 'vitest'
import { networkOf, type Point, shortestWay } from '../../core/route/network'
import { type Pathway, pathwaySchema } from '../../core/vocabulary/floor'
import { cases, inProportion } from '../support/laws'

// graphology finds the ways of the same pathways by itself: every point a node, every stretch and every plumb line an edge, all by Euclid.

const floors = [
  { id: 'a', name: 'A', level: 0 },
  { id: 'b', name: 'B', level: 3 },
]
const point: fc.Arbitrary<Point> = fc.record({
  floor: fc.constantFrom('a', 'b'),
  x: fc.integer({ min: 0, max: 2 }),
  y: fc.integer({ min: 0, max: 2 }),
  height: fc.constantFrom(0, 0.7, 2.5),
})
const drawn: fc.Arbitrary<Pathway[]> = fc
  .array(fc.array(point, { minLength: 2, maxLength: 5 }), { minLength: 6, maxLength: 25 })
  .map((lines) =>
    lines.map((points, at) => pathwaySchema.parse({ id: `p${at}`, name: `P ${at}`, kind: 'tray', points })),
  )

const high = ({ floor, height }: Point): number => (floor === 'b' ? 3 : 0) + height
const name = (each: Point): string => `${each.floor} ${each.x} ${each.y} ${high(each)}`
const apart = (one: Point, other: Point): number =>
  Math.hypot(one.x - other.x, one.y - other.y, high(one) - high(other))

function reference(pathways: readonly Pathway[], from: Point, to: Point): number | null {
  const graph = new UndirectedGraph()
  const spots = new Map<string, Point[]>()
  const join = (one: Point, other: Point): void => {
    if (name(one) !== name(other)) graph.mergeEdge(name(one), name(other), { length: apart(one, other) })
  }
  for (const { points } of pathways)
    for (const [at, each] of points.entries()) {
      graph.mergeNode(name(each))
      const spot = `${each.floor} ${each.x} ${each.y}`
      spots.set(spot, [...(spots.get(spot) ?? []), each])
      const before = points[at - 1]
      if (before) join(before, each)
    }
  for (const end of [from, to]) {
    const there = spots.get(`${end.floor} ${end.x} ${end.y}`)
    if (!there) return null
    graph.mergeNode(name(end))
    there.push(end)
  }
  for (const there of spots.values()) for (const one of there) for (const other of there) join(one, other)
  const way = dijkstra.bidirectional(graph, name(from), name(to), 'length') as string[] | null
  if (!way) return null
  return way.slice(1).reduce((sum, node, at) => sum + graph.getEdgeAttribute(way[at] as string, node, 'length'), 0)
}

it('the shortest way is as long as graphology finds it, on pathways of any shape over two floors', () => {
  let found = 0
  fc.assert(
    fc.property(drawn, point, point, (pathways, from, to) => {
      fc.pre(name(from) !== name(to))
      const theirs = reference(pathways, from, to)
      const ours = shortestWay(networkOf(floors, pathways), from, to)
      expect(ours === null).toBe(theirs === null)
      if (!ours || theirs === null) return
      found += 1
      // each leg is kept to a tenth of a millimetre
      expect(Math.abs(ours.length - theirs)).toBeLessThan(1e-4 * (ours.legs.length + 1))
    }),
    { numRuns: cases(400) },
  )
  expect(found).toBeGreaterThan(inProportion(50))
})
