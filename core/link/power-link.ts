import {
  atHand,
  type FigureSeries,
  figureTally,
  isWatts,
  mostOf,
  type Read,
  reliedOn,
  type Speaking,
} from '../observe/figures'
import { portKey, portsInUse, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import { givenWatts, type Level, negotiate, type Supply } from '../power/negotiate'
import { passOn, strongerOf } from '../power/pool'
import { type Drop, GROUND_WIRES, loopDrop, wireDrop } from '../power/wire'
import { atMost } from '../quantity/limit'
import type { Amps, Volts, Watts } from '../quantity/watts'
import { isOlderPlug } from '../standards/connectors'
import { commonPractice, type Source } from '../standards/source'
import type { Device } from '../vocabulary/device'
import { busWatts } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'
import { type LaidLead, type LaidRun, laidOnce } from './lay'
import { type Mains, mainsAt, needsMains } from './mains'

/** What keeps the watts on a run from being more. */
export type PowerLimit =
  | Supply['limit']
  /** The ports of the supply share what it has, and others are in use. */
  | 'pool'
  /** A hub that passes on what it is fed keeps some, or is fed no more. */
  | 'fed'
  /** The supply needs mains, and there is none where it stands. */
  | 'mains'
  /** Somebody measured it. */
  | 'seen'

/** The power of a run from one of its sockets to the other, beside its data. */
export type PowerLink = {
  giver: Socket
  taker: Socket
  /** What is agreed on, or what somebody measured. */
  watts: Watts
  level: Level | null
  /** What the supply would give alone through a lead without limits. */
  offered: Watts
  limit: PowerLimit
  /** The names of the ports of the supply that are in use beside this one. */
  sharers: readonly string[]
  /** What is fed to the supply where it has none of its own; null where it has. */
  fed: Watts | null
  /**
   * The readings that decide it, with the most of them and how often so much was reached, and the lead that was the limit; no lead: it was read on this very
   * run.
   */
  seen: (WattsRead & { lead: LaidLead | null }) | null
  /** A lead was the limit with another charger: it may be here as well, above the watts that it was shown to pass here. */
  elsewhere: { reading: Read<'watts'>; watts: Watts; lead: LaidLead; shown: Watts } | null
  leads: readonly LaidLead[]
  /** The lead that feeds it by a third plug; `leads` are those behind it. */
  third: LaidLead | null
  /** The volts that a supply without one of its own is left with, below the 5 V it should give; 0 of any other. */
  lostBefore: Volts
  source: Source
}

const measured = commonPractice('watts that were measured, which belong to a charger, a lead and a device together')
const passedOn = commonPractice('a hub keeps some of what it is fed and passes on the rest')

/** What a hub, or the hub chip of an active lead, takes where its data sheet does not say: one unit load of 100 mA at 5 V (USB 2.0 §7.2.1). */
export const HUB_OWN_WATTS: Watts = 0.5

/** Runs that a question about what feeds a device has come through already. */
const NONE: ReadonlySet<string> = new Set()

/** Which way power goes over a run: down from its host end. */
export type PowerWay = 'down' | 'up'

const linksOf = new WeakMap<SiteIndex, WeakMap<LaidRun, Map<PowerWay, PowerLink>>>()

/**
 * The power link of a run: what charger, leads, joints and device agree on, with what its pool leaves beside the other ports in use, what a hub is fed and keeps,
 * whether there is mains for the supply, and what somebody measured, which outweighs all of it. Watts read on this very run are what arrives. A lead that was
 * the limit with this charger lets no more through; with another charger it is told, as a ceiling may belong to a pair (common practice).
 */
export function powerLink(index: SiteIndex, laid: LaidRun, way: PowerWay): PowerLink {
  let known = linksOf.get(index)
  if (!known) {
    known = new WeakMap()
    linksOf.set(index, known)
  }
  let ways = known.get(laid)
  if (!ways) {
    ways = new Map()
    known.set(laid, ways)
  }
  const found = ways.get(way)
  if (found) return found
  const made = makeLink(index, laid, way, NONE)
  ways.set(way, made)
  return made
}

function makeLink(index: SiteIndex, laid: LaidRun, way: PowerWay, seenRuns: ReadonlySet<string>): PowerLink {
  const [giver, taker] = way === 'down' ? [laid.from, laid.to] : [laid.to, laid.from]
  const fed = livesOnOthers(giver.device) ? feedOf(index, giver.device, new Set([...seenRuns, laid.run.id])) : null
  const alone = socketAt(index, { device: giver.device.id, port: giver.port.id }).port
  // a lead that takes power at a third plug feeds what lies behind it, whatever the port before it gives
  const third = thirdPlug(laid, way)
  const leads = third ? third.behind : laid.leads
  const own = fed === null ? giver.port : cappedPort(giver.port, fed.watts)
  const port = third ? fedByLead(giver.port, third.watts) : own
  const wires = leads.map(({ known, cable }) => ({
    amps: known.amps.value,
    volts: known.volts.value,
    olderPlug: cable.ends.some(({ connector }) => isOlderPlug(connector)),
  }))
  const accepts = taker.port.accepts
  const agreed = negotiate(port, wires, accepts)
  const mains: Mains = third || needsMains(giver.device) ? mainsAt(index, third?.at ?? giver) : 'there'
  const offered = third || port === alone ? agreed.offered : negotiate(alone, []).offered
  const common = {
    giver,
    taker,
    leads,
    third: third?.lead ?? null,
    offered,
    sharers: sharersOf(index, giver),
    fed: fed?.watts ?? null,
    lostBefore: fed?.lost ?? 0,
    seen: null,
    elsewhere: null,
    source: agreed.source,
  }
  const limit = third ? agreed.limit : limitOf(agreed, alone, giver, fed)
  const from = { ...common, ...agreed, offered, limit }
  const start: PowerLink =
    mains === 'none'
      ? { ...from, watts: 0, level: null, limit: 'mains' }
      : fed === null
        ? from
        : { ...from, source: passedOn }
  return withReadings(start, laid)
}

/** The third plug that feeds a way, with the leads between it and what is fed, and the end whose mains it hangs on where somebody said. */
type ThirdPlug = { lead: LaidLead; watts: Watts; behind: readonly LaidLead[]; at: Socket | undefined }

/** The third plug nearest to what is fed. */
function thirdPlug({ leads, from, to }: LaidRun, way: PowerWay): ThirdPlug | null {
  const field = way === 'up' ? 'passesBack' : 'passesOn'
  const feeds = ({ cable }: LaidLead): boolean => cable[field] !== undefined
  const at = way === 'up' ? leads.findIndex(feeds) : leads.findLastIndex(feeds)
  const lead = leads[at]
  if (!lead) return null
  const { feedEnd } = lead.cable
  return {
    lead,
    watts: lead.cable[field] ?? 0,
    behind: way === 'up' ? leads.slice(0, at) : leads.slice(at + 1),
    at: feedEnd && (feedEnd === 'host' ? from : to),
  }
}

const fedByLead = (port: Socket['port'], gives: Watts): Socket['port'] => ({
  ...port,
  connector: 'type-c',
  role: 'either',
  gives,
  levels: undefined,
})

/** What a supply gives less because of its pool or its feed, and not because of this run, is theirs to answer for. */
function limitOf(agreed: Supply, alone: Socket['port'], giver: Socket, fed: Feed | null): PowerLimit {
  if (agreed.limit !== 'supply') return agreed.limit
  if (fed !== null && !atMost(givenWatts(giver.port), fed.watts)) return 'fed'
  return atMost(givenWatts(alone), givenWatts(giver.port)) ? 'supply' : 'pool'
}

const sharersOf = (index: SiteIndex, { device, port }: Socket): string[] =>
  device.pool
    ? portsInUse(index, device)
        .filter((other) => other.id !== port.id && other.gives !== undefined)
        .map(({ name }) => name)
    : []

/** A port that has no more than so many watts to give. */
function cappedPort(port: Socket['port'], watts: Watts): Socket['port'] {
  if (atMost(givenWatts(port), watts)) return port
  return { ...port, gives: watts, levels: undefined }
}

/** What a hub without a supply has to give: what reaches it less what it keeps, and the volts that were lost on the way. */
export type Feed = { watts: Watts; lost: Volts }

const livesOnOthers = ({ busPowered, keeps }: Device): boolean => busPowered || keeps !== undefined

/** So many that live on what they are fed are followed in a row: USB allows five hubs (USB 2.0 §4.1.1), and two that are charged through are one too many. */
const MOST_IN_A_ROW = 8
const MOST_CHARGED_THROUGH = 2

/** What is fed to a device that has no supply of its own; null where it has one. Nothing comes through more of them in a row than there can be. */
function feedOf(index: SiteIndex, device: Device, seenRuns: ReadonlySet<string>): Feed | null {
  if (device.keeps !== undefined) {
    if (seenRuns.size > MOST_CHARGED_THROUGH) return NO_FEED
    const fed = strongerOf(suppliesOf(index, device, seenRuns).map(({ watts }) => watts))
    return { watts: passOn(fed, device.keeps), lost: 0 }
  }
  if (!device.busPowered) return null
  const uplink = (index.runsAt.get(device.id) ?? []).find(({ id, to }) => to.device === device.id && !seenRuns.has(id))
  if (!uplink || seenRuns.size > MOST_IN_A_ROW) return NO_FEED
  const laid = laidOnce(index, uplink)
  const link = makeLink(index, laid, 'down', seenRuns)
  const amps = link.level === null ? 0 : Math.min(link.level.amps, drawnBy(index, device) / link.level.volts)
  return { watts: passOn(link.watts, ownOf(device, laid.to)), lost: link.lostBefore + lostOver(link, amps) }
}
const NO_FEED: Feed = { watts: 0, lost: 0 }

const ownOf = (device: Device, { port }: Socket): Watts => (device.busPowered ? (port.takes ?? HUB_OWN_WATTS) : 0)

/** The power links that end at a device, but for those of some runs. */
function suppliesOf(index: SiteIndex, device: Device, seenRuns: ReadonlySet<string>): PowerLink[] {
  return (index.runsAt.get(device.id) ?? []).flatMap((run) => {
    if (seenRuns.has(run.id)) return []
    const way: PowerWay = run.to.device === device.id ? 'down' : 'up'
    const laid = laidOnce(index, run)
    const own = way === 'down' ? laid.to : laid.from
    if (own.port.takes === undefined || laid.leads.length === 0) return []
    return makeLink(index, laid, way, seenRuns)
  })
}

/** The most that another run brings to a device: given two supplies it takes the stronger (common practice). */
export const besideWatts = (index: SiteIndex, { id, from, to }: Run, device: string): Watts => {
  const own = index.devices.get(device)
  if (!own || (from.device !== device && to.device !== device)) return 0
  return strongerOf(suppliesOf(index, own, new Set([id])).map(({ watts }) => watts))
}

/** What is fed to a device at an end of a run by others than that run. */
export const fedBy = (index: SiteIndex, { id }: Run, device: Device): Feed | null =>
  feedOf(index, device, new Set([id]))

/** Watts that a device draws from the run it hangs on: what is asked beside its data, and of a hub without a supply all behind it, each device once. */
export function drawnBy(index: SiteIndex, device: Device): Watts {
  const seen = new Set([device.id])
  const waiting = [device]
  let drawn: Watts = 0
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    for (const need of index.needsAt.get(at.id) ?? []) drawn += busWatts(need) ?? 0
    if (!at.busPowered) continue
    const uplink = (index.runsAt.get(at.id) ?? []).find(({ to }) => to.device === at.id)
    if (uplink) drawn += ownOf(at, socketAt(index, uplink.to))
    for (const { from, to } of index.runsAt.get(at.id) ?? []) {
      const behind = from.device === at.id ? index.devices.get(to.device) : undefined
      if (!behind || seen.has(behind.id)) continue
      seen.add(behind.id)
      waiting.push(behind)
    }
  }
  return drawn
}

/** What a lead loses at a current: by the volts somebody measured, otherwise by its gauge; null where neither is known. */
export function dropOf({ cable, known }: LaidLead, amps: Amps): Drop | null {
  if (known.ohms) return loopDrop(known.ohms.value, amps)
  if (cable.awg === undefined) return null
  const drop = wireDrop({ awg: cable.awg, length: cable.length, amps, groundWires: GROUND_WIRES })
  return drop.ok ? drop.value : null
}

/** Volts lost in the wire of a link at a current, as far as it is known. */
const lostOver = ({ leads }: PowerLink, amps: Amps): Volts =>
  leads.reduce((sum, lead) => sum + (dropOf(lead, amps)?.total ?? 0), 0)

/** What is left of volts and watts at the device while it draws so much; the wire of which nobody knows anything loses nothing here. */
export function arrivesAt(link: PowerLink, drawn: Watts): { amps: Amps; volts: Volts; watts: Watts; known: boolean } {
  const { level, leads, lostBefore } = link
  if (level === null) return { amps: 0, volts: 0, watts: 0, known: true }
  const amps = Math.min(level.amps, Math.min(drawn, link.watts) / level.volts)
  const volts = Math.max(0, level.volts - lostBefore - lostOver(link, amps))
  return {
    amps,
    volts,
    watts: volts * amps,
    known: lostBefore > 0 || leads.some((lead) => dropOf(lead, amps) !== null),
  }
}

/** Watts that were read in one place: what is relied on, the most of them, the last, and how often so many arrived. */
type WattsRead = {
  watts: Watts
  most: Watts
  reading: Read<'watts'>
  counted: (asked: Watts) => { held: number; failed: number }
}
type WattsSeries = FigureSeries<'watts'>

/** The same with what somebody measured in place of what should be. */
function withReadings(agreed: PowerLink, laid: LaidRun): PowerLink {
  const readings = atHand(laid.seen.figures.filter(isWatts), laid.here)
  const onRun = readFrom(readings, 'unknown')
  if (onRun) return { ...agreed, watts: onRun.watts, limit: 'seen', seen: { ...onRun, lead: null }, source: measured }
  // where something else was always the limit as much arrives as ever did, and what was agreed on
  const most = mostRead(readings)
  if (most && most.watts > agreed.watts)
    return { ...agreed, watts: most.watts, limit: 'seen', seen: { ...only(most), lead: null }, source: measured }
  if (most) return agreed
  const { giver } = agreed
  const charger = portKey({ device: giver.device.id, port: giver.port.id })
  const isThere = ({ spot }: WattsSeries): boolean =>
    spot.port === undefined || spot.port === charger || spot.far === charger
  let now: PowerLink = agreed
  for (const lead of laid.leads) {
    const own = lead.known.watts.filter(isThere)
    const there = readFrom(own, 'lead')
    if (there && there.watts < now.watts) {
      now = { ...now, watts: there.watts, limit: 'seen', seen: { ...there, lead }, source: measured }
      continue
    }
    const other = readFrom(
      lead.known.watts.filter((series) => !isThere(series)),
      'lead',
    )
    const shown = mostRead(own)?.watts ?? 0
    if (other && !atMost(now.watts, other.watts))
      now = { ...now, elsewhere: { reading: other.reading, watts: other.watts, lead, shown } }
  }
  return now
}

/** What is relied on of some readings; null where none of them counts against anything. */
function readFrom(all: readonly WattsSeries[], speaking: Speaking): WattsRead | null {
  let least: { series: WattsSeries; watts: Watts } | null = null
  for (const series of all) {
    const watts = reliedOn(series, speaking)
    if (watts !== null && (least === null || watts < least.watts)) least = { series, watts }
  }
  if (least === null) return null
  const { series, watts } = least
  return {
    watts,
    most: mostRead(all)?.watts ?? watts,
    reading: series.last,
    counted: (asked) => {
      const { held, atOnce } = figureTally(series, asked, speaking)
      return { held, failed: atOnce }
    },
  }
}

const mostRead = (all: readonly WattsSeries[]): Read<'watts'> | null =>
  all.reduce<Read<'watts'> | null>(
    (most, series) => (most === null || mostOf(series).watts > most.watts ? mostOf(series) : most),
    null,
  )

const only = (reading: Read<'watts'>): WattsRead => ({
  watts: reading.watts,
  most: reading.watts,
  reading,
  counted: () => ({ held: 1, failed: 0 }),
})
