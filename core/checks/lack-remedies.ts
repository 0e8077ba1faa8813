import type { PictureLack } from '../link/picture-link'
import { atLeast, atMost } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { bookReach } from '../standards/reach'
import type { RemedyOf } from './remedies'
import { lackFigures, type Situation } from './situation'

export const LACK_REMEDIES = ['feed-lead', 'test-it', 'other-lead', 'better-grade', 'shorter', 'active'] as const

/** What would carry the mode that a lead lacks, on this route: what no lead of its build does at that length is not said. */
export function* remediesFor(
  lack: PictureLack,
  { laid: { run, leads }, policy }: Pick<Situation, 'laid' | 'policy'>,
): Iterable<RemedyOf<(typeof LACK_REMEDIES)[number]>> {
  const { lead, mode } = lack
  const figures = lackFigures(lack)
  const { construction, feed } = lead.cable
  // of several leads in a row each spans a part of the route
  const others = leads.reduce((sum, each) => (each === lead ? sum : sum + each.cable.length), 0)
  const spanned = Math.max(0, leadFor(run.route.length, policy) - others)
  const reachOf = (build: typeof construction, feeding: 'fed' | 'unfed' = lead.feeding): number =>
    bookReach(build, lead.shape, feeding, mode)
  if (figures.unfed && (lack.why === 'unfed' || atLeast(reachOf(construction, 'fed'), lead.cable.length)))
    yield { code: 'feed-lead' }
  if (lack.why === 'unfed') return
  if (lack.why === 'doubted') yield { code: 'test-it' }
  else if (lack.why === 'failed') yield { code: 'other-lead' }
  else {
    const { reach } = figures
    if (lack.why === 'grade' && atMost(lead.cable.length, reachOf(construction))) yield { code: 'better-grade', mode }
    if (reach !== null && feed === 'bus' && atMost(spanned, reach)) yield { code: 'shorter', reach, mode }
    const repeats = (['active', 'optical'] as const).find(
      (build) => build !== construction && atMost(spanned, reachOf(build)),
    )
    if (repeats && construction === 'passive')
      yield { code: 'active', length: Math.max(spanned, 0.5), mode, build: repeats }
  }
}
