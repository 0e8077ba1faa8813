import { leadPart, runPart } from '../../checks/situation'
import { farPart, hostPart, looseLeads } from '../scene'
import { goneOrSame, type TryKind } from '../try'

const SWAPPED = 3
/** A lead that replaces a long one is laid over the floor for the test. */
const LAID_OVER_A_METRE = 0.3
const TAKES_AWAY = {
  'worn lead': 0.96,
  'lesser lead': 0.93,
  'long lead': 0.4,
  'turned lead': 0.85,
  'no feed': 0.4,
  'adapter limit': 0.6,
  'short circuit': 0.9,
  'loose plug': 0.85,
  'worn socket': 0.15,
}

/** Another lead, known good, in place of one: it tells the lead from all else. The plug is pushed in anew with it. */
export const anotherLead: TryKind = {
  *of(scene) {
    for (const lead of looseLeads(scene)) {
      const spare = scene.laid.leads.length > 1 ? scene.standIns.get(lead.cable.id) : scene.spares[0]
      yield {
        part: lead.cable.id,
        how: `Put ${spare?.tag ?? 'a lead that is known good'} in place of ${lead.cable.tag}. Change nothing else.`,
        ...(spare ? { with: spare.tag } : { lacks: 'a free lead of the drawer that would do this job' }),
        minutes: SWAPPED + scene.run.route.length * LAID_OVER_A_METRE,
        trouble: 0,
        outcomes: goneOrSame(TAKES_AWAY, [
          leadPart(lead).id,
          runPart(scene.run).id,
          hostPart(scene).id,
          farPart(scene).id,
        ]),
      }
    }
  },
}
