import type { Finding } from '../checks/checks'
import { type Crossing, portPart } from '../checks/situation'
import { dataLink } from '../link/data-link'
import { knownOf, type LaidLead, type LaidRun, laidOnce } from '../link/lay'
import { portModes } from '../link/port-modes'
import { candidatesOf, isOffered, plugsInto } from '../match/rank'
import { talliesOf } from '../observe/links'
import { portKey, type SiteIndex, type Socket } from '../plan/site-index'
import { isBetterMode, type LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { Device, Port } from '../vocabulary/device'
import type { NeedKind } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** A run in which something is wrong, with all around it that may be to blame or may help to tell. */
export type Scene = {
  index: SiteIndex
  run: Run
  laid: LaidRun
  crossings: readonly Crossing[]
  kinds: ReadonlySet<NeedKind>
  /** The mode that ought to come up. */
  planned: LinkMode | null
  /** What `assess` calls blocked. */
  blocked: readonly Finding[]
  /** Other runs that hang on the controller of its host end. */
  neighbours: readonly Run[]
  /** Cables of the drawer that would do the job as far as is known, the best known first. */
  spares: readonly Cable[]
  /** What of the drawer could stand in for one of several leads in a row, by its cable. */
  standIns: ReadonlyMap<string, Cable>
  /** A free port of the host that takes the same plug: on another controller, or on the same one. */
  free: { port: Port; otherController: boolean } | null
  /** A free input of the far device that takes the same plug. */
  freeFar: Port | null
  /** Devices it could be told apart with: another computer, another thing like the one at the far end, another charger. */
  otherComputer: Device | null
  otherDevice: Device | null
  otherCharger: Device | null
}

/** Spare cables that are judged for the run: enough to have one, few enough to be quick on a drawer of thousands. */
const SPARES_JUDGED = 12
const SPARES_NAMED = 2

type Judged = { index: SiteIndex; crossings: readonly Crossing[]; blocked: readonly Finding[] }

/** The scene of a run. Cost follows what stands around the run and the number of cables in the drawer, not the size of the site. */
export function sceneOf({ index, crossings, blocked }: Judged, run: Run): Scene {
  const laid = laidOnce(index, run)
  const { from, to } = laid
  const data = dataLink(laid, index.plan.policy)
  const kinds = new Set(crossings.map(({ need }) => need.kind))
  const others = (index.runsAt.get(from.device.id) ?? []).filter(({ id }) => id !== run.id)
  return {
    index,
    run,
    laid,
    crossings,
    kinds,
    planned: data.shared,
    blocked,
    neighbours: others.filter((other) => isBeside(from, other)),
    spares: sparesFor(index, run, crossings),
    standIns: standInsFor(index, laid),
    free: freePort(index, from),
    freeFar: from.device.id === to.device.id ? null : (freePort(index, to)?.port ?? null),
    otherComputer: otherLike(index, from),
    otherDevice: otherLike(index, to),
    otherCharger: chargerBeside(index, laid),
  }
}

/** Whether a run hangs on the same controller as a socket; of one whose controller nobody noted, whether it is the same computer. */
function isBeside({ device, port }: Socket, other: Run): boolean {
  const end = [other.from, other.to].find((address) => address.device === device.id)
  const beside = device.ports.find(({ id }) => id === end?.port)
  return beside !== undefined && beside.controller === port.controller
}

const proofs = (index: SiteIndex, cable: Cable): number =>
  talliesOf(knownOf(index, cable).links).reduce((sum, { passed }) => sum + passed, 0)

function sparesFor(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Cable[] {
  const { from, to } = laidOnce(index, run)
  const fitting = index.plan.cables.filter(
    (cable) => !index.runOf.has(cable.id) && plugsInto(cable, from.port, to.port) && isOffered(index, cable),
  )
  const known = fitting
    .map((cable) => ({ cable, held: proofs(index, cable) }))
    .sort((one, other) => other.held - one.held || one.cable.length - other.cable.length)
    .slice(0, SPARES_JUDGED)
    .map(({ cable }) => cable)
  return candidatesOf(index, { ...run, route: { ...run.route, length: 0 } }, crossings, known)
    .filter(({ grade }) => grade !== 'blocked')
    .slice(0, SPARES_NAMED)
    .map(({ cable }) => cable)
}

const endsText = ({ ends }: Pick<Cable, 'ends'>): string =>
  ends
    .map(({ connector, gender, ownPlug = '' }) => `${connector} ${gender} ${ownPlug}`)
    .sort()
    .join(' to ')

/** For each lead of a chain a free one with the same ends: what plugs into both ports of the run does not fit in its middle. The best known first. */
function standInsFor(index: SiteIndex, { leads }: LaidRun): ReadonlyMap<string, Cable> {
  const loose = leads.filter(({ captive }) => !captive)
  if (leads.length < 2 || loose.length === 0) return new Map()
  const wanted = new Set(loose.map(({ cable }) => endsText(cable)))
  const best = new Map<string, { cable: Cable; held: number }>()
  for (const cable of index.plan.cables) {
    const ends = endsText(cable)
    if (!wanted.has(ends) || index.runOf.has(cable.id) || !isOffered(index, cable)) continue
    const held = proofs(index, cable)
    if (held > (best.get(ends)?.held ?? -1)) best.set(ends, { cable, held })
  }
  return new Map(
    loose.flatMap(({ cable }) => {
      const found = best.get(endsText(cable))
      return found ? [[cable.id, found.cable] as const] : []
    }),
  )
}

const takesSamePlug = (one: Port, other: Port): boolean =>
  one.connector === other.connector && one.gender === other.gender && one.ownPlug === other.ownPlug

const best = (port: Port): LinkMode | null =>
  [...portModes(port)].reduce<LinkMode | null>((most, mode) => (isBetterMode(mode, most) ? mode : most), null)

/** A free port of a device that takes the same plug and does no less; one on another controller first, for it tells more. */
function freePort(index: SiteIndex, { device, port }: Socket): { port: Port; otherController: boolean } | null {
  const least = best(port)
  const able = device.ports.filter(
    (other) =>
      other.id !== port.id &&
      takesSamePlug(port, other) &&
      !other.captive &&
      !index.runsIn.has(portKey({ device: device.id, port: other.id })) &&
      (least === null || !isBetterMode(least, best(other))) &&
      Boolean(other.displayport) === Boolean(port.displayport) &&
      Boolean(other.hdmi) === Boolean(port.hdmi),
  )
  const apart = able.find((other) => other.controller !== port.controller)
  const found = apart ?? able[0]
  return found ? { port: found, otherController: found === apart } : null
}

/** Another device of the same sort with a port that takes the same plug. */
function otherLike(index: SiteIndex, { device, port }: Socket): Device | null {
  return (
    index.plan.devices.find(
      (other) =>
        other.id !== device.id && other.kind === device.kind && other.ports.some((each) => takesSamePlug(port, each)),
    ) ?? null
  )
}

function chargerBeside(index: SiteIndex, { from, to }: LaidRun): Device | null {
  const feeds = [from, to].find(({ device }) => device.kind === 'charger')
  if (!feeds) return null
  return (
    index.plan.devices.find(
      (other) =>
        other.kind === 'charger' &&
        other.id !== feeds.device.id &&
        other.ports.some((each) => takesSamePlug(feeds.port, each)),
    ) ?? null
  )
}

/** The leads that can be taken out and put in: not those that end inside a device. */
export const looseLeads = ({ laid }: Scene): readonly LaidLead[] => laid.leads.filter(({ captive }) => !captive)

/** The ends of a run as parts, the host end first. */
export const hostPart = ({ laid }: Scene) => portPart(laid.from)
export const farPart = ({ laid }: Scene) => portPart(laid.to)
/** A device as a part: all its ports together. */
export const devicePart = ({ id, name }: Device) => ({ kind: 'port' as const, id, label: name })
