import { byId } from '../../plan/lookup'
import type { Plan } from '../../plan/plan'
import { type Metres, sameLength } from '../../quantity/length'
import { foldTag } from '../../vocabulary/fields'
import { laidCables, type Run, withLength } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { observed, type Witness } from './observations'

/** How a run was really laid, where that differs from the plan. */
export type AsLaid = {
  /** The leads that lie there, from the host on. */
  leads: Run['leads']
  /** The length along the route, where it was measured. */
  length: Metres | null
  note?: string | undefined
}

/** Leads by the tags somebody read off them, from the host on; those that lay there keep the way round they lay. Null: a tag that no cable has. */
export function leadsByTags(plan: Plan, run: Run, tags: readonly string[]): Run['leads'] | { unknown: string } {
  const byTag = new Map(plan.cables.map((cable) => [foldTag(cable.tag), cable]))
  const leads: Run['leads'] = []
  for (const tag of tags) {
    const cable = byTag.get(foldTag(tag))
    if (!cable) return { unknown: tag }
    const before = run.leads.find((lead) => 'cable' in lead && lead.cable === cable.id)
    leads.push({ cable: cable.id, reversed: before?.reversed ?? false })
  }
  return leads
}

/** A run was laid: with these leads, along so long a route. What differs from the plan is changed in it, and the run is judged as it lies. */
export function installRun(
  plan: Plan,
  base: LogPosition,
  run: Run,
  { leads, length, note }: AsLaid,
  witness: Witness,
): ChangeToMake {
  const other = JSON.stringify(leads) !== JSON.stringify(run.leads)
  const longer = length !== null && !sameLength(length, run.route.length)
  const value: Run = { ...run, leads, route: longer ? withLength(run.route, length) : run.route }
  const cables = byId(plan.cables)
  const tags = laidCables({ leads }).map((id) => cables.get(id)?.tag ?? id)
  // a lead lies in one run: it comes out of the one where it was planned
  const taken = new Set(laidCables({ leads }))
  const robbed = plan.runs.filter((each) => each.id !== run.id && laidCables(each).some((id) => taken.has(id)))
  const seen = observed(
    [{ kind: 'laid', what: 'laid', ...(note ? { note } : {}) }],
    { run: run.id, leads: laidCables({ leads }) },
    witness,
  )
  return {
    what: {
      name: 'install run',
      about: [run.tag, ...(other ? [`with ${tags.join(' and ')}`] : []), ...(longer ? ['another length'] : [])],
    },
    edits: [
      ...(other || longer ? [{ list: 'runs', id: run.id, base, value } satisfies Edit] : []),
      ...robbed.map(
        (each): Edit => ({
          list: 'runs',
          id: each.id,
          base,
          value: { ...each, leads: each.leads.filter((lead) => !('cable' in lead && taken.has(lead.cable))) },
        }),
      ),
      ...seen.map((each): Edit => ({ list: 'observations', id: each.id, base: null, value: each })),
    ],
  }
}

/** The leads of a run were taken out again; the plan of it stays. */
export const takeOutRun = (run: Run, witness: Witness): ChangeToMake => ({
  what: { name: 'take out run', about: [run.tag] },
  edits: observed([{ kind: 'laid', what: 'taken out' }], { run: run.id, leads: laidCables(run) }, witness).map(
    (value): Edit => ({ list: 'observations', id: value.id, base: null, value }),
  ),
})

/** A run was brought up part by part: all of it worked, or it broke when a part was added. */
export function bringUp(run: Run, broke: string | null, witness: Witness): ChangeToMake {
  const saw = broke === null ? 'each part added worked' : `it broke when ${broke} was added`
  return {
    what: { name: 'bring up', about: [run.tag, saw] },
    edits: observed(
      [{ kind: 'symptom', saw: `Brought up part by part: ${saw}` }],
      { run: run.id, leads: laidCables(run) },
      witness,
    ).map((value): Edit => ({ list: 'observations', id: value.id, base: null, value })),
  }
}
