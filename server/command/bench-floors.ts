import { UndirectedGraph } from 'graphology'
import { dijkstra } from 'graphology-shortest-path'
import { moveSpot } from '../../core/change/changes/floors'
import { followed } from '../../core/change/followed'
import { assessAnew } from '../../core/checks/assess'
import { routeEffects } from '../../core/checks/route-effect'
import { emptyPlan, type Place, type Plan } from '../../core/plan/plan'
import { followedRoute, pointOf } from '../../core/route/follow'
import { type Device, deviceSchema } from '../../core/vocabulary/device'
import { type Pathway, pathwaySchema } from '../../core/vocabulary/floor'
import { runSchema } from '../../core/vocabulary/run'
import { median, repeated, timed } from './timing'

const ACROSS = 26
const DOWN = 20
const RUNS = 500
const METRES = 4

/** A building made up for the purpose: a grid of a thousand trays, a place at each crossing, and 500 runs between places. */
export function gridSite(): Plan {
  const plan = emptyPlan({ id: 'grid', name: 'Grid' })
  const pathways: Pathway[] = []
  const places: Place[] = []
  const devices: Device[] = []
  const point = (x: number, y: number) => ({ floor: 'f', x: x * METRES, y: y * METRES, height: 2.6 })
  const lay = (from: ReturnType<typeof point>, to: ReturnType<typeof point>) =>
    pathways.push(
      pathwaySchema.parse({
        id: `p${pathways.length}`,
        name: `Tray ${pathways.length}`,
        kind: 'tray',
        points: [from, to],
      }),
    )
  for (let y = 0; y < DOWN; y += 1)
    for (let x = 0; x < ACROSS; x += 1) {
      if (x + 1 < ACROSS) lay(point(x, y), point(x + 1, y))
      if (y + 1 < DOWN) lay(point(x, y), point(x, y + 1))
      const id = `d${devices.length}`
      places.push({ id, name: id, mains: true, at: { floor: 'f', x: x * METRES, y: y * METRES } })
      devices.push(
        deviceSchema.parse({
          id,
          name: id,
          kind: 'other',
          place: id,
          ports: [
            { id: 'a', name: 'a', connector: 'type-a', role: 'host', usb: 'gen1x1' },
            { id: 'b', name: 'b', connector: 'type-b', role: 'device', usb: 'gen1x1' },
          ],
        }),
      )
    }
  const site: Plan = {
    ...plan,
    floors: [{ id: 'f', name: 'Floor', level: 0 }],
    pathways,
    places,
    devices,
  }
  const runs = Array.from({ length: RUNS }, (_, at) => {
    const [from, to] = [(at * 7919) % devices.length, (at * 104_729 + 13) % devices.length]
    return runSchema.parse({
      id: `r${at}`,
      tag: `R-${at}`,
      from: { device: `d${from}`, port: 'a' },
      to: { device: `d${to === from ? (to + 1) % devices.length : to}`, port: 'b' },
      route: { length: 1, follows: true },
    })
  })
  return { ...site, runs: runs.map((run) => ({ ...run, route: followedRoute(site, run) })) }
}

/** The same ways found by graphology's own search, a run at a time. */
function plainly(plan: Plan): number {
  const graph = new UndirectedGraph()
  const name = ({ x, y, height }: { x: number; y: number; height: number }) => `${x} ${y} ${height}`
  for (const { points } of plan.pathways)
    for (const [at, each] of points.entries()) {
      const before = points[at - 1]
      graph.mergeNode(name(each))
      if (before)
        graph.mergeEdge(name(before), name(each), { length: Math.hypot(each.x - before.x, each.y - before.y) })
    }
  let sum = 0
  for (const { from, to } of plan.runs) {
    const ends = [from, to].map(({ device }) => pointOf(plan, device))
    const [start, end] = ends.map((each) => each && name({ ...each, height: 2.6 }))
    if (start && end) sum += (dijkstra.bidirectional(graph, start, end, 'length') as string[] | null)?.length ?? 0
  }
  return sum
}

/** What a drag on a floor of 1,000 pathways and 500 runs costs, in milliseconds: the ways found anew, and what comes of it judged. */
export function benchFloors() {
  const plan = gridSite()
  const copy = { plan, place: 1 }
  const from = { floor: 'f', x: 10 * METRES, y: 10 * METRES }
  const move = (by: number) => moveSpot(plan, 1, from, { ...from, x: from.x + by }).edits
  let far = 0
  const found = repeated(9, () => {
    far += 0.1
    void followed(copy, move(far))
  })
  const site = assessAnew(plan)
  const judged = median([0.2, 0.4, 0.6].map((by) => timed(() => void routeEffects(site, move(by)))))
  const reference = repeated(3, () => void plainly(plan))
  return { pathways: plan.pathways.length, runs: plan.runs.length, found, judged, reference, gain: reference / found }
}
