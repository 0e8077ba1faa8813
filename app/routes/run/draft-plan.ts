import { withRun } from '../../../core/plan/direct-needs'
import type { Need } from '../../../core/plan/need'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'

/** A run as somebody types it. */
export type DraftRun = { run: Run; needs: readonly Need[] }

/**
 * The plan as it would be with a run that is typed. For a look ahead only: a cable that lies in another run is judged as if it lay here. Saving it still
 * says where it lies.
 */
export function planWith(plan: Plan, { run, needs }: DraftRun): Plan {
  const wanted = new Set(run.leads.map((lead) => lead.cable))
  const laid = withRun(plan, run, needs)
  return {
    ...laid,
    runs: laid.runs.map((other) =>
      other.id !== run.id && other.leads.some((lead) => wanted.has(lead.cable))
        ? { ...other, leads: other.leads.filter((lead) => !wanted.has(lead.cable)) }
        : other,
    ),
  }
}
