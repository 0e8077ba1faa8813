import type { Assessed } from '../checks/assess'
import type { Verdict } from '../checks/finding'
import { type Crossing, situationOf } from '../checks/situation'
import { admit, askedOfTunnel, type CrossedPicture } from '../link/admission'
import { leadCable, socketAt } from '../plan/site-index'
import { atLeast, atMost } from '../quantity/limit'
import { type BitsPerSecond, formatRate } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import { displayPortLane } from '../standards/picture-links'
import { admitPictures, PICTURE_SHARE, tunnelOf } from '../tunnel/tunnel'
import type { Device } from '../vocabulary/device'
import { type Need, needLabel, type PictureMode } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** One need as the uplink of a dock admits it. */
export type DockLine = {
  need: Need
  label: string
  way: 'down' | 'up'
  grade: Verdict
  /** What it asks. */
  wanted: BitsPerSecond
  /** What is held for it; a picture in a tunnel often holds more than it sends. */
  reserved: BitsPerSecond
  /** What it really sends. */
  sends: BitsPerSecond
  /** What was left when its turn came. */
  found: BitsPerSecond
  /** The rate a picture came up at; null for data, and for a picture that is refused. */
  step: string | null
}

/** What the uplink of a dock carries each way, in the order it admits, and what it leaves. */
export type DockView = {
  uplink: Run
  mode: LinkMode | null
  tunnelled: boolean
  /** After coding, each way. */
  payload: BitsPerSecond
  /** What pictures may reserve at most together; null where there is no tunnel. */
  forPictures: BitsPerSecond | null
  lines: readonly DockLine[]
  /** For storage and network while the pictures run, and while they do not. */
  left: { down: BitsPerSecond; up: BitsPerSecond }
  idle: { down: BitsPerSecond; up: BitsPerSecond }
  /** Power needs over the uplink. */
  power: readonly { label: string; asked: Watts; grade: Verdict }[]
  /** Hubs, docks and active extensions on the longest way behind it. */
  hubs: number
  /** The most that the leads alone delay anything behind it, in nanoseconds, there; hubs and docks add their own, which only a test tells. */
  leadDelay: number
  /** What the dock gives its host, and how its ports share what it has; null where it gives nothing. */
  supply: { toHost: Watts; pool: Device['pool'] } | null
}

/** The run a dock or hub hangs on: the one that ends at it. Null where none does yet. */
export const uplinkOf = ({ index }: Assessed, device: string): Run | null =>
  index.runsAt.get(device)?.find(({ to }) => to.device === device) ?? null

/**
 * The uplink of a dock as it fills, with one more picture at the end where somebody asks what that would do. Pictures are admitted first, in their
 * priority and then the order of the list; each finds what the earlier ones left (Linux thunderbolt driver; common practice for docks without a tunnel).
 */
export function dockView(site: Assessed, device: string, oneMore: PictureMode | null = null): DockView | null {
  const { index, walks } = site
  const uplink = uplinkOf(site, device)
  if (!uplink) return null
  const standing = walks.crossings.get(uplink.id) ?? []
  const crossings = oneMore ? [...standing, extra(uplink, oneMore)] : standing
  const { data, picture, policy } = situationOf(index, uplink, crossings)
  const mode = data.mode
  const tunnelled = picture.link?.via === 'tunnel' && mode !== null
  const payload = mode === null ? (picture.link?.payload ?? 0) : linkModeFacts[mode].payload
  const admissions = admit(crossings, mode, picture.link, policy.reservation)
  const wayOf = new Map(crossings.map(({ need, way }) => [need.id, way]))
  const pictures = admissions.flatMap(({ need }) => (need.kind === 'picture' ? need : []))
  const tunnel =
    tunnelled && mode
      ? admitPictures(
          tunnelOf(linkModeFacts[mode].line),
          pictures.map((need) => askedOfTunnel(crossed(crossings, need))),
          policy.reservation,
        )
      : null
  const lines = admissions.map((admission): DockLine => {
    const { need, wanted, have } = admission
    const way = wayOf.get(need.id) ?? 'down'
    const admitted = need.kind === 'picture' ? tunnel?.pictures[pictures.indexOf(need)] : undefined
    const fits = atLeast(have, wanted)
    const sends = admitted ? admitted.loads : Math.min(wanted, have)
    return {
      need,
      label: need.id === ONE_MORE ? 'one more display' : needLabel(need, index.devices),
      way,
      grade: fits ? 'clear' : 'blocked',
      wanted,
      reserved: admitted?.reserved ?? sends,
      sends,
      found: admitted?.available ?? have,
      step: admitted?.step
        ? `DisplayPort ${displayPortLane[admitted.step.link].name} x${admitted.step.lanes}, ${formatRate(admitted.step.payload)}`
        : null,
    }
  })
  const loads = lines.filter(({ need }) => need.kind === 'picture').reduce((sum, { sends }) => sum + sends, 0)
  const others = (way: 'down' | 'up') =>
    lines
      .filter(({ need, way: own }) => need.kind !== 'picture' && need.kind !== 'storage' && own === way)
      .reduce((sum, { sends }) => sum + sends, 0)
  const shared = tunnelled ? loads : 0
  return {
    uplink,
    mode,
    tunnelled,
    payload,
    forPictures: tunnelled && mode ? linkModeFacts[mode].line * PICTURE_SHARE : null,
    lines,
    left: { down: Math.max(0, payload - shared - others('down')), up: Math.max(0, payload - others('up')) },
    idle: { down: Math.max(0, payload - others('down')), up: Math.max(0, payload - others('up')) },
    power: crossings.flatMap(({ need }) =>
      need.kind === 'power'
        ? {
            label: needLabel(need, index.devices),
            asked: need.watts,
            grade: site.assessment.needs.find(({ id }) => id === need.id)?.grade ?? 'clear',
          }
        : [],
    ),
    hubs: Math.max(0, ...crossings.map(({ hubs = 0 }) => hubs)),
    leadDelay: Math.max(0, ...crossings.map(({ need }) => delayOf(site, need.id))),
    supply: supplyOf(site, uplink),
  }
}

/** A picture as it crosses the uplink. */
const crossed = (crossings: readonly Crossing[], need: CrossedPicture['need']): CrossedPicture => ({
  way: 'down',
  ...crossings.find((each) => each.need.id === need.id),
  need,
})

/** A lead may delay by 26 ns over 5 m (USB 2.0 §7.1.16, published). */
const NANOSECONDS_A_METRE = 26 / 5

const delayOf = ({ index, walks }: Assessed, need: string): number =>
  (walks.paths.get(need) ?? [])
    .flatMap(({ run }) => run.leads)
    .reduce((sum, lead) => sum + leadCable(index, lead).length * NANOSECONDS_A_METRE, 0)

function supplyOf({ index }: Assessed, { to }: Run): DockView['supply'] {
  const { device, port } = socketAt(index, to)
  return port.gives || device.pool ? { toHost: port.gives ?? 0, pool: device.pool } : null
}

const ONE_MORE = 'one-more'

const extra = (uplink: Run, mode: PictureMode): Crossing => ({
  need: { id: ONE_MORE, kind: 'picture', from: uplink.from.device, to: uplink.to.device, mode },
  way: 'down',
  lastMile: true,
})

/**
 * The second-display trap: a picture is refused or falls though all of them together would have room, as earlier ones hold more than they send. Then which
 * of them, how much they hold for nothing, and whether bringing the pictures up in another order gives every one its rate. Null where there is no trap.
 */
export function secondDisplayTrap(
  site: Assessed,
  device: string,
): { fallen: DockLine; unused: BitsPerSecond; order: readonly Need[] | null } | null {
  const view = dockView(site, device)
  if (!view?.tunnelled || view.forPictures === null || view.mode === null) return null
  const pictures = view.lines.filter(({ need }) => need.kind === 'picture')
  const fallen = pictures.find(({ grade }) => grade === 'blocked')
  const wanted = pictures.reduce((sum, line) => sum + line.wanted, 0)
  if (!fallen || !atMost(wanted, view.forPictures)) return null
  const unused = pictures
    .slice(0, pictures.indexOf(fallen))
    .reduce((sum, { reserved, sends }) => sum + reserved - sends, 0)
  const crossings = site.walks.crossings.get(view.uplink.id) ?? []
  const tunnel = tunnelOf(linkModeFacts[view.mode].line)
  const fitsAll = (order: readonly DockLine[]): boolean =>
    admitPictures(
      tunnel,
      order.flatMap(({ need }) => (need.kind === 'picture' ? askedOfTunnel(crossed(crossings, need)) : [])),
      site.index.plan.policy.reservation,
    ).pictures.every(({ fits, compressedBits }) => fits || compressedBits !== null)
  const order = [
    [...pictures].sort((one, other) => one.wanted - other.wanted),
    [...pictures].sort((one, other) => other.wanted - one.wanted),
    [fallen, ...pictures.filter((line) => line !== fallen)],
  ].find(fitsAll)
  return { fallen, unused, order: order?.map(({ need }) => need) ?? null }
}
