import { assessRun, walkNeeds } from '../checks/assess'
import { severity } from '../checks/finding'
import { captiveLength } from '../link/captive'
import { buysFirst, commonOffersOf, type Offer, offersOf } from '../match/offers'
import { freeCables } from '../match/rank-all'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { put } from '../plan/put'
import { indexPlan, type SiteIndex } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import type { CableKind } from '../vocabulary/cable'
import type { Equipment } from '../vocabulary/policy'
import type { Run } from '../vocabulary/run'

/** Past this, active copper and optical leads compete for data (common practice). */
const FAR = 5

/** What is clear first, and of what is alike what this site buys first; where the site prefers copper or glass for data over a long way, that one of equal grades. */
function inOrder({ plan }: SiteIndex, { route }: Run, offers: readonly Offer[]): Offer[] {
  const prefers = route.length > FAR && plan.policy.farData !== 'both' ? plan.policy.farData : null
  const second = ({ kind }: Offer): number =>
    prefers !== null && (kind.construction === 'optical') !== (prefers === 'optical') ? 1 : 0
  const bought = buysFirst(plan.policy)
  return [...offers].sort(
    (one, other) =>
      severity[one.verdict.grade] - severity[other.verdict.grade] ||
      one.record - other.record ||
      second(one) - second(other) ||
      bought(one, other) ||
      one.length - other.length,
  )
}

/** What can be bought for a run and does the job, what is clear and what this site buys first; what the catalogue lacks only where nothing of it is clear. */
export function usefulOffers(index: SiteIndex, run: Run, crossings: Parameters<typeof offersOf>[2]): Offer[] {
  const does = ({ verdict }: Offer): boolean => verdict.grade !== 'blocked'
  const listed = inOrder(index, run, offersOf(index, run, crossings).filter(does))
  if (listed[0]?.verdict.grade === 'clear') return listed
  return inOrder(index, run, [...listed, ...commonOffersOf(index, run, crossings).filter(does)])
}

/**
 * What comes nearest where nothing that is sold does the job alone: it spans the route, and least stands against it. With something else beside it, it may do.
 */
export function nearestOffers(index: SiteIndex, run: Run, crossings: Parameters<typeof offersOf>[2]): Offer[] {
  const against = ({ verdict: { findings } }: Offer, grade: 'blocked' | 'tight'): number =>
    findings.filter((finding) => finding.grade === grade).length
  const offers = [...offersOf(index, run, crossings), ...commonOffersOf(index, run, crossings)]
  const route = run.route.length - captiveLength(index, run)
  const spanning = inOrder(index, run, offers).filter(({ length }) => atLeast(length, route))
  return spanning.sort(
    (one, other) =>
      against(one, 'blocked') - against(other, 'blocked') || against(one, 'tight') - against(other, 'tight'),
  )
}

/** The plan with a kind in its catalogue. */
export const withKind = (plan: Plan, kind: CableKind): Plan =>
  plan.kinds.some(({ id }) => id === kind.id) ? plan : put(plan, 'kinds', kind)

/**
 * The plan with the best lead for each of some runs that were moved: the one that lies there where it still does the job, else the best that is free in
 * the drawer, else what this site buys first of what is sold. A run that none does the job of keeps what it has. The price is of what has to be bought.
 */
export function withBestLeads(
  plan: Plan,
  runIds: readonly string[],
  taken: SiteIndex['runOf'],
): { plan: Plan; price: number | null } {
  let now = plan
  let price: number | null = 0
  for (const id of runIds) {
    const index = indexPlan(now)
    const run = index.runs.get(id)
    if (!run) continue
    const crossings = walkNeeds(index).crossings.get(id) ?? []
    const standing = run.leads.length > 0 ? assessRun(index, run, crossings).grade : 'blocked'
    if (standing === 'clear') continue
    const [free] = freeCables(index, run, crossings, 1, taken)
    if (free && severity[free.grade] < severity[standing]) {
      now = put(now, 'runs', { ...run, leads: [{ cable: free.cable.id, reversed: false }] })
      if (free.grade === 'clear') continue
    }
    const reached = free ? Math.min(severity[free.grade], severity[standing]) : severity[standing]
    const [offer] = usefulOffers(index, run, crossings)
    if (!offer || severity[offer.verdict.grade] >= reached) continue
    now = withKind(now, offer.kind)
    now = put(now, 'runs', { ...run, leads: [{ kind: offer.kind.id, length: offer.length, reversed: false }] })
    price = price === null || offer.price === null ? null : price + offer.price
  }
  return { plan: now, price }
}

/** The kinds of a plan with those that another made of it has beside them: each by its id, as both may have brought one into the catalogue. */
export function withKindsOf(plan: Plan, made: Plan): Plan['kinds'] {
  const fresh = made.kinds.filter(({ id }) => !byId(plan.kinds).has(id))
  return fresh.length === 0 ? plan.kinds : [...plan.kinds, ...fresh]
}

/** What leads come to with a device beside them; null where nobody has said what one of them costs. */
export function priceWith({ plan }: SiteIndex, device: Equipment, leads: number | null): number | null {
  const price = plan.policy.equipment[device]
  return price === undefined || leads === null ? null : price + leads
}
