import { nextRunTag } from '../../plan/direct-needs'
import { freeIds } from '../../plan/free-id'
import { put } from '../../plan/put'
import { portKey, type SiteIndex } from '../../plan/site-index'
import type { Metres } from '../../quantity/length'
import type { Device, Port } from '../../vocabulary/device'
import type { Equipment } from '../../vocabulary/policy'
import { type Run, withLength } from '../../vocabulary/run'
import { priceWith, withBestLeads, withKindsOf } from '../best-lead'
import type { Effort, Move, MoveWords, Scene } from '../move'

/** As near as a dock stands to what it is moved beside. */
const NEAR: Metres = 0.5

/** The dock elsewhere, a second one, or a hub in its place. */
export function* dockMoves(scene: Scene): Iterable<Move> {
  const { index, run, crossings } = scene
  for (const id of new Set([run.to.device, run.from.device])) {
    const dock = index.devices.get(id)
    if (dock?.kind !== 'dock' && dock?.kind !== 'hub') continue
    const runs = index.runsAt.get(id) ?? []
    const uplinks = runs.filter(({ to }) => to.device === id)
    const downs = runs.filter(({ from }) => from.device === id)
    const [uplink] = uplinks
    if (!uplink || uplinks.length > 1) continue
    if (downs.length > 0) yield* sides(scene, dock, uplink, downs)
    if (run.from.device === id && dock.kind === 'dock') yield* secondDock(scene, dock, uplink)
    const pictures = (index.runsAt.get(id) ?? []).some((each) => carriesPictures(scene, each))
    if (dock.kind === 'dock' && run.id === uplink.id && !pictures && crossings.length > 0) yield hubInstead(scene, dock)
  }
}

const carriesPictures = ({ index }: Scene, run: Run): boolean =>
  index.plan.needs.some((need) => need.kind === 'picture' && (need.to === run.to.device || need.to === run.from.device))

/** What a rearrangement comes to: runs and devices as they are changed, each run with the best lead for where it then lies. */
function rearranged(
  { index, site }: Scene,
  runs: readonly Run[],
  devices: readonly Device[],
  { device, ...move }: { family: string; words: MoveWords; effort: Effort; device?: Equipment },
): Move {
  const laid = putAll(index.plan, runs, devices)
  const made = withBestLeads(
    laid,
    runs.map(({ id }) => id),
    site.runOf,
  )
  const moved = new Set(runs.map(({ id }) => id))
  const led = made.plan.runs.filter(({ id }) => moved.has(id))
  return {
    ...move,
    price: device ? priceWith(index, device, made.price) : made.price,
    apply: (plan) => ({ ...putAll(plan, led, devices), kinds: withKindsOf(plan, made.plan) }),
  }
}

const putAll = (plan: SiteIndex['plan'], runs: readonly Run[], devices: readonly Device[]) =>
  runs.reduce(
    (made, run) => put(made, 'runs', run),
    devices.reduce((made, device) => put(made, 'devices', device), plan),
  )

const ofLength = (run: Run, length: Metres): Run => ({
  ...run,
  route: withLength(run.route, Math.max(0.1, Math.round(length * 1000) / 1000)),
})

/** The dock at the other end of the long way: what one side gains the other loses. */
function* sides(scene: Scene, dock: Device, uplink: Run, downs: readonly Run[]): Iterable<Move> {
  const nearest = Math.min(...downs.map(({ route }) => route.length))
  const shift = nearest - NEAR
  if (shift > NEAR) {
    const far = uplink.route.length + shift
    const runs = [ofLength(uplink, far), ...downs.map((run) => ofLength(run, run.route.length - shift))]
    const words = { code: 'dock to far side', dock: dock.name, uplink: far } as const
    yield rearranged(scene, runs, [], { family: 'dock side', words, effort: 'rearranged' })
  }
  const back = uplink.route.length - NEAR
  if (back > NEAR) {
    const runs = [ofLength(uplink, NEAR), ...downs.map((run) => ofLength(run, run.route.length + back))]
    const words = { code: 'dock to host side', dock: dock.name, uplink: NEAR } as const
    yield rearranged(scene, runs, [], { family: 'dock side', words, effort: 'rearranged' })
  }
}

/** One more dock of the same sort at another port of the host, for this run alone. */
function* secondDock(scene: Scene, dock: Device, uplink: Run): Iterable<Move> {
  const { index, site, run } = scene
  const host = index.devices.get(uplink.from.device)
  const port = host?.ports.find(
    ({ id, connector }) =>
      connector === host.ports.find((each) => each.id === uplink.from.port)?.connector &&
      !index.runsIn.has(portKey({ device: host.id, port: id })),
  )
  if (!host || !port) return
  const second: Device = {
    ...dock,
    id: freeIds(site.plan.devices.map(({ id }) => id))(`${dock.id.slice(0, 50)}-2`),
    name: `Second ${dock.name}`.slice(0, 120),
  }
  const up: Run = {
    id: freeIds(site.plan.runs.map(({ id }) => id))(`${uplink.id.slice(0, 50)}-2`),
    tag: nextRunTag(site.plan),
    from: { device: host.id, port: port.id },
    to: { device: second.id, port: uplink.to.port },
    leads: [],
    route: { length: uplink.route.length },
  }
  const moved: Run = { ...run, from: { device: second.id, port: run.from.port } }
  yield rearranged(scene, [moved, up], [second], {
    family: 'second dock',
    words: { code: 'second dock', dock: dock.name, port: `${host.name}, ${port.name}` },
    effort: 'device',
    device: 'dock',
  })
}

/** Where only USB is wanted, a hub does, over leads that reach further. */
function hubInstead(scene: Scene, dock: Device): Move {
  const plain = ({ thunderbolt: _, usb4: __, displayport: ___, ...port }: Port): Port =>
    port.usb === 'gen2x2' ? { ...port, usb: 'gen2x1' } : port
  const hub: Device = { ...dock, kind: 'hub', ports: dock.ports.map(plain) }
  return rearranged(scene, [scene.run], [hub], {
    family: 'hub instead',
    words: { code: 'hub instead', dock: dock.name },
    effort: 'device',
    device: 'hub',
  })
}
