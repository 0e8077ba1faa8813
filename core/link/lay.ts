import type { Asks } from '../observe/came'
import { type KnownCable, knownCable, linksOver } from '../observe/known'
import { learntOf, learntOfCable } from '../observe/learned'
import { type Learnt, NOTHING_LEARNT } from '../observe/learnt'
import type { TriedLead } from '../observe/links'
import { type Here, setupText } from '../observe/spot'
import { leadCable, portKey, portsInUse, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import { pooledPort } from '../power/pool'
import { atMost } from '../quantity/limit'
import { type End, endsMate } from '../standards/connectors'
import type { LinkMode } from '../standards/link-modes'
import {
  bookReach,
  type Feeding,
  type LeadReach,
  type LeadShape,
  leadReach,
  leadShape,
  printedLength,
} from '../standards/reach'
import { commonPractice } from '../standards/source'
import type { Cable, CableKind } from '../vocabulary/cable'
import type { Device } from '../vocabulary/device'
import { leadKey, type Run } from '../vocabulary/run'
import { asksOf } from './asks'
import { captiveOf } from './captive'
import { type Mains, mainsAt } from './mains'

/** A lead as it lies in a run: which of its ends faces the host, what is known of it, what its grade carries and how far. */
export type LaidLead = {
  /** The site it is of: what was tried of others of its kind stands there. Null for the own lead of a device. */
  site: SiteIndex | null
  cable: Cable
  known: KnownCable
  reversed: boolean
  hostEnd: End
  farEnd: End
  shape: LeadShape
  reach: LeadReach
  /** Whether it takes a supply of its own where the run ends. */
  feeding: Feeding
  /** What the site asks of a look at it. */
  asks: Asks
  /** It belongs to the device at that end of the run, and ends in its plug. */
  captive?: 'from' | 'to'
}

export type LaidRun = {
  run: Run
  from: Socket
  to: Socket
  leads: readonly LaidLead[]
  /** What was seen of this very run with these leads. */
  seen: Learnt
  /** The socket of its host end, as what was seen of a lead is told by. */
  here: Here
  /** What the site asks of a look at it. */
  asks: Asks
}

/**
 * Lays the leads of a run from the host port on. A lead whose second end is the only one that fits is turned round, as a
 * person would turn it; whether that is allowed is for the direction check.
 */
export function layRun(index: SiteIndex, run: Run): LaidRun {
  const from = socketInUse(index, run.from)
  const to = socketInUse(index, run.to)
  const asks = asksOf(index.plan.policy)
  const [own, far] = [captiveLead(from, 'from', asks), captiveLead(to, 'to', asks)]
  let facing: End = from.port
  const leads: LaidLead[] = own ? [own] : []
  const mains = { far: mainsAt(index, to), host: mainsAt(index, from) }
  for (const named of run.leads) {
    const cable = leadCable(index, named)
    const lead = asRated(
      layLead(index, cable, facing, named.reversed, mains[cable.feedEnd ?? 'far']),
      from.device.rated ?? to.device.rated,
    )
    leads.push(lead)
    facing = lead.farEnd
  }
  if (far) leads.push(far)
  const learnt = learntOf(index.learned, { run: run.id, leads: run.leads.map(leadKey) }) ?? NOTHING_LEARNT
  const links = linksOver(learnt.links, shapeOf(leads))
  const seen = links === learnt.links ? learnt : { ...learnt, links }
  return { run, from, to, leads, seen, here: hereOf(index, from, run), asks }
}

/** The cable between extender ends reaches as far as they are rated over it, where somebody knows it. */
function asRated(lead: LaidLead, rated: Device['rated']): LaidLead {
  const grade = lead.known.grade.value
  const reach = grade !== null && grade in RATED ? rated?.[grade as keyof typeof RATED] : undefined
  if (reach === undefined) return lead
  return {
    ...lead,
    reach: { ...lead.reach, data: lead.reach.data.map((row) => ({ ...row, reach, source: asStated })) },
  }
}
const RATED = { cat5: true, cat6: true, cat6a: true, fibre: true } as const
const asStated = commonPractice('what an extender is rated for, by its data sheet')

/** The lead that a device at an end of a run has of its own. */
function captiveLead(socket: Socket, captive: 'from' | 'to', asks: Asks): LaidLead | null {
  const own = captiveOf(socket)
  if (!own) return null
  const [plug, inside] = own.cable.ends
  return {
    ...own,
    site: null,
    shape: leadShape(own.cable.ends),
    feeding: 'unfed',
    asks,
    reversed: captive === 'from',
    hostEnd: captive === 'from' ? inside : plug,
    farEnd: captive === 'from' ? plug : inside,
    captive,
  }
}

const laidByIndex = new WeakMap<SiteIndex, WeakMap<Run, LaidRun>>()

/** The same, worked out once for each run of a plan: whoever asks about a path asks for runs that others ask for too. */
export function laidOnce(index: SiteIndex, run: Run): LaidRun {
  let laid = laidByIndex.get(index)
  if (!laid) {
    laid = new WeakMap()
    laidByIndex.set(index, laid)
  }
  const known = laid.get(run)
  if (known) return known
  const made = layRun(index, run)
  laid.set(run, made)
  return made
}

/** Leads in a row have as many lanes as the one with the fewest. */
const shapeOf = (leads: readonly LaidLead[]): LeadShape =>
  leads.every(({ shape }) => shape === 'c-c' || shape === 'c-extension') ? 'c-c' : 'legacy'

/** A socket as it stands in the survey; `run` ends in it, and is not a neighbour of itself. */
export function hereOf(index: SiteIndex, { device, port }: Socket, run: Run): Here {
  const others = index.runsAt.get(device.id) ?? []
  return {
    port: portKey({ device: device.id, port: port.id }),
    controller: port.controller,
    setup: setupText(device.installed ?? []),
    farSetup: setupText(index.devices.get(run.to.device)?.installed ?? []),
    neighbours: others.some(({ id }) => id !== run.id),
  }
}

/** A socket as it gives beside the others of its device that are in use. */
export function socketInUse(index: SiteIndex, address: Run['from']): Socket {
  const socket = socketAt(index, address)
  const { device, port } = socket
  if (!device.pool) return socket
  const used = portsInUse(index, device)
  // on the bench a port is in use that no run of the plan takes
  return { device, port: pooledPort(device, port, used.includes(port) ? used : [...used, port]) }
}

/** A cable as it lies in no run: its first end toward the host, and fed where it can be. */
export function looseLead(index: SiteIndex, cable: Cable): LaidLead {
  return layLead(index, cable, OPEN_AIR, false, 'there')
}
const OPEN_AIR: End = { connector: 'type-c', gender: 'plug' }

/** What follows from a cable alone. */
type CableFacts = { known: KnownCable; shape: LeadShape; reach: Readonly<Record<Feeding, LeadReach>> }

/** Facts of a cable are kept with the cable, for as long as its kind and what was learnt of either are the same. */
const factsByCable = new WeakMap<
  Cable,
  { kind: CableKind | undefined; learnt: Learnt | undefined; ofKind: Learnt | undefined; facts: CableFacts }
>()

export function factsOf(index: SiteIndex, cable: Cable): CableFacts {
  const kind = cable.kind ? index.kinds.get(cable.kind) : undefined
  const learnt = learntOfCable(index.learned, cable.id)
  const ofKind = cable.kind ? learntOf(index.learned, { kind: cable.kind }) : undefined
  const found = factsByCable.get(cable)
  if (found && found.kind === kind && found.learnt === learnt && found.ofKind === ofKind) return found.facts
  const known = knownCable(cable, kind, learnt, ofKind)
  const shape = leadShape(cable.ends)
  const reachOf = (feeding: Feeding) =>
    withPair(leadReach(known.grade.value, cable.construction, shape, feeding), cable.pair)
  const facts: CableFacts = { known, shape, reach: { fed: reachOf('fed'), unfed: reachOf('unfed') } }
  factsByCable.set(cable, { kind, learnt, ofKind, facts })
  return facts
}

/** What a lead carries with the pair of USB 2.0 that it has or has not, where somebody knows that: beside glass it goes as far as the glass. */
function withPair(reach: LeadReach, pair: boolean | undefined): LeadReach {
  const has = reach.data.some(({ mode }) => mode === 'usb2')
  if (pair === undefined || pair === has || reach.data.length === 0) return reach
  if (!pair) return { ...reach, data: reach.data.filter(({ mode }) => mode !== 'usb2') }
  const furthest = reach.data.reduce((far, row) => (row.reach > far.reach ? row : far))
  return { ...reach, data: [{ ...furthest, mode: 'usb2' }, ...reach.data] }
}

/** A lead's trials are weighed against what it ought to do: what its grade carries by the book at its length. */
export function oughtOf({
  cable,
  reach,
  feeding,
  asks,
}: Pick<LaidLead, 'cable' | 'reach' | 'feeding' | 'asks'>): TriedLead {
  return {
    asks,
    construction: cable.construction,
    ought: (mode) =>
      !(cable.feed === 'required' && feeding === 'unfed') &&
      reach.data.some((row) => row.mode === mode && atMost(printedLength(cable.length), row.reach)),
  }
}

/** The same of a cable that lies in no run. */
export const triedLead = (index: SiteIndex, cable: Cable): TriedLead => oughtOf(looseLead(index, cable))

/** Whether a lead of this build may be so long for a mode, whatever grade it turns out to be. */
export const isWithinBook = ({ cable, shape, feeding }: LaidLead, mode: LinkMode): boolean =>
  atMost(printedLength(cable.length), bookReach(cable.construction, shape, feeding, mode))

export const knownOf = (index: SiteIndex, cable: Cable): KnownCable => factsOf(index, cable).known

function layLead(index: SiteIndex, cable: Cable, facing: End, statedReversed: boolean, mains: Mains): LaidLead {
  const { known, shape, reach } = factsOf(index, cable)
  const asks = asksOf(index.plan.policy)
  const [first, second] = cable.ends
  // a lead that goes in one way only lies that way, whatever was said of it
  const [mates, matesTurned] = [endsMate(facing, first), endsMate(facing, second)]
  const reversed = mates === matesTurned ? statedReversed : matesTurned
  // where nobody has said it is taken to be there, and said to be so
  const feeding = cable.feed !== 'bus' && mains !== 'none' ? 'fed' : 'unfed'
  return {
    site: index,
    cable,
    known,
    shape,
    reach: reach[feeding],
    feeding,
    asks,
    reversed,
    hostEnd: reversed ? second : first,
    farEnd: reversed ? first : second,
  }
}
