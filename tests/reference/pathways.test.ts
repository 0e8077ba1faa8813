import fc from 'fast-check'
import { UndirectedGraph } from 'graphology'
import { dijkstra } from 'graphology-shortest-path'
import { expect, it } from 'vitest'
import { type Pathway, shortestWay } from '../../core/route/pathways'

it('the shortest way is as short as graphology finds it, on networks of any shape', () => {
  const place = fc.integer({ min: 0, max: 11 }).map(String)
  const pathway = fc.record({
    from: place,
    to: place,
    length: fc.integer({ min: 1, max: 500 }).map((length) => length / 10),
  })
  fc.assert(
    fc.property(fc.array(pathway, { maxLength: 40 }), (drawn) => {
      const seen = new Set<string>()
      const pathways: Pathway[] = drawn
        .filter(({ from, to }) => {
          const key = [from, to].sort().join()
          if (from === to || seen.has(key)) return false
          seen.add(key)
          return true
        })
        .map((each, at) => ({ id: `p${String(at).padStart(2, '0')}`, ...each }))
      const graph = new UndirectedGraph()
      for (let node = 0; node < 12; node += 1) graph.addNode(String(node))
      for (const { from, to, length } of pathways) graph.addEdge(from, to, { length })
      const reference = dijkstra.bidirectional(graph, '0', '11', 'length') as string[] | null
      const ours = shortestWay(pathways, '0', '11')
      expect(ours === null).toBe(reference === null)
      if (!ours || !reference) return
      const theirs = reference
        .slice(1)
        .reduce((sum, node, at) => sum + (graph.getEdgeAttribute(reference[at] as string, node, 'length') as number), 0)
      expect(ours.length).toBeCloseTo(theirs, 6)
      const own = ours.pathways.reduce(
        (sum, id) => sum + (pathways.find((each) => each.id === id)?.length ?? Number.NaN),
        0,
      )
      expect(own).toBeCloseTo(ours.length, 9)
    }),
    { numRuns: 300 },
  )
})
