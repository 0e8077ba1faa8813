import type { Device, Port } from '../vocabulary/device'
import type { PortAddress, Run, RunLead } from '../vocabulary/run'
import type { Plan } from './plan'
import { indexPlan, portKey, type SiteIndex } from './site-index'

/** What the next run like one begins with; an end is null where nothing like it is free. */
export type RunLike = { from: PortAddress | null; to: PortAddress | null; leads: readonly RunLead[]; length: number }

/**
 * One more run like another: from the next free port of that sort at the same device, to a device of the same kind that nothing is connected to yet, with
 * leads of the same kinds, to be had. A cable whose kind nobody named is left out, as it lies in one run only.
 */
export function runLike(plan: Plan, run: Run): RunLike {
  const index = indexPlan(plan)
  const host = index.devices.get(run.from.device)
  const device = index.devices.get(run.to.device)
  const fromPort = portOf(host, run.from)
  const toPort = portOf(device, run.to)
  const from = host && fromPort ? freePort(index, host, fromPort) : null
  const others = plan.devices.filter(
    ({ id, kind }) => kind === device?.kind && id !== run.from.device && !index.runsAt.has(id),
  )
  const to = toPort ? first(others.map((other) => freePort(index, other, toPort))) : null
  const leads = run.leads.flatMap((lead): RunLead[] => {
    if ('kind' in lead) return [lead]
    const cable = index.cables.get(lead.cable)
    return cable?.kind ? [{ kind: cable.kind, length: cable.length, reversed: false }] : []
  })
  return { from, to, leads: leads.length === run.leads.length ? leads : [], length: run.route.length }
}

const portOf = (device: Device | undefined, { port }: PortAddress): Port | undefined =>
  device?.ports.find(({ id }) => id === port)

/** A free port of a device that mates as another does: the same connector, socket or plug. */
function freePort(index: SiteIndex, { id, ports }: Device, like: Port): PortAddress | null {
  const found = ports.find(
    ({ id: port, connector, gender }) =>
      connector === like.connector && gender === like.gender && !index.runsIn.has(portKey({ device: id, port })),
  )
  return found ? { device: id, port: found.id } : null
}

const first = <T>(list: readonly (T | null)[]): T | null => list.find((each) => each !== null) ?? null
