import { chainLack, type Doubt } from '../link/chain'
import { oughtOf } from '../link/lay'
import { seenOfMode } from '../observe/trials'
import { atLeast } from '../quantity/limit'
import { craft, type Finding, type Reason } from './finding'
import { type Check, leadPart, type Situation } from './situation'

/** What was seen of the leads: what may not be relied on, where evidence disagrees, and a pass beyond the book beside the book's verdict. */
export const evidenceCheck: Check = {
  name: 'evidence',
  *findings(situation: Situation): Iterable<Finding> {
    const { laid, data, policy } = situation
    yield* doubted(situation)
    const bare = { check: 'evidence', grade: 'note', have: null, need: null, unit: null, source: craft } as const
    for (const lead of laid.leads) {
      for (const conflict of lead.known.conflicts) {
        yield { ...bare, part: leadPart(lead), reason: { code: 'conflict', conflict }, remedies: [{ code: 'test-it' }] }
      }
      if (data.shared === null || lead.known.trials.length === 0) continue
      const beyondBook =
        chainLack(
          [lead],
          data.shared,
          ({ reach }) => reach.data,
          () => false,
        ) !== null
      const { here } = seenOfMode(lead.known.trials, data.shared, oughtOf(lead), laid.here)
      if (beyondBook && here?.says === 'holds') {
        const reason = {
          code: 'bench-pass',
          mode: data.shared,
          counts: policy.length === 'bench' || data.mode === data.shared,
          at: here.trial.at,
        } as const
        yield { ...bare, part: leadPart(lead), reason, remedies: [] }
      }
    }
  },
}

/** Each need that is carried only as long as something holds that nobody may rely on; of a run that nothing crosses yet, the run itself. */
function* doubted({ data, admissions, sure, crossings }: Situation): Iterable<Finding> {
  if (sure === null) return
  const bare = { check: 'evidence', have: null, need: null, unit: null, source: craft } as const
  if (crossings.length === 0) {
    if (data.doubt && data.mode)
      yield {
        ...bare,
        grade: 'tight',
        part: leadPart(data.doubt.lead),
        reason: doubtReason(data.doubt, data.mode),
        remedies: [{ code: 'test-it' }],
      }
    return
  }
  const surely = new Map(sure.admissions.map((admission) => [admission.need.id, admission]))
  for (const { need, have, wanted, carrier } of admissions) {
    if (!carrier || !atLeast(have, wanted)) continue
    const now = surely.get(need.id)
    if (now?.carrier && atLeast(now.have, now.wanted)) continue
    const doubt = data.doubt ?? (sure.data.lack?.why === 'doubted' ? sure.data.lack.doubt : sure.doubt)
    if (!doubt) continue
    yield {
      ...bare,
      grade: 'tight',
      part: leadPart(doubt.lead),
      needId: need.id,
      reason: doubtReason(doubt, data.mode),
      remedies: [{ code: 'test-it' }],
    }
  }
}

const doubtReason = ({ why, held, failed }: Doubt, mode: Situation['data']['mode']): Reason => ({
  code: 'doubted',
  why,
  held,
  failed,
  mode,
})
