import { dayOf } from '../../checks/wording'
import { lessWords, stateSaid } from '../../prove/proof-words'
import type { Section } from '../section'

/** Conditions and exceptions, each with its reason. */
export const conditions: Section = {
  name: 'conditions',
  title: 'Conditions and exceptions',
  says: 'What was accepted with less, on which conditions, and what is waited for.',
  *blocks({ site, handover, proofs }) {
    const { plan } = site.index
    const rows = plan.runs.flatMap((run) => {
      const proof = proofs.get(run.id)
      const accepted = proof?.accepted
      const less = proof ? lessWords(site.index, run, proof) : ''
      const said = [
        less && `Accepted ${less}`,
        accepted && proof.state !== 'accepted' ? stateSaid(site.index, run, proof) : '',
        accepted?.conditions ? `Condition: ${accepted.conditions}` : '',
        run.waits ? `Waits since ${run.waits.on} for ${run.waits.why}` : '',
      ].filter(Boolean)
      const by = accepted ? `${dayOf(accepted.at)}${accepted.by ? `, ${accepted.by}` : ''}` : ''
      return said.length > 0 ? [[run.tag, said.join('. '), by]] : []
    })
    if (handover.conditions) yield { sort: 'words', text: handover.conditions }
    if (rows.length > 0) yield { sort: 'table', heads: ['Run', 'What', 'When and by whom'], shares: [1, 5, 2], rows }
    if (!handover.conditions && rows.length === 0)
      yield { sort: 'words', text: 'Nothing was accepted with less or on a condition.' }
  },
}
