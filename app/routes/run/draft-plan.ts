import { withRun } from '../../../core/plan/direct-needs'
import type { Plan } from '../../../core/plan/plan'
import { put } from '../../../core/plan/put'
import type { Need } from '../../../core/vocabulary/need'
import { laidCables, type Run } from '../../../core/vocabulary/run'

/** A run as somebody types it. */
export type RunAsTyped = { run: Run; needs: readonly Need[] }

/**
 * The plan as it would be with a run that is typed. For a look ahead only: a cable that lies in another run is judged as if it lay here. Saving it still
 * says where it lies.
 */
export function planWith(plan: Plan, { run, needs }: RunAsTyped): Plan {
  const wanted = new Set(laidCables(run))
  const lies = plan.runs.filter((other) => other.id !== run.id && laidCables(other).some((cable) => wanted.has(cable)))
  return lies.reduce(
    (now, other) =>
      put(now, 'runs', { ...other, leads: other.leads.filter((lead) => !('cable' in lead && wanted.has(lead.cable))) }),
    withRun(plan, run, needs),
  )
}
