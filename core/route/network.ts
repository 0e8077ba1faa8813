import { lengthOfLegs } from '../quantity/along'
import type { Metres } from '../quantity/length'
import type { Floor, Pathway, Spot } from '../vocabulary/floor'
import type { Leg } from './legs'
import { type Net, type NetEdge, netOf, shortest, TINY } from './net'

/** A spot on a floor, and how high above it. */
export type Point = Spot & { height: Metres }

/** The pathways of a site as a net: its nodes are the points of the pathways, its edges their stretches and the plumb line between points at one spot. */
export type Network = {
  net: Net
  x: readonly number[]
  y: readonly number[]
  z: readonly number[]
  /** The pathway of an edge; null for a plumb line. In the order in which edges were made. */
  along: readonly (Pathway | null)[]
  /** The nodes at a spot, from the lowest up. */
  stacks: ReadonlyMap<string, readonly number[]>
  levels: ReadonlyMap<string, number>
}

export const spotKey = ({ floor, x, y }: Spot): string => `${floor} ${Math.round(x * 1000)} ${Math.round(y * 1000)}`

/** The net of the pathways that leads may be laid in. Pathways join where they have a point at the same spot; what lies between two heights there is a plumb line. */
export function networkOf(floors: readonly Floor[], pathways: readonly Pathway[]): Network {
  const levels = new Map(floors.map(({ id, level }) => [id, level]))
  const [x, y, z]: [number[], number[], number[]] = [[], [], []]
  const edges: NetEdge[] = []
  const along: (Pathway | null)[] = []
  const stacks = new Map<string, number[]>()
  const join = (from: number, to: number, pathway: Pathway | null): void => {
    const far = (axis: readonly number[]): number => (axis[from] as number) - (axis[to] as number)
    edges.push({ from, to, length: Math.hypot(far(x), far(y), far(z)) })
    along.push(pathway)
  }
  for (const pathway of pathways) {
    if (pathway.closed) continue
    for (const [number, point] of pathway.points.entries()) {
      const node = x.length
      x.push(point.x)
      y.push(point.y)
      z.push((levels.get(point.floor) ?? 0) + point.height)
      const key = spotKey(point)
      const stack = stacks.get(key)
      if (stack) stack.push(node)
      else stacks.set(key, [node])
      if (number > 0) join(node - 1, node, pathway)
    }
  }
  for (const stack of stacks.values()) {
    stack.sort((one, other) => (z[one] as number) - (z[other] as number) || one - other)
    for (const [at, node] of stack.entries()) if (at > 0) join(stack[at - 1] as number, node, null)
  }
  return { net: netOf(x.length, edges), x, y, z, along, stacks, levels }
}

export type Way = { legs: Leg[]; length: Metres }

const heightOf = ({ levels }: Network, { floor, height }: Point): Metres => (levels.get(floor) ?? 0) + height

/** Where a point meets the net: the nodes just below and just above it at its spot, each with the plumb line to it. */
function doorsOf(network: Network, point: Point): [node: number, far: Metres][] {
  const { stacks, z } = network
  const height = heightOf(network, point)
  const stack = stacks.get(spotKey(point)) ?? []
  const above = stack.find((node) => (z[node] as number) >= height)
  const below = stack.findLast((node) => (z[node] as number) < height)
  return [above, below].flatMap((node): [number, number][] =>
    node === undefined ? [] : [[node, Math.abs((z[node] as number) - height)]],
  )
}

/** Whether a pathway leads to a point at all. */
export const isOnNetwork = (network: Network, point: Point): boolean => network.stacks.has(spotKey(point))

/**
 * The shortest way between two points over the net, as legs with their lengths; null where there is none. No way is shorter than the straight line that is
 * left, by which the search goes.
 */
export function shortestWay(network: Network, from: Point, to: Point): Way | null {
  const { net, x, y, z } = network
  const high = heightOf(network, to)
  const found = shortest(net, doorsOf(network, from), new Map(doorsOf(network, to)), (node) =>
    Math.hypot((x[node] as number) - to.x, (y[node] as number) - to.y, (z[node] as number) - high),
  )
  return found && legsOf(network, from, to, found)
}

/** A way in legs: what lies in one pathway is one, and so is what lies in one plumb line. */
function legsOf(network: Network, from: Point, to: Point, { node, edges }: { node: number; edges: number[] }): Way {
  const { net, z, along } = network
  const legs: Leg[] = []
  let rise = (z[node] as number) - heightOf(network, from)
  const settle = (): void => {
    if (Math.abs(rise) > TINY) legs.push({ by: rise > 0 ? 'up' : 'down', length: Math.abs(rise) })
    rise = 0
  }
  let here = node
  for (const edge of edges) {
    const beyond = net.to[edge] as number
    const pathway = along[net.of[edge] as number]
    if (pathway) {
      settle()
      const before = legs.at(-1)
      const far = net.length[edge] as number
      if (before?.pathway === pathway.id) before.length += far
      else legs.push({ by: pathway.kind, length: far, pathway: pathway.id })
    } else rise += (z[beyond] as number) - (z[here] as number)
    here = beyond
  }
  rise += heightOf(network, to) - (z[here] as number)
  settle()
  const whole = legs.map((leg) => ({ ...leg, length: Math.round(leg.length * 1e4) / 1e4 }))
  return { legs: whole, length: lengthOfLegs(whole) }
}
