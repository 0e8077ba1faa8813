import { ranHotOfKind } from '../link/record'
import { learntOfCable } from '../observe/learned'
import { priceAt, type SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { isBetterMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { CableKind } from '../vocabulary/cable'

/** A lead as advice names it: its kind and length; of one of no kind its tag. */
type Named = { name: string; length: Metres; price: number | null }

/** What the shop advises for one device: the leads that held in every socket they were tried in, the cheapest first, and those that did not. */
export type DeviceAdvice = {
  device: string
  mode: LinkMode
  use: readonly (Named & { tried: number; sockets: readonly string[] })[]
  not: readonly (Named & { why: 'dropped' | 'came up lower' | 'got hot' })[]
}

/** A kind that is not to be bought, with its reason and since when. */
export type Avoided = { kind: string; why: string; on: string | null }

export type Advice = { devices: readonly DeviceAdvice[]; avoid: readonly Avoided[] }

type Tried = Named & {
  tried: number
  held: boolean
  why: 'dropped' | 'came up lower' | 'got hot'
  sockets: Set<string>
}

/** The best mode that any lead came up as at a device: what the others are held against. */
const bestAt = (modes: Iterable<LinkMode>): LinkMode | null => {
  let best: LinkMode | null = null
  for (const mode of modes) if (isBetterMode(mode, best)) best = mode
  return best
}

/**
 * What a site's own tests advise, device by device: use this, not that, why, at what price, tried in which sockets. It is for a device, not for a kind as such
 * (common practice). A lead that got hot is advised for nothing.
 */
export function adviceOf(index: SiteIndex): Advice {
  const atDevice = new Map<string, { mode: LinkMode | null; cable: string; socket: string; dropped: boolean }[]>()
  for (const { id } of index.plan.cables)
    for (const { spot, cameUp, basis, copied } of learntOfCable(index.learned, id)?.trials ?? []) {
      const device = spot.far?.split('/')[0]
      if (copied || device === undefined || spot.port === undefined || !index.devices.has(device)) continue
      const list = atDevice.get(device) ?? []
      list.push({ mode: cameUp, cable: id, socket: spot.port, dropped: cameUp === null && basis === 'soaked' })
      atDevice.set(device, list)
    }
  const devices = [...atDevice].flatMap(([device, seen]): DeviceAdvice[] => {
    const mode = bestAt(seen.flatMap((each) => each.mode ?? []))
    if (mode === null) return []
    const tried = triedAt(index, seen, mode)
    const use = tried
      .filter(({ held }) => held)
      .sort((one, other) => (one.price ?? 1e9) - (other.price ?? 1e9) || other.tried - one.tried)
    const not = tried.filter(({ held }) => !held)
    return [
      {
        device: index.devices.get(device)?.name ?? device,
        mode,
        use: use.map(({ name, length, price, tried, sockets }) => ({
          name,
          length,
          price,
          tried,
          sockets: [...sockets],
        })),
        not: not.map(({ name, length, price, why }) => ({ name, length, price, why })),
      },
    ]
  })
  return { devices, avoid: avoided(index) }
}

function triedAt(
  index: SiteIndex,
  seen: readonly { mode: LinkMode | null; cable: string; socket: string; dropped: boolean }[],
  best: LinkMode,
): Tried[] {
  const all = new Map<string, Tried>()
  const counted = new Map<string, Set<string>>()
  for (const { mode, cable: id, socket, dropped } of seen) {
    const cable = index.cables.get(id)
    if (!cable) continue
    const kind = cable.kind === undefined ? undefined : index.kinds.get(cable.kind)
    const name = kind?.name ?? cable.tag
    const key = `${name} ${cable.length}`
    const hot = learntOfCable(index.learned, id)?.hot != null
    const good = mode !== null && !isBetterMode(best, mode) && !hot
    const row = all.get(key) ?? {
      name,
      length: cable.length,
      price: kind ? priceAt(kind, cable.length) : null,
      tried: 0,
      held: true,
      why: 'came up lower' as const,
      sockets: new Set<string>(),
    }
    const cables = counted.get(key) ?? new Set<string>()
    cables.add(id)
    counted.set(key, cables)
    row.tried = cables.size
    row.sockets.add(socketName(index, socket))
    if (!good) {
      row.held = false
      row.why = hot ? 'got hot' : dropped ? 'dropped' : row.why
    }
    all.set(key, row)
  }
  return [...all.values()]
}

function socketName({ devices }: SiteIndex, address: string): string {
  const [device = '', port] = address.split('/')
  const found = devices.get(device)
  return found ? `${found.name}, ${found.ports.find(({ id }) => id === port)?.name ?? port}` : address
}

/** The avoid-list: kinds that somebody avoids, and those of which a cable got hot. */
function avoided(index: SiteIndex): Avoided[] {
  return index.plan.kinds.flatMap(({ id, name, avoid }: CableKind): Avoided[] => {
    if (avoid) return [{ kind: name, why: avoid.why, on: avoid.on }]
    const hot = ranHotOfKind(index, id)
    return hot > 0 ? [{ kind: name, why: hot === 1 ? 'one got hot' : `${hot} got hot`, on: null }] : []
  })
}

const whyWords = { dropped: 'it dropped', 'came up lower': 'it came up lower', 'got hot': 'it got hot' } as const

/** The advice for a device in sentences: "Use X, 0.8 m (39.00 EUR): it came up as Thunderbolt 40 Gb/s in 2 sockets. Not Y, 2 m: it dropped." */
export function adviceSentences(
  { mode, use, not }: DeviceAdvice,
  currency: string,
  lengthText: (metres: Metres) => string,
): string[] {
  const [first, ...more] = use
  const named = ({ name, length, price }: Named): string =>
    `${name}, ${lengthText(length)}${price === null ? '' : ` (${price.toFixed(2)} ${currency})`}`
  return [
    first
      ? `Use ${named(first)}: it came up as ${linkModeFacts[mode].name} in ${first.sockets.join(' and ')}${first.tried > 1 ? `, ${first.tried} cables of it` : ''}.`
      : `No lead held ${linkModeFacts[mode].name} in every socket.`,
    ...(more.length > 0 ? [`As good: ${more.map(named).join('; ')}.`] : []),
    ...not.map((each) => `Not ${named(each)}: ${whyWords[each.why]}.`),
  ]
}
