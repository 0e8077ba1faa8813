import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { LONGEST_LENGTH, SHORTEST_LENGTH } from '../quantity/length'
import type { Run } from '../vocabulary/run'
import { isOnNetwork, type Network, networkOf, type Point, shortestWay, spotKey, type Way } from './network'

/** Ports of a desk are about so high above the floor (common practice). */
export const USUAL_HEIGHT = 0.7

type Sites = Pick<Plan, 'floors' | 'places' | 'pathways' | 'devices'>

/** Where a device's ports are: its own spot and height, else those of its place. Null where nobody has put either on a floor. */
export function pointOf(plan: Pick<Plan, 'places' | 'devices'>, deviceId: string): Point | null {
  const device = byId(plan.devices).get(deviceId)
  const place = device?.place === undefined ? undefined : byId(plan.places).get(device.place)
  const at = device?.at ?? place?.at
  return at ? { ...at, height: device?.height ?? place?.height ?? USUAL_HEIGHT } : null
}

const networks = new WeakMap<Plan['pathways'], { floors: Plan['floors']; network: Network }>()

/** The net of a site, kept as long as neither floors nor pathways change. */
export function siteNetwork({ floors, pathways }: Pick<Plan, 'floors' | 'pathways'>): Network {
  const known = networks.get(pathways)
  if (known?.floors === floors) return known.network
  const network = networkOf(floors, pathways)
  networks.set(pathways, { floors, network })
  return network
}

/** Why no way is known between the ends of a run; `device` is the end that it fails at, by its id. */
export type NoWay =
  | { why: 'not on a floor' | 'off the pathways'; device: string }
  | { why: 'one place' | 'cut off' | 'too far'; device: null }

/** The way that a run takes over the pathways of its site: the shortest there is. */
export function wayOf(plan: Sites, { from, to }: Pick<Run, 'from' | 'to'>): Way | NoWay {
  const ends: Point[] = []
  const network = siteNetwork(plan)
  for (const { device } of [from, to]) {
    const point = pointOf(plan, device)
    if (!point) return { why: 'not on a floor', device }
    ends.push(point)
  }
  const [start, end] = ends as [Point, Point]
  if (spotKey(start) === spotKey(end)) return { why: 'one place', device: null }
  if (!isOnNetwork(network, start)) return { why: 'off the pathways', device: from.device }
  if (!isOnNetwork(network, end)) return { why: 'off the pathways', device: to.device }
  const way = shortestWay(network, start, end)
  if (!way) return { why: 'cut off', device: null }
  if (way.length < SHORTEST_LENGTH) return { why: 'one place', device: null }
  return way.length > LONGEST_LENGTH ? { why: 'too far', device: null } : way
}

/** A plan whose runs that follow the pathways have the ways there are: for one that somebody else wrote. */
export const withFollowedRoutes = (plan: Plan): Plan =>
  plan.runs.some(({ route }) => route.follows)
    ? { ...plan, runs: plan.runs.map((run) => (run.route.follows ? { ...run, route: followedRoute(plan, run) } : run)) }
    : plan

/** The route of a run that follows the pathways as they are now. Where no way is left the last length stays, without legs to show for it. */
export function followedRoute(plan: Sites, run: Run): Run['route'] {
  const way = wayOf(plan, run)
  const { legs: _, ...rest } = run.route
  return 'why' in way ? rest : { ...rest, length: way.length, legs: way.legs }
}
