import FlatQueue from 'flatqueue'

/** A net of nodes and edges that may be gone either way, as arrays: an edge stands once for each of its two directions. */
export type Net = {
  /** Where the edges of a node begin; one more than there are nodes. */
  first: Int32Array
  from: Int32Array
  to: Int32Array
  length: Float64Array
  /** What an edge was made of: its place in the list it was made from. */
  of: Int32Array
  search: { cost: Float64Array; by: Int32Array; seen: Int32Array; round: number }
}

export type NetEdge = { from: number; to: number; length: number }

export function netOf(count: number, edges: readonly NetEdge[]): Net {
  const first = new Int32Array(count + 1)
  for (const { from, to } of edges) {
    first[from + 1] = (first[from + 1] as number) + 1
    first[to + 1] = (first[to + 1] as number) + 1
  }
  for (let node = 0; node < count; node += 1) first[node + 1] = (first[node + 1] as number) + (first[node] as number)
  const next = first.slice(0, count)
  const size = 2 * edges.length
  const net: Net = {
    first,
    from: new Int32Array(size),
    to: new Int32Array(size),
    length: new Float64Array(size),
    of: new Int32Array(size),
    search: { cost: new Float64Array(count), by: new Int32Array(count), seen: new Int32Array(count), round: 0 },
  }
  for (const [of, { from, to, length }] of edges.entries())
    for (const [here, beyond] of [
      [from, to],
      [to, from],
    ] as const) {
      const at = next[here] as number
      next[here] = at + 1
      net.from[at] = here
      net.to[at] = beyond
      net.length[at] = length
      net.of[at] = of
    }
  return net
}

const START = -1
/** Far below any length that is measured, far above what adding loses. */
export const TINY = 1e-9

/**
 * The shortest way over a net from any of some nodes to any of others, each with what it costs to come there: the first node and the edges in order.
 * `left` is a length that no way on from a node is shorter than (A*; nothing: Dijkstra). Null where there is no way.
 */
export function shortest(
  net: Net,
  starts: Iterable<readonly [node: number, cost: number]>,
  goals: ReadonlyMap<number, number>,
  left: (node: number) => number = () => 0,
): { node: number; edges: number[]; cost: number } | null {
  const { first, to, length, search } = net
  search.round += 1
  const { cost, by, seen, round } = search
  const open = new FlatQueue<number>()
  const reach = (node: number, far: number, edge: number): void => {
    if (seen[node] === round && (cost[node] as number) <= far) return
    seen[node] = round
    cost[node] = far
    by[node] = edge
    open.push(node, far + left(node))
  }
  for (const [node, far] of starts) reach(node, far, START)
  let best: { node: number; cost: number } | null = null
  while (open.length > 0) {
    const estimate = open.peekValue() as number
    if (best && best.cost <= estimate) break
    const node = open.pop() as number
    const far = cost[node] as number
    // it was reached by a shorter way since it was put there
    if (estimate > far + left(node) + TINY) continue
    const goal = goals.get(node)
    if (goal !== undefined && (!best || far + goal < best.cost)) best = { node, cost: far + goal }
    for (let edge = first[node] as number; edge < (first[node + 1] as number); edge += 1)
      reach(to[edge] as number, far + (length[edge] as number), edge)
  }
  if (!best) return null
  const edges: number[] = []
  let node = best.node
  for (let edge = by[node] as number; edge !== START; edge = by[node] as number) {
    edges.push(edge)
    node = net.from[edge] as number
  }
  return { node, edges: edges.reverse(), cost: best.cost }
}
