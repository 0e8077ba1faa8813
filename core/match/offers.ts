import { assessRun, type RunVerdict } from '../checks/assess'
import { severity } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { captiveLength } from '../link/captive'
import type { Estimate } from '../link/estimate'
import { estimateOn, type ToldByOthers } from '../link/outcomes'
import { portModes } from '../link/port-modes'
import { ranHotOfKind } from '../link/record'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { bestMode, type LinkMode } from '../standards/link-modes'
import type { CableKind } from '../vocabulary/cable'
import type { Policy } from '../vocabulary/policy'
import type { LeadToBuy, Run } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import { assortment } from './assortment'
import { plugsInto } from './rank'

/** Which of two that do as much is bought: the cheapest or the dearest, as the site has it; what has no price comes last. */
export const buysFirst =
  ({ buying }: Policy) =>
  (one: Priced, other: Priced): number => {
    if (one.price === null || other.price === null) return Number(one.price === null) - Number(other.price === null)
    return buying === 'cheapest' ? one.price - other.price : other.price - one.price
  }
type Priced = { price: number | null }

/** Fewer cables than this of a kind are anecdotes; of as many, how likely the next must be to hold for the kind to be called good. */
const FEWEST = 3
const GOOD_ODDS = 0.9

/**
 * How likely a kind at a length is to hold on a run in the best mode that both its ports have, by all that was tried on this site and by what others `told`;
 * null where its ports share no mode.
 */
export function likelyOnRun(
  index: SiteIndex,
  run: Run,
  { name, construction }: CableKind,
  length: Metres,
  told?: readonly ToldByOthers[],
): Estimate | null {
  const mode = sharedMode(index, run)
  if (mode === null) return null
  const { controller } = socketAt(index, run.from).port
  const asked = { mode, construction, kind: name.toLowerCase(), length, socket: portKey(run.from) }
  return estimateOn(index, controller === undefined ? asked : { ...asked, controller }, told)
}

/** The best mode that both ports of a run have. */
function sharedMode(index: SiteIndex, run: Run): LinkMode | null {
  const far = portModes(socketAt(index, run.to).port)
  return bestMode([...portModes(socketAt(index, run.from).port)].filter((mode) => far.has(mode)))
}

/** How a kind at a length stands by the record: good, not known, or bad; the lower goes first. Where it got hot it is bad. */
export function recordRank(index: SiteIndex, kind: CableKind, likely: Estimate | null): 0 | 1 | 2 {
  if (ranHotOfKind(index, kind.id) > 0) return 2
  if (likely === null) return 1
  const { odds, ofKind } = likely
  // one that failed everywhere is known to, however few they were
  if (ofKind.tried > 0 && ofKind.held === 0) return 2
  if (ofKind.tried < FEWEST) return 1
  return atLeast(odds, GOOD_ODDS) ? 0 : 2
}

/** One kind at one length, judged for a run as if it lay there. */
export type Offer = {
  kind: CableKind
  length: Metres
  /** In the site's currency; null where nobody has said. */
  price: number | null
  /** How its kind did here: good before unknown before bad. */
  record: 0 | 1 | 2
  /** It is in the site's catalogue; otherwise only commonly sold. */
  listed: boolean
  verdict: RunVerdict
}

/**
 * What could be bought for a run: each kind of the catalogue that nobody avoids and that plugs into both ports, at the length it is sold in that does best, of equal ones the
 * shortest (or the longest, where none spans the route). In the order of the catalogue.
 */
export function offersOf(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Offer[] {
  const offers: Offer[] = []
  for (const kind of index.plan.kinds) {
    if (kind.avoid || !plugs(index, kind, run)) continue
    const sold = [...kind.stock].sort((one, other) => one.length - other.length)
    const best = bestLength(sold, index, run, ({ length, price }) =>
      offer(index, run, crossings, kind, length, { price, listed: true }),
    )
    if (best) offers.push(best)
  }
  return offers
}

/**
 * Of the lengths something is sold in the one that does best. The shortest that spans the route with slack nearly always does: any other is asked only
 * where that one is not clear, as what is a little short of the slack may carry more, and what is longer reach further.
 */
function bestLength<Sold extends { length: Metres }>(
  sold: readonly Sold[],
  index: SiteIndex,
  run: Run,
  judge: (sold: Sold) => Offer,
): Offer | null {
  const usual = spanning(sold, index, run)
  if (!usual) return null
  const first = judge(usual)
  const route = run.route.length - captiveLength(index, run)
  if (first.verdict.grade === 'clear' || !atLeast(usual.length, route)) return first
  const others = sold.filter((each) => each !== usual && atLeast(each.length, route)).map(judge)
  return [first, ...others].reduce((best, next) =>
    severity[next.verdict.grade] < severity[best.verdict.grade] ? next : best,
  )
}

/** The same of what is commonly sold and the catalogue may not have, without prices. */
export function commonOffersOf(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Offer[] {
  const wider = withAssortment(index)
  const offers: Offer[] = []
  for (const { kind, lengths } of assortment) {
    if (index.kinds.has(kind.id) || !plugs(index, kind, run)) continue
    const best = bestLength(
      lengths.map((length) => ({ length })),
      index,
      run,
      ({ length }) => offer(wider, run, crossings, kind, length, { price: null, listed: false }),
    )
    if (best) offers.push(best)
  }
  return offers
}

/** The index with what is commonly sold among its kinds, to judge by. */
const withAssortment = keptWith((index: SiteIndex): SiteIndex => {
  const kinds = new Map(assortment.map(({ kind }) => [kind.id, kind]))
  for (const [id, kind] of index.kinds) kinds.set(id, kind)
  return { ...index, kinds }
})

const plugs = (index: SiteIndex, { ends }: CableKind, run: Run): boolean =>
  plugsInto({ ends }, socketAt(index, run.from).port, socketAt(index, run.to).port)

/** A lead of a kind for a run: at the shortest length it is sold in that spans the route with slack; null where it does not plug in or is not sold so long. */
export function leadOfKind(index: SiteIndex, kind: CableKind, run: Run): LeadToBuy | null {
  const sold = [...kind.stock].sort((one, other) => one.length - other.length)
  const found = spanning(sold, index, run)
  if (!found || !plugs(index, kind, run) || !atLeast(found.length + captiveLength(index, run), run.route.length))
    return null
  return { kind: kind.id, length: found.length, reversed: false }
}

function spanning<Sold extends { length: Metres }>(
  sold: readonly Sold[],
  index: SiteIndex,
  run: Run,
): Sold | undefined {
  const wanted = leadFor(run.route.length, index.plan.policy) - captiveLength(index, run)
  return sold.find(({ length }) => atLeast(length, wanted)) ?? sold.at(-1)
}

function offer(
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  kind: CableKind,
  length: Metres,
  rest: Pick<Offer, 'price' | 'listed'>,
): Offer {
  const laid = { ...run, leads: [{ kind: kind.id, length, reversed: false }] }
  const record = recordRank(index, kind, likelyOnRun(index, run, kind, length))
  return { kind, length, ...rest, record, verdict: assessRun(index, laid, crossings) }
}
