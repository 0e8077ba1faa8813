import { type Offered, portPicture } from '../link/picture-link'
import { portModes } from '../link/port-modes'
import { plugsInto } from '../match/rank'
import { portKey, type SiteIndex, type Socket } from '../plan/site-index'
import { LINK_MODES } from '../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import type { Cable } from '../vocabulary/cable'
import type { PictureMode } from '../vocabulary/need'
import type { PortAddress } from '../vocabulary/run'
import type { BenchTest } from '../vocabulary/session'
import { keptWith } from '../work/kept'

const PICTURE: PictureMode = { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' }

type Pair = { from: Socket; to: Socket; fits: number }

/**
 * Tests that would sort these cables with what the site has: a soak, a copy each way and the feel of the plugs between the two ports that most
 * of the cables fit, and a soak on each other controller of that computer; watts from the strongest charger and from each other one; a picture over each sort of plug. Ports without a run in them
 * come first, as nothing has to be unplugged for them. Empty where no two ports of the site fit any of the cables.
 */
export function proposeTests(index: SiteIndex, cables: readonly Cable[]): BenchTest[] {
  const sorts = sortsOf(index)
  const fitting = countFitting(cables)
  const held = new Set<string>()
  const best = (
    isFrom: (socket: Socket) => boolean,
    isTo: (socket: Socket) => boolean,
    worth: (pair: Pair) => number,
  ): Pair | null => {
    let found: Pair | null = null
    let highest = 0
    for (const from of worthTrying(sorts, isFrom, held)) {
      for (const to of worthTrying(sorts, isTo, held)) {
        if (from.device === to.device) continue
        const pair = { from, to, fits: fitting(from, to) }
        const keys = [from, to].map((socket) => portKey(addressOf(socket)))
        const free = keys.filter((key) => !index.runsIn.has(key)).length
        // a port that no other test holds lets this one go on while that one soaks
        const apart = keys.filter((key) => !held.has(key)).length
        const value = pair.fits === 0 ? 0 : pair.fits * 1000 + worth(pair) * 10 + apart * 3 + free
        if (value > highest) {
          found = pair
          highest = value
        }
      }
    }
    return found
  }
  const tests: BenchTest[] = []
  const add = (pair: Pair | null, ...kinds: readonly Body[]): void => {
    if (!pair) return
    for (const socket of [pair.from, pair.to]) held.add(portKey(addressOf(socket)))
    for (const kind of kinds)
      tests.push({
        ...kind,
        id: `t${tests.length + 1}`,
        from: addressOf(pair.from),
        to: addressOf(pair.to),
      } as BenchTest)
  }
  const addIfFits = ({ from, to }: { from: Socket; to: Socket | undefined }, kind: Body): void => {
    const fits = to ? fitting(from, to) : 0
    if (to && fits > 0 && tests.length < MOST_PROPOSED) add({ from, to, fits }, kind)
  }
  const link = best(
    ({ port }) => port.role !== 'device' && portModes(port).size > 0,
    ({ port }) => port.role !== 'host' && portModes(port).size > 0,
    ({ from, to }) => sharedMode(from, to) + (to.device.disk ? 20 : 0),
  )
  const warmth: Body = { kind: 'warmth' }
  if (link?.to.device.disk) add(link, soak, { kind: 'write' }, { kind: 'read' }, warmth)
  else add(link, soak, warmth)
  const supply = best(
    ({ port, device }) => device.kind === 'charger' && (port.gives ?? 0) > 0,
    ({ port }) => (port.takes ?? 0) > 0,
    ({ from, to }) => Math.min(from.port.gives ?? 0, to.port.takes ?? 0) / 10,
  )
  add(supply, { kind: 'watts' })
  for (const from of otherControllers(link)) addIfFits({ from, to: link?.to }, soak)
  for (const from of otherChargers(index, supply)) addIfFits({ from, to: supply?.to }, { kind: 'watts' })
  for (const connector of ['type-c', 'displayport', 'mini-displayport', 'hdmi'] as const) {
    const picture = best(
      ({ port }) => port.connector === connector && offers(port, 'out'),
      ({ port }) => port.connector === connector && offers(port, 'in'),
      () => 1,
    )
    add(picture, { kind: 'picture', mode: pictureTo(index, picture) })
  }
  return tests
}

/** As many tests as a person goes through with one lead without losing count. */
const MOST_PROPOSED = 10

/** One socket for each further controller of the computer that links are tried on: what holds on one may drop on the next. */
function otherControllers(link: Pair | null): Socket[] {
  if (!link) return []
  const seen = new Set([link.from.port.controller])
  return link.from.device.ports.flatMap((port) => {
    const other = port.role !== 'device' && portModes(port).size > 0 && !seen.has(port.controller)
    if (!other || port.controller === undefined) return []
    seen.add(port.controller)
    return [{ device: link.from.device, port }]
  })
}

/** The strongest port of each other charger: what a lead passes belongs to a charger. */
function otherChargers({ plan }: SiteIndex, supply: Pair | null): Socket[] {
  return plan.devices.flatMap((device) => {
    if (device.kind !== 'charger' || device === supply?.from.device) return []
    const ports = device.ports.filter(({ gives = 0 }) => gives > 0)
    const port = ports.reduce<Socket['port'] | null>(
      (most, each) => (most === null || (each.gives ?? 0) > (most.gives ?? 0) ? each : most),
      null,
    )
    return port ? [{ device, port }] : []
  })
}

type Body = BenchTest extends infer Test ? (Test extends BenchTest ? Omit<Test, 'id' | 'from' | 'to'> : never) : never
const soak: Body = { kind: 'link', soak: SHORTEST_SOAK_SECONDS }

/** A socket with its place among all of a site. */
type Placed = Socket & { at: number }

/** The sockets of a site, those together whose worth to a test is the same as long as none of them is held. */
const sortsOf = keptWith((index: SiteIndex): readonly (readonly Placed[])[] => {
  const sorts = new Map<string, Placed[]>()
  let at = 0
  for (const device of index.plan.devices) {
    for (const port of device.ports) {
      const socket = { device, port, at }
      at += 1
      const key = `${whatCounts(socket)} ${index.runsIn.has(portKey(addressOf(socket)))}`
      const sort = sorts.get(key)
      if (sort) sort.push(socket)
      else sorts.set(key, [socket])
    }
  }
  return [...sorts.values()]
})

/**
 * Of each sort that is asked for the first socket, the first of another device, and those that a test holds: every other is worth as much as one of these
 * and comes later in the site. So a site of thousands of ports is gone through as quickly as one of a few. In the order of the site.
 */
function worthTrying(
  sorts: readonly (readonly Placed[])[],
  isAsked: (socket: Socket) => boolean,
  held: ReadonlySet<string>,
): Placed[] {
  const found = sorts.flatMap((sort) => {
    const [first] = sort
    if (!first || !isAsked(first)) return []
    const isHeld = (socket: Socket): boolean => held.has(portKey(addressOf(socket)))
    const free = sort.find((socket) => !isHeld(socket))
    const other = sort.find((socket) => socket.device !== free?.device && !isHeld(socket))
    const taken = held.size === 0 ? [] : sort.filter(isHeld)
    return [free, other, ...taken].filter((socket) => socket !== undefined)
  })
  return found.sort((one, other) => one.at - other.at)
}

/** All of a port and its device that a test's worth is reckoned from. */
const whatCounts = ({ device, port }: Socket): string =>
  `${device.kind} ${device.disk !== undefined} ${described(port)}`
const described = keptWith(({ id: _id, name: _name, controller: _controller, ...counts }: Socket['port']) =>
  JSON.stringify(counts),
)

const addressOf = ({ device, port }: Socket): PortAddress => ({ device: device.id, port: port.id })

const offers = (port: Socket['port'], direction: 'in' | 'out'): boolean => {
  const offered: Offered | null = portPicture(port, direction)
  return offered !== null
}

/** How good the best mode is that two ports share, by its place among the modes. */
function sharedMode(from: Socket, to: Socket): number {
  const [one, other] = [portModes(from.port), portModes(to.port)]
  return LINK_MODES.findLastIndex((mode) => one.has(mode) && other.has(mode))
}

/** What somebody already wants to see on that display, or the usual picture. */
function pictureTo(index: SiteIndex, pair: Pair | null): PictureMode {
  const need = index.plan.needs.find((each) => each.kind === 'picture' && each.to === pair?.to.device.id)
  return need?.kind === 'picture' ? need.mode : PICTURE
}

/** How many of the cables fit two ports; ports of the same connectors are counted once. */
function countFitting(cables: readonly Cable[]): (from: Socket, to: Socket) => number {
  const known = new Map<string, number>()
  return (from, to) => {
    const key = [from, to].map(({ port }) => `${port.connector} ${port.gender}`).join(' ')
    const found = known.get(key)
    if (found !== undefined) return found
    const count = cables.filter((cable) => plugsInto(cable, from.port, to.port)).length
    known.set(key, count)
    return count
  }
}
