import { replay } from '../change/apply'
import type { Edit } from '../change/change'
import { followed } from '../change/followed'
import type { Assessed } from './assess'
import { reassess } from './reassess'

/** A site as some edits would make it, judged: what saving them would come to. */
export function judged(site: Assessed, edits: readonly Edit[]): Assessed {
  const copy = { plan: site.index.plan, place: 1, revisions: new Map(), bytes: 0, grown: 0 }
  return reassess(site, replay(copy, followed(copy, edits)).copy.plan)
}
