import { type Assessed, assess } from '../checks/assess'
import { GRADES, type Verdict, worstOf } from '../checks/finding'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import type { Watts } from '../quantity/watts'
import { roomOf } from '../remedy/room'
import type { Device, Port } from '../vocabulary/device'
import { type Need, needLabel } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** A device that sits at a desk, judged there. */
export type Sitter = {
  device: Device
  grade: Verdict
  /** What fails or is tight with it, by name. */
  short: readonly { label: string; grade: Verdict }[]
  /** Runs that end at the desk and find no socket on it. */
  noSocket: readonly string[]
  /** The most it takes over one port. */
  takes: Watts
}

export type Desk = {
  host: Device
  /** Who is planned for, then the visitors, in the order of the list. */
  sitters: readonly Sitter[]
  /** With whom the most fails; null where all do alike. */
  leastAble: Device | null
  /** Who takes the most power; null where all take alike. */
  hungriest: Device | null
}

/** The devices at which others sit now and then. */
export const desksOf = ({ devices }: Plan): Device[] => {
  const visited = new Set(devices.flatMap(({ visits }) => visits ?? []))
  return devices.filter(({ id }) => visited.has(id))
}

/** A desk judged for each who sits there: the least able and the hungriest decide what it needs (common practice). */
export function judgeDesk({ index }: Assessed, host: Device): Desk {
  const { plan } = index
  const visitors = plan.devices.filter(({ visits }) => visits === host.id)
  const [first] = index.runsAt.get(host.id) ?? []
  const room = first ? roomOf(index, first.id) : { ...plan, runs: [], needs: [] }
  const sitters = [host, ...visitors].map((device) => judgeSitter(room, host, device))
  return { host, sitters, leastAble: leastOf(sitters, abilityOf), hungriest: leastOf(sitters, ({ takes }) => -takes) }
}

/** Higher is abler. */
const abilityOf = ({ grade, short, noSocket }: Sitter): number =>
  GRADES.indexOf(grade) * 1000 - short.length - noSocket.length

function leastOf(sitters: readonly Sitter[], figure: (sitter: Sitter) => number): Device | null {
  const figures = sitters.map(figure)
  const least = Math.min(...figures)
  return figures.every((each) => each === least) ? null : (sitters[figures.indexOf(least)]?.device ?? null)
}

/** The most a device takes over any of its ports. */
const mostTaken = ({ ports }: Device): Watts => Math.max(0, ...ports.map(({ takes = 0 }) => takes))

function judgeSitter(room: Plan, host: Device, device: Device): Sitter {
  const { plan, noSocket } = seated(room, host, device)
  const { runs, needs } = assess(plan)
  const own = new Set(plan.runs.filter((run) => joins(run, device.id)).map(({ id }) => id))
  const devices = new Map(plan.devices.map((each) => [each.id, each]))
  const short = needs.flatMap(({ id, grade }) => {
    const need = plan.needs.find((each) => each.id === id)
    return need && grade !== 'clear' ? [{ label: needLabel(need, devices), grade }] : []
  })
  const grades = [
    ...runs.filter(({ id }) => own.has(id)),
    ...needs.filter(({ id }) => plan.needs.some((need) => need.id === id)),
    ...(noSocket.length > 0 ? [{ grade: 'blocked' as const }] : []),
  ]
  return { device, grade: worstOf(grades), short, noSocket, takes: mostTaken(device) }
}

const joins = ({ from, to }: Run, device: string): boolean => from.device === device || to.device === device

/**
 * The room with another device sitting where one sits: each run that ends at the desk goes into the visitor's socket of the same name, else the first of
 * the same connector that is free, and what was asked of the one is asked of the other; a power need asks for what the visitor takes.
 */
export function seated(room: Plan, host: Device, visitor: Device): { plan: Plan; noSocket: string[] } {
  if (visitor.id === host.id) return { plan: room, noSocket: [] }
  // for each socket of the host, the one of the visitor that stands for it
  const standsFor = new Map<string, Port>()
  const noSocket: string[] = []
  const runs: Run[] = []
  for (const run of room.runs) {
    const end = run.from.device === host.id ? 'from' : run.to.device === host.id ? 'to' : null
    if (end === null) {
      runs.push(run)
      continue
    }
    const own = host.ports.find(({ id }) => id === run[end].port)
    const port = standsFor.get(run[end].port) ?? socketFor(own, visitor, standsFor)
    if (port === undefined) {
      noSocket.push(run.tag)
      continue
    }
    standsFor.set(run[end].port, port)
    runs.push({ ...run, [end]: { device: visitor.id, port: port.id } })
  }
  const laid = new Set(runs.map(({ id }) => id))
  const lost = new Set(room.runs.flatMap(({ id }) => (laid.has(id) ? [] : id)))
  const takes = mostTaken(visitor)
  const needs = room.needs.map((need): Need => {
    if (need.from !== host.id && need.to !== host.id) return need
    const moved = {
      ...need,
      from: need.from === host.id ? visitor.id : need.from,
      to: need.to === host.id ? visitor.id : need.to,
      ...(need.through ? { through: need.through.filter((id) => !lost.has(id)) } : {}),
    }
    return moved.kind === 'power' && need.to === host.id && takes > 0 ? { ...moved, watts: takes } : moved
  })
  const { visits: _, ...sitting } = visitor
  const devices = [...room.devices.filter(({ id }) => id !== visitor.id), { ...sitting, place: host.place }]
  return { plan: { ...room, devices: devices as Device[], runs, needs }, noSocket }
}

/**
 * The plan with a desk planned for one of its visitors: it has the host's place, runs and needs, and the host comes and goes like the others. A run that finds
 * no socket on it stays with the host.
 */
export function plannedFor(plan: Plan, host: Device, visitor: Device): Plan {
  const sat = seated(plan, host, visitor).plan
  const runs = byId(sat.runs)
  const { visits: _, place: __, ...sitting } = visitor
  const one: Device = { ...sitting, ...(host.place === undefined ? {} : { place: host.place }) }
  const known = plan.devices.some(({ id }) => id === one.id)
  const devices = [...plan.devices, ...(known ? [] : [one])].map((each): Device => {
    if (each.id === one.id) return one
    return each.id === host.id || each.visits === host.id ? { ...each, visits: one.id } : each
  })
  return { ...plan, devices, runs: plan.runs.map((run) => runs.get(run.id) ?? run), needs: sat.needs }
}

function socketFor(port: Port | undefined, visitor: Device, standsFor: ReadonlyMap<string, Port>): Port | undefined {
  const taken = new Set([...standsFor.values()].map(({ id }) => id))
  const fitting = visitor.ports.filter(
    ({ id, connector, gender }) => !taken.has(id) && connector === port?.connector && gender === port.gender,
  )
  return fitting.find(({ id }) => id === port?.id) ?? fitting[0]
}
