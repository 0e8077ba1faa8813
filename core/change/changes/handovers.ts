import type { Handover } from '../../vocabulary/handover'
import type { ChangeToMake } from '../change'

/** Hands a site over as it stands at a place of its log. What is handed over is never edited; another follows it. */
export const handOver = (handover: Handover): ChangeToMake => ({
  what: { name: 'hand over', about: [handover.name, handover.client] },
  edits: [{ list: 'handovers', id: handover.id, base: null, value: handover }],
})
