import type { Crossing } from '../checks/situation'
import { portModes } from '../link/port-modes'
import { sharedModes } from '../link/shared-modes'
import { formatPictureMode } from '../picture/mode-text'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import type { Amps } from '../quantity/watts'
import type { End } from '../standards/connectors'
import { isExtension, leadShape } from '../standards/reach'
import { busWatts } from '../vocabulary/need'
import { soakSeconds } from '../vocabulary/policy'
import { laidCables, type PortAddress, type Run } from '../vocabulary/run'

export const RUN_TEST_KINDS = [
  'link',
  'picture',
  'write',
  'read',
  'watts',
  'volts lost',
  'warmth',
  'battery',
  'headset link',
  'frames',
  'added delay',
  'sight',
  'soak',
] as const
export type RunTestKind = (typeof RUN_TEST_KINDS)[number]

/** One test that a run is to pass as it lies, in one socket of its host end. */
export type RunTest = {
  /** Tells it from the others of its run, and stays the same as long as what it asks does. */
  key: string
  kind: RunTestKind
  socket: PortAddress
  /** What it is asked for; null: the link itself. */
  crossing: Crossing | null
  /** Seconds a soak lasts. */
  seconds: number
  /** The current at which volts lost are read. */
  amps: Amps
  /** It is asked for, and holds up no acceptance. */
  optional?: true
}

/** From so many watts on a plug is felt; below that it stays cool (common practice). */
const FELT_FROM = 30
/** From so many metres on the volts that are lost matter (common practice). */
const LOSES_FROM = 2

/**
 * The tests that a run is to pass, from what crosses it: its link, each picture, copies both ways, power, a battery, and last everything at once in a soak. A run
 * that nothing crosses yet is tested as a link. Where the site asks for each controller, the link and its soak are asked for there as well.
 */
export function runTests(index: SiteIndex, run: Run, crossings: readonly Crossing[]): RunTest[] {
  const { policy } = index.plan
  const tests: RunTest[] = []
  const seconds = soakSeconds[policy.soak]
  const own = portKey(run.from)
  const add = (
    kind: RunTestKind,
    crossing: Crossing | null,
    socket: PortAddress = run.from,
    optional = false,
  ): void => {
    const of = crossing && kind === 'picture' ? ` ${formatPictureMode(pictureOf(crossing))}` : ''
    const place = portKey(socket) === own ? '' : ` in ${portKey(socket)}`
    const key = `${kind}${of}${place}`
    const amps = Math.max(0.5, Math.min(3, (crossing ? wattsOf(crossing) : 0) / 5))
    if (!tests.some((test) => test.key === key))
      tests.push({ key, kind, socket, crossing, seconds, amps, ...(optional ? { optional } : {}) })
  }
  const data = crossings.length === 0 || crossings.some(({ need }) => need.kind !== 'power' && need.kind !== 'picture')
  const speaks = sharedModes(index, run).length > 0
  if (speaks && (data || crossings.some(({ overUsb }) => overUsb !== undefined))) add('link', null)
  for (const crossing of crossings) {
    const { need, lastMile, overUsb } = crossing
    if (need.kind === 'picture' && overUsb === undefined) add('picture', crossing)
    if (need.kind === 'storage') {
      add('write', crossing)
      add('read', crossing)
    }
    if (need.kind === 'power') add('watts', crossing)
    if (!lastMile) continue
    if (need.kind === 'picture') add('sight', crossing)
    if (need.kind === 'headset') {
      add('headset link', crossing)
      if (index.devices.get(run.to.device)?.battery) add('battery', crossing)
    }
    if (need.kind === 'camera') add('frames', crossing)
    if (need.kind === 'audio' && need.delay !== undefined) add('added delay', crossing)
    if (busWatts(need) !== undefined && run.route.length >= LOSES_FROM) add('volts lost', crossing)
  }
  const strongest = crossings.reduce<Crossing | null>(
    (most, each) => (wattsOf(each) >= Math.max(FELT_FROM, most ? wattsOf(most) : 0) ? each : most),
    null,
  )
  // a box in mid-lead may get hot at any load
  if (strongest || laidCables(run).some((id) => getsWarm(index, id))) add('warmth', strongest, run.from, true)
  const watched = speaks && (data || crossings.some(({ need }) => need.kind === 'picture'))
  if (watched || crossings.some(({ need }) => need.kind === 'picture')) add('soak', null)
  if (speaks && policy.proveIn === 'each controller')
    for (const socket of otherControllers(index, run)) {
      add('link', null, socket)
      add('soak', null, socket)
    }
  return tests
}

const pictureOf = ({ need }: Crossing) => {
  if (need.kind !== 'picture') throw new Error('no picture')
  return need.mode
}

const wattsOf = ({ need }: Crossing): number => (need.kind === 'power' ? need.watts : (busWatts(need) ?? 0))

/** It repeats the signal, is fed, or lengthens another: there is a box or a joint in it. */
function getsWarm({ cables }: SiteIndex, id: string): boolean {
  const cable = cables.get(id)
  return (
    cable !== undefined &&
    (cable.construction !== 'passive' || cable.feed !== 'bus' || isExtension(leadShape(cable.ends)))
  )
}

/** They take the same plug. */
const isAlike = (one: End, other: End): boolean =>
  one.connector === other.connector && one.gender === other.gender && one.ownPlug === other.ownPlug

/** A free socket of the same device on each other controller that takes the same plug and speaks all that the own one does. */
function otherControllers(index: SiteIndex, run: Run): PortAddress[] {
  const { device, port } = socketAt(index, run.from)
  const taken = new Set((index.runsAt.get(device.id) ?? []).flatMap(({ from, to }) => [portKey(from), portKey(to)]))
  const modes = portModes(port)
  const found = new Map<string, PortAddress>()
  for (const other of device.ports) {
    const address = { device: device.id, port: other.id }
    const controller = other.controller ?? ''
    if (other.id === port.id || controller === (port.controller ?? '') || found.has(controller)) continue
    if (taken.has(portKey(address)) || other.captive || !isAlike(other, port)) continue
    const spoken = portModes(other)
    if ([...modes].every((mode) => spoken.has(mode))) found.set(controller, address)
  }
  return [...found.values()]
}
