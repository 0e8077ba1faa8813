import { emptyPlan, type Plan } from '../../core/plan/plan'
import { readPlan } from '../../core/plan/read'

/**
 * A plan said briefly: what is seen of a cable stands on the cable as `evidence` with its day, what proved a run on the run as `proofs`, the way a plan
 * file of version 1 says it. Read through the same door as every plan file.
 */
export function planFrom(parts: Record<string, unknown>): Plan {
  const file = { ...emptyPlan({ id: 'one', name: 'One' }), version: 1, ...parts }
  const read = readPlan(JSON.parse(JSON.stringify(file)))
  if (!read.ok) throw new Error(read.faults.map((fault) => `${fault.path}: ${fault.reason}`).join('\n'))
  return read.plan
}

/** A piece of evidence on a cable as `planFrom` takes it. */
export type Piece = { basis: string; on: string } & Record<string, unknown>

/** A port of a device as `planFrom` takes it, named like its id. */
export const portOf = (id: string, connector: string, more: object = {}) => ({ id, name: id, connector, ...more })

/** A run between two ports, said as "device/port", with cables in a row. */
export function runOf(id: string, from: string, to: string, ...cables: string[]) {
  const [fromDevice, fromPort] = from.split('/')
  const [toDevice, toPort] = to.split('/')
  return {
    id,
    tag: id,
    from: { device: fromDevice, port: fromPort },
    to: { device: toDevice, port: toPort },
    leads: cables.map((cable) => ({ cable })),
    route: { length: 0.3 },
  }
}
