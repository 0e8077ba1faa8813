import { freeCables, nearestFree } from '../../match/rank-all'
import { patch } from '../../plan/put'
import { nearestOffers, usefulOffers, withKind } from '../best-lead'
import type { Move, Scene } from '../move'

const MOST_OF_EACH = 3
/** So many that do not do it alone are tried with something else. */
const MOST_NEAREST = 2

/** Another lead: the best that lie free in the drawer, then what can be bought, in any construction and at the length that spans the route. */
export function* otherLeads({ index, site, run, crossings }: Scene): Iterable<Move> {
  const free = freeCables(index, run, crossings, MOST_OF_EACH, site.runOf).map(({ cable }) => cable)
  // what does not do it alone may do it beside something else
  const near = free.length > 0 ? [] : nearestFree(index, run, crossings, MOST_NEAREST, site.runOf)
  for (const cable of [...free, ...near]) {
    yield {
      family: 'drawer lead',
      few: true,
      words: { code: 'drawer lead', run: run.tag, cable: cable.tag, length: cable.length },
      effort: 'lead',
      price: 0,
      apply: (plan) =>
        patch(plan, 'runs', run.id, (now) => ({ ...now, leads: [{ cable: cable.id, reversed: false }] })),
    }
  }
  const useful = usefulOffers(index, run, crossings)
  const offers = useful.length > 0 ? useful : nearestOffers(index, run, crossings).slice(0, MOST_NEAREST)
  // glass and copper give up different things, so both are shown where both would do
  const kept = [
    ...offers.filter(({ kind }) => kind.construction !== 'optical').slice(0, MOST_OF_EACH),
    ...offers.filter(({ kind }) => kind.construction === 'optical').slice(0, 1),
  ]
  for (const { kind, length, price, listed } of kept) {
    const optical = kind.construction === 'optical'
    yield {
      family: optical ? 'optical lead' : 'bought lead',
      few: true,
      words: { code: 'bought lead', run: run.tag, kind: kind.name, length, listed, optical },
      effort: 'bought',
      price,
      apply: (plan) =>
        patch(withKind(plan, kind), 'runs', run.id, (now) => ({
          ...now,
          leads: [{ kind: kind.id, length, reversed: false }],
        })),
    }
  }
}
