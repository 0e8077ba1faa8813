import { type KnownCable, knownCable } from '../observe/known'
import type { RunProof } from '../observe/learned'
import type { Learnt } from '../observe/learnt'
import type { Cable, CableKind } from '../plan/cable'
import { leadKey, type Run } from '../plan/run'
import { leadCable, portsInUse, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import { pooledPort } from '../power/pool'
import { type End, endsMate } from '../standards/connectors'
import { type Feeding, type LeadReach, type LeadShape, leadReach, leadShape } from '../standards/reach'

/** A lead as it lies in a run: which of its ends faces the host, what is known of it, what its grade carries and how far. */
export type LaidLead = {
  cable: Cable
  known: KnownCable
  reversed: boolean
  hostEnd: End
  farEnd: End
  shape: LeadShape
  reach: LeadReach
  /** Whether it takes a supply of its own where the run ends. */
  feeding: Feeding
}

export type LaidRun = {
  run: Run
  from: Socket
  to: Socket
  leads: readonly LaidLead[]
  /** Trials of this very chain as it lies. */
  proofs: readonly RunProof[]
}

/**
 * Lays the leads of a run from the host port on. A lead whose second end is the only one that fits is turned round, as a
 * person would turn it; whether that is allowed is for the direction check.
 */
export function layRun(index: SiteIndex, run: Run): LaidRun {
  const from = socketInUse(index, run.from)
  const to = socketInUse(index, run.to)
  let facing: End = from.port
  const leads: LaidLead[] = []
  const mains = hasMains(index, to)
  for (const named of run.leads) {
    const cable = leadCable(index, named)
    const lead = layLead(cable, factsOf(index, cable), facing, named.reversed, mains)
    leads.push(lead)
    facing = lead.farEnd
  }
  const chain = run.leads.map(leadKey).join()
  const proofs = (index.learned.runs.get(run.id) ?? []).filter((proof) => proof.leads.join() === chain)
  return { run, from, to, leads, proofs }
}

/** A socket as it gives beside the others of its device that are in use. */
export function socketInUse(index: SiteIndex, address: Run['from']): Socket {
  const socket = socketAt(index, address)
  const { device, port } = socket
  return device.pool ? { device, port: pooledPort(device, port, portsInUse(index, device)) } : socket
}

/** A cable as it lies in no run: its first end toward the host, and fed where it can be. */
export function looseLead(index: SiteIndex, cable: Cable): LaidLead {
  return layLead(cable, factsOf(index, cable), OPEN_AIR, false, true)
}
const OPEN_AIR: End = { connector: 'type-c', gender: 'plug' }

/** What follows from a cable alone. */
type CableFacts = { known: KnownCable; shape: LeadShape; reach: Readonly<Record<Feeding, LeadReach>> }

/** Facts of a cable are kept with the cable, for as long as its kind and what was learnt of it are the same. */
const factsByCable = new WeakMap<
  Cable,
  { kind: CableKind | undefined; learnt: Learnt | undefined; facts: CableFacts }
>()

export function factsOf(index: SiteIndex, cable: Cable): CableFacts {
  const kind = cable.kind ? index.kinds.get(cable.kind) : undefined
  const learnt = index.learned.cables.get(cable.id)
  const found = factsByCable.get(cable)
  if (found && found.kind === kind && found.learnt === learnt) return found.facts
  const known = knownCable(cable, kind, learnt)
  const shape = leadShape(cable.ends)
  const reachOf = (feeding: Feeding) => leadReach(known.grade.value, cable.construction, shape, feeding)
  const facts: CableFacts = { known, shape, reach: { fed: reachOf('fed'), unfed: reachOf('unfed') } }
  factsByCable.set(cable, { kind, learnt, facts })
  return facts
}

export const knownOf = (index: SiteIndex, cable: Cable): KnownCable => factsOf(index, cable).known

/** Mains within reach of a device; where a survey does not place it, it is taken to have some. */
export const hasMains = (index: SiteIndex, { device }: Socket): boolean =>
  index.places.get(device.place ?? '')?.mains ?? true

function layLead(
  cable: Cable,
  { known, shape, reach }: CableFacts,
  facing: End,
  statedReversed: boolean,
  mains: boolean,
): LaidLead {
  const [first, second] = cable.ends
  const reversed = statedReversed || (!endsMate(facing, first) && endsMate(facing, second))
  const feeding = cable.feed !== 'bus' && mains ? 'fed' : 'unfed'
  return {
    cable,
    known,
    shape,
    reach: reach[feeding],
    feeding,
    reversed,
    hostEnd: reversed ? second : first,
    farEnd: reversed ? first : second,
  }
}
