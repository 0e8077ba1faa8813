import { captiveLength } from '../../link/captive'
import { freeExtensions, type Offered, soldExtensions } from '../../match/extensions'
import { patch } from '../../plan/put'
import { leadCable } from '../../plan/site-index'
import { withKind } from '../best-lead'
import type { Move, Scene } from '../move'

/** So many extensions of a sort are tried. */
const MOST_TRIED = 4

/** An extension before the lead that lies there: it may be captive or have come with the device, and is only too short (common practice). */
export function* extensionMoves({ index, site, run, verdict }: Scene): Iterable<Move> {
  const tooShort = verdict.findings.some(
    ({ check, grade }) => (check === 'length' || check === 'play area') && grade !== 'clear',
  )
  const [first] = run.leads
  if (!tooShort || !first) return
  const own = leadCable(index, first)
  const spanned = run.leads.reduce((sum, lead) => sum + leadCable(index, lead).length, 0)
  const missing = run.route.length - captiveLength(index, run) - spanned
  const offers: Offered[] = [
    ...freeExtensions(index, own, first.reversed, missing, site.runOf).slice(0, MOST_TRIED),
    ...soldExtensions(index, own, first.reversed, missing, index.plan.policy),
  ]
  for (const { lead, kind, name, length, price, listed } of offers)
    yield {
      family: kind ? 'bought extension' : 'extension',
      words: {
        code: 'extension',
        run: run.tag,
        lead: name,
        length,
        before: own.tag,
        bought: kind !== null,
        listed,
      },
      effort: kind ? 'bought' : 'lead',
      price,
      apply: (plan) =>
        patch(kind ? withKind(plan, kind) : plan, 'runs', run.id, (now) => ({ ...now, leads: [lead, ...now.leads] })),
    }
}
