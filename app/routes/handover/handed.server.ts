import { data } from 'react-router'
import type { Handover } from '../../../core/vocabulary/handover'
import type { Answer } from '../../../server/handover/answers'
import type { Done } from '../../../server/off-thread/pool'
import { loadSite } from '../../stored.server'

/** A handover of a site; the page of one that is not there says so. */
export async function handoverIn(siteId: string, id: string): Promise<Handover> {
  const { copy } = await loadSite(siteId)
  const handover = copy.plan.handovers.find((each) => each.id === id)
  if (!handover) throw data('There is no such handover. It may have been undone; the history has it.', { status: 404 })
  return handover
}

/** What a thread answered, or why it did not, as its page says it. */
export function answered<T>(work: Done<Answer<T>>): T {
  if (!work.done) throw data(work.problem, { status: work.status })
  if (!work.value.ok) throw data(work.value.problem, { status: 410 })
  return work.value.value
}
