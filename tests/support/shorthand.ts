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
