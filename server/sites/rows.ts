import type { Cable, CableKind, Evidence } from '../../core/plan/cable'
import type { Device } from '../../core/plan/device'
import type { Need } from '../../core/plan/need'
import type { Run } from '../../core/plan/run'
import type { Session } from '../../core/plan/session'

/** How each aggregate of a plan lies in its tables: a function out and a function back for each. */

// biome-ignore lint/suspicious/noExplicitAny: a row is whatever its table holds; what comes of it is typed by the function that reads it
export type Row = Record<string, any>

/** Absent fields stay absent, so that a plan read back is the plan that was written. */
const present = <T extends object>(fields: T): { [K in keyof T]?: NonNullable<T[K]> } =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null && value !== undefined)) as never

export const deviceRow = (site_id: string, device: Device, position: number): Row => ({
  site_id,
  id: device.id,
  position,
  name: device.name,
  kind: device.kind,
  place_id: device.place ?? null,
  inside: JSON.stringify({
    battery: device.battery,
    disk: device.disk,
    pool: device.pool,
    busPowered: device.busPowered,
  }),
  note: device.note ?? null,
})
export const deviceOf = (row: Row, ports: readonly Row[]): Device => ({
  id: row.id,
  name: row.name,
  kind: row.kind,
  busPowered: false,
  ...present({ place: row.place_id, ...row.inside, note: row.note }),
  ports: ports.map((port) => port.spec),
})

export const cableRow = (site_id: string, cable: Cable, position: number): Row => ({
  site_id,
  id: cable.id,
  position,
  tag: cable.tag,
  kind_id: cable.kind ?? null,
  supplied_with: cable.suppliedWith ?? null,
  length: cable.length,
  construction: cable.construction,
  standing: cable.standing,
  one_way: cable.oneWay,
  awg: cable.awg ?? null,
  feed: cable.feed,
  thickness: cable.thickness ?? null,
  ends: JSON.stringify(cable.ends),
  note: cable.note ?? null,
})
export const cableOf = (row: Row, evidence: readonly Row[]): Cable => ({
  id: row.id,
  tag: row.tag,
  ...present({ kind: row.kind_id }),
  ends: row.ends,
  oneWay: Boolean(row.one_way),
  length: row.length,
  construction: row.construction,
  feed: row.feed,
  ...present({ awg: row.awg, thickness: row.thickness, suppliedWith: row.supplied_with }),
  standing: row.standing,
  evidence: evidence.map((piece) => piece.body),
  ...present({ note: row.note }),
})

export const evidenceRows = (
  site_id: string,
  { id, evidence }: { id: string; evidence: readonly Evidence[] },
  from = 0,
): Row[] => evidence.map((body, at) => ({ site_id, cable_id: id, position: from + at, body: JSON.stringify(body) }))

export const kindRow = (site_id: string, kind: CableKind, position: number): Row => ({
  site_id,
  id: kind.id,
  position,
  spec: JSON.stringify(kind),
})
export const sessionRow = (site_id: string, session: Session, position: number): Row => ({
  site_id,
  id: session.id,
  position,
  spec: JSON.stringify(session),
})

export const runRow = (site_id: string, run: Run, position: number, revision: number): Row => ({
  site_id,
  id: run.id,
  position,
  tag: run.tag,
  name: run.name ?? null,
  from_device: run.from.device,
  from_port: run.from.port,
  to_device: run.to.device,
  to_port: run.to.port,
  route_length: run.route.length,
  route_note: run.route.note ?? null,
  route_through: run.route.through ? JSON.stringify(run.route.through) : null,
  route_tight: JSON.stringify({ bend: run.route.bend, conduit: run.route.conduit }),
  note: run.note ?? null,
  proofs: JSON.stringify(run.proofs),
  revision,
})
export const leadRows = (site_id: string, run: Run): Row[] =>
  run.leads.map((lead, position) => ({
    site_id,
    run_id: run.id,
    position,
    cable_id: lead.cable,
    reversed: lead.reversed,
  }))
export const runOf = (row: Row, leads: readonly Row[]): Run => ({
  id: row.id,
  tag: row.tag,
  ...present({ name: row.name }),
  from: { device: row.from_device, port: row.from_port },
  to: { device: row.to_device, port: row.to_port },
  leads: leads.map((lead) => ({ cable: lead.cable_id, reversed: Boolean(lead.reversed) })),
  route: {
    length: row.route_length,
    ...present({ ...row.route_tight, through: row.route_through, note: row.route_note }),
  },
  proofs: row.proofs,
  ...present({ note: row.note }),
})

export const needRow = (site_id: string, { id, kind, from, to, through, ...size }: Need, position: number): Row => ({
  site_id,
  id,
  position,
  kind,
  from_device: from,
  to_device: to,
  body: JSON.stringify(size),
})
export const pinRows = (site_id: string, need: Need): Row[] =>
  (need.through ?? []).map((run_id, position) => ({ site_id, need_id: need.id, position, run_id }))
export const needOf = (row: Row, pins: readonly Row[]): Need =>
  ({
    id: row.id,
    kind: row.kind,
    from: row.from_device,
    to: row.to_device,
    ...row.body,
    ...(pins.length > 0 ? { through: pins.map((pin) => pin.run_id) } : {}),
  }) as Need
