import type { RunVerdict } from '../../checks/assess'
import type { CheckName } from '../../checks/checks'
import { captiveLength } from '../../link/captive'
import { freeExtensions, type Offered, soldExtensions } from '../../match/extensions'
import { patch } from '../../plan/put'
import { leadCable } from '../../plan/site-index'
import type { Metres } from '../../quantity/length'
import { withKind } from '../best-lead'
import type { Move, Scene } from '../move'

/** So many extensions of a sort are tried. */
const MOST_TRIED = 4

const LENGTH: readonly CheckName[] = ['length', 'play area']
const POWER: readonly CheckName[] = ['current', 'battery', 'bus budget', 'volts lost']
const isShortOf = ({ findings }: RunVerdict, checks: readonly CheckName[]): boolean =>
  findings.some(({ check, grade }) => checks.includes(check) && (grade === 'tight' || grade === 'blocked'))

/**
 * An extension before the lead that lies there: it may be captive or have come with the device, and is only too short. Where power is what lacks, a feed adapter,
 * which lets in what a charger beside it gives (common practice).
 */
export function* extensionMoves({ index, site, run, verdict }: Scene): Iterable<Move> {
  const tooShort = isShortOf(verdict, LENGTH)
  const underfed = isShortOf(verdict, POWER)
  const [first] = run.leads
  if (!(tooShort || underfed) || !first) return
  const own = leadCable(index, first)
  const spanned = run.leads.reduce((sum, lead) => sum + leadCable(index, lead).length, 0)
  const missing = run.route.length - captiveLength(index, run) - spanned
  const feeds = ({ passesOn }: Offered): boolean => passesOn !== undefined
  const offered = (missing: Metres, fits: (offer: Offered) => boolean): Offered[] => [
    ...freeExtensions(index, own, first.reversed, missing, site.runOf).filter(fits).slice(0, MOST_TRIED),
    ...soldExtensions(index, own, first.reversed, missing, index.plan.policy).filter(fits),
  ]
  const offers = [
    ...(tooShort ? offered(missing, (offer) => !feeds(offer)) : []),
    // whatever its length, it lets power in
    ...(underfed ? offered(0, feeds) : []),
  ]
  for (const { lead, kind, name, length, price, listed, passesOn } of offers)
    yield {
      family: `${kind ? 'bought ' : ''}${passesOn === undefined ? 'extension' : 'feed adapter'}`,
      words: {
        run: run.tag,
        lead: name,
        before: own.tag,
        bought: kind !== null,
        listed,
        ...(passesOn === undefined ? { code: 'extension', length } : { code: 'feed adapter', watts: passesOn }),
      },
      effort: kind ? 'bought' : 'lead',
      price,
      apply: (plan) =>
        patch(kind ? withKind(plan, kind) : plan, 'runs', run.id, (now) => ({ ...now, leads: [lead, ...now.leads] })),
    }
}
