import { listed } from '../checks/wording'
import { knownOf, triedLead } from '../link/lay'
import { cameIn, ranHotOfKind } from '../link/record'
import { isGood } from '../observe/came'
import { type FigureSeries, reliedOn } from '../observe/figures'
import type { LinkSeries } from '../observe/links'
import type { Spot } from '../observe/spot'
import { addressOf, priceAt, type SiteIndex, socketName } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { type BitsPerSecond, formatBytesPerSecond } from '../quantity/rate'
import { formatWatts, type Watts } from '../quantity/watts'
import { isBetterMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Cable, CableKind } from '../vocabulary/cable'

/** A lead as advice names it: its kind and length; of one of no kind its tag. */
type Named = { name: string; length: Metres; price: number | null }

/** Why a lead is not advised for a device. */
type WhyNot =
  | { code: 'got hot' | 'dropped' | 'came up lower' | 'comes and goes' | 'failed' }
  | { code: 'copied less'; rate: BitsPerSecond; best: BitsPerSecond }
  | { code: 'fewer watts'; watts: Watts; best: Watts }

/**
 * What the shop advises for one device: the leads that did all that any lead did there, the cheapest first, and those that did not. `best` is what the others
 * are held against, as far as it was read.
 */
export type DeviceAdvice = {
  device: string
  best: { mode: LinkMode | null; write: BitsPerSecond | null; read: BitsPerSecond | null; watts: Watts | null }
  use: readonly (Named & { tried: number; sockets: readonly string[] })[]
  not: readonly (Named & { why: WhyNot })[]
}

/** A kind that is not to be bought, with its reason and since when. */
export type Avoided = { kind: string; why: string; on: string | null }

export type Advice = { devices: readonly DeviceAdvice[]; avoid: readonly Avoided[] }

/** One lead at one device: what of it was read there. */
type LeadThere = {
  cable: Cable
  links: readonly LinkSeries[]
  figures: readonly FigureSeries[]
  sockets: ReadonlySet<string>
}

/** Copies vary, and a device draws now more, now less: within this share of the best a lead is as good (common practice). */
const AS_GOOD = 0.9

/**
 * What a site's own tests advise, device by device: use this, not that, why, at what price, tried in which sockets. Links, copies and watts decide together. It is
 * for a device and a length, not for a kind as such (common practice): one worn lead is named by its tag. A lead that got hot is advised for nothing, and one
 * of which nothing was read there neither.
 */
export function adviceOf(index: SiteIndex): Advice {
  const atDevice = new Map<string, LeadThere[]>()
  for (const cable of index.plan.cables)
    for (const [device, there] of leadByDevice(index, cable))
      atDevice.set(device, [...(atDevice.get(device) ?? []), there])
  const devices = [...atDevice].flatMap(([device, leads]): DeviceAdvice[] => {
    const best = bestOf(leads)
    if (Object.values(best).every((each) => each === null)) return []
    return [{ device: index.devices.get(device)?.name ?? device, best, ...judged(index, leads, best) }]
  })
  return { devices, avoid: avoided(index) }
}

/** What was read of a lead, by the device at its far end; what was read on the device alone says nothing of the two together. */
function leadByDevice(index: SiteIndex, cable: Cable): Map<string, LeadThere> {
  const { links, copies, watts } = knownOf(index, cable)
  const found = new Map<string, { links: LinkSeries[]; figures: FigureSeries[]; sockets: Set<string> }>()
  const at = ({ port, far }: Spot) => {
    const device = far?.split('/')[0]
    if (device === undefined || port === undefined || !index.devices.has(device)) return null
    const there = found.get(device) ?? { links: [], figures: [], sockets: new Set<string>() }
    found.set(device, there)
    there.sockets.add(port)
    return there
  }
  for (const series of links) if (!series.copied) at(series.spot)?.links.push(series)
  for (const series of [...copies, ...watts]) at(series.spot)?.figures.push(series)
  return new Map([...found].map(([device, there]) => [device, { cable, ...there }]))
}

/** The most that any lead did at a device. */
function bestOf(leads: readonly LeadThere[]): DeviceAdvice['best'] {
  let mode: LinkMode | null = null
  for (const { links } of leads)
    for (const { cameUp } of links) if (cameUp !== null && isBetterMode(cameUp, mode)) mode = cameUp
  const most = (measure: 'write' | 'read' | 'watts'): number | null => {
    const figures = leads.flatMap((lead) => reliedThere(lead, measure) ?? [])
    return figures.length > 0 ? Math.max(...figures) : null
  }
  return { mode, write: most('write'), read: most('read'), watts: most('watts') }
}

/** What a lead is relied on for in a measure at a device; null where that was not read of it. */
function reliedThere({ figures }: LeadThere, measure: 'write' | 'read' | 'watts'): number | null {
  const found = figures.flatMap((series) => (series.measure === measure ? (reliedOn(series, 'all') ?? []) : []))
  return found.length > 0 ? Math.min(...found) : null
}

function whyNot(index: SiteIndex, lead: LeadThere, best: DeviceAdvice['best']): WhyNot | null {
  const { cable, links } = lead
  if (knownOf(index, cable).hot !== null) return { code: 'got hot' }
  if (best.mode !== null && links.length > 0) {
    const came = cameIn(links, best.mode, triedLead(index, cable)) ?? null
    if (!isGood(came)) {
      const dropped = links.some((series) => series.dropped)
      if (came === 'failed') return { code: dropped ? 'dropped' : 'came up lower' }
      return { code: came === null ? 'came up lower' : came === 'comes and goes' ? came : 'failed' }
    }
  }
  for (const way of ['write', 'read'] as const) {
    const [rate, most] = [reliedThere(lead, way), best[way]]
    if (rate !== null && most !== null && !atLeast(rate, most * AS_GOOD))
      return { code: 'copied less', rate, best: most }
  }
  const watts = reliedThere(lead, 'watts')
  if (watts !== null && best.watts !== null && !atLeast(watts, best.watts * AS_GOOD))
    return { code: 'fewer watts', watts, best: best.watts }
  return null
}

/** The leads of a device by kind and length: those to use, and those not. */
function judged(
  index: SiteIndex,
  leads: readonly LeadThere[],
  best: DeviceAdvice['best'],
): Pick<DeviceAdvice, 'use' | 'not'> {
  const rows = new Map<string, { lead: LeadThere; why: WhyNot | null }[]>()
  for (const lead of leads) {
    const key = `${lead.cable.kind ?? lead.cable.tag} ${lead.cable.length}`
    rows.set(key, [...(rows.get(key) ?? []), { lead, why: whyNot(index, lead, best) }])
  }
  const use: (Named & { tried: number; sockets: string[] })[] = []
  const not: (Named & { why: WhyNot })[] = []
  for (const row of rows.values()) {
    const good = row.filter(({ why }) => why === null)
    const [first] = good
    if (first) {
      const sockets = [...new Set(good.flatMap(({ lead }) => [...lead.sockets]))].map((each) =>
        socketName(index.devices, addressOf(each)),
      )
      use.push({ ...namedAs(index, first.lead.cable, 'kind'), tried: good.length, sockets })
    }
    const bad = row.flatMap(({ lead, why }) => (why === null ? [] : [{ lead, why }]))
    // one lead that failed may be worn: only where several did, and none held, it is told of the kind
    const [one] = bad
    if (one && first === undefined && bad.length > 1)
      not.push({ ...namedAs(index, one.lead.cable, 'kind'), why: one.why })
    else for (const { lead, why } of bad) not.push({ ...namedAs(index, lead.cable, 'tag'), why })
  }
  use.sort((one, other) => (one.price ?? 1e9) - (other.price ?? 1e9) || other.tried - one.tried)
  return { use, not }
}

function namedAs(index: SiteIndex, { kind: id, tag, length }: Cable, as: 'kind' | 'tag'): Named {
  const kind = id === undefined ? undefined : index.kinds.get(id)
  return {
    name: kind === undefined ? tag : as === 'kind' ? kind.name : `${tag} (${kind.name})`,
    length,
    price: kind && as === 'kind' ? priceAt(kind, length) : null,
  }
}

/** The avoid-list: kinds that somebody avoids, and those of which a cable got hot. */
function avoided(index: SiteIndex): Avoided[] {
  return index.plan.kinds.flatMap(({ id, name, avoid }: CableKind): Avoided[] => {
    if (avoid) return [{ kind: name, why: avoid.why, on: avoid.on }]
    const hot = ranHotOfKind(index, id)
    return hot > 0 ? [{ kind: name, why: hot === 1 ? 'one got hot' : `${hot} got hot`, on: null }] : []
  })
}

/** Why not, in a few words: "it dropped", "it wrote or read 190 MB/s where 700 MB/s were reached". */
function whyWords(why: WhyNot): string {
  switch (why.code) {
    case 'got hot':
      return 'it got hot'
    case 'dropped':
      return 'it dropped'
    case 'came up lower':
      return 'it came up lower'
    case 'comes and goes':
      return 'it comes and goes'
    case 'failed':
      return 'it failed before it was set right'
    case 'copied less':
      return `it copied ${formatBytesPerSecond(why.rate)} where ${formatBytesPerSecond(why.best)} were reached`
    case 'fewer watts':
      return `it gave ${formatWatts(why.watts)} where ${formatWatts(why.best)} arrived`
  }
}

/** What the best leads did at a device: "it came up as Thunderbolt 40 Gb/s, wrote 1,840 MB/s and gave 94 W". */
function didWords({ mode, write, read, watts }: DeviceAdvice['best']): string {
  return listed([
    ...(mode === null ? [] : [`came up as ${linkModeFacts[mode].name}`]),
    ...(write === null ? [] : [`wrote ${formatBytesPerSecond(write)}`]),
    ...(read === null ? [] : [`read ${formatBytesPerSecond(read)}`]),
    ...(watts === null ? [] : [`gave ${formatWatts(watts)}`]),
  ])
}

/** The advice for a device in sentences: "Use X, 0.8 m (39.00 EUR): it came up as Thunderbolt 40 Gb/s in 2 sockets. Not C-0027, 2 m: it dropped." */
export function adviceSentences(
  { best, use, not }: DeviceAdvice,
  currency: string,
  lengthText: (metres: Metres) => string,
): string[] {
  const [first, ...more] = use
  const named = ({ name, length, price }: Named): string =>
    `${name}, ${lengthText(length)}${price === null ? '' : ` (${price.toFixed(2)} ${currency})`}`
  return [
    first
      ? `Use ${named(first)}: it ${didWords(best)} in ${first.sockets.join(' and ')}${first.tried > 1 ? `, ${first.tried} cables of it` : ''}.`
      : `No lead did all of it: ${didWords(best)}.`,
    ...(more.length > 0 ? [`So did: ${more.map(named).join('; ')}.`] : []),
    ...not.map((each) => `Not ${named(each)}: ${whyWords(each.why)}.`),
  ]
}
