import { replay } from '../change/apply'
import type { Edit } from '../change/change'
import type { Assessed } from './assess'
import { reassess } from './reassess'

/** A site as some edits would make it, judged: what saving them would come to. */
export const judged = (site: Assessed, edits: readonly Edit[]): Assessed =>
  reassess(site, replay({ plan: site.index.plan, place: 1, revisions: new Map(), bytes: 0 }, edits).copy.plan)
