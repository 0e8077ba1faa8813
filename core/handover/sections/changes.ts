import { gradeWords } from '../../checks/wording'
import { decimal } from '../../quantity/parsed'
import { growthWords } from '../../variants/upgrades'
import type { Section } from '../section'

/** What to buy if something changes: each upgrade the site named, with what survives it. */
export const changes: Section = {
  name: 'changes',
  title: 'If something changes',
  says: 'For each what-if of the site: what survives it, and what would have to be bought.',
  *blocks({ site, grown, length }) {
    const { plan, devices } = site.index
    const { currency } = plan.policy
    if (plan.upgrades.length === 0)
      yield { sort: 'words', text: 'No change was thought of. The page of this handover answers others.' }
    for (const upgrade of plan.upgrades) {
      const answer = grown.find((each) => each.upgrade === upgrade.id)
      if (!answer) continue
      const { survives, blocked, fallen, price, unpriced, lost } = answer
      yield { sort: 'heading', id: `change-${upgrade.id}`, text: upgrade.name }
      yield {
        sort: 'words',
        text: [
          `${upgrade.growth.map((growth) => growthWords(growth, devices)).join('; ')}.`,
          `${survives} of ${survives + fallen.length} runs that get through today survive it as they are.`,
          blocked > 0 ? `${blocked} ${blocked === 1 ? 'is' : 'are'} blocked already.` : '',
          lost.length > 0 ? `Does not get through: ${lost.join(', ')}.` : '',
          fallen.length > 0
            ? `To buy for it: ${decimal(price, 2)} ${currency}${unpriced > 0 ? `, and ${unpriced} without a price` : ''}.`
            : '',
        ]
          .filter(Boolean)
          .join(' '),
      }
      if (fallen.length > 0)
        yield {
          sort: 'table',
          heads: ['Run', 'Would be', 'Buy instead'],
          shares: [1, 1, 4],
          rows: fallen.map(({ label, to, instead }) => [
            label,
            gradeWords[to],
            instead
              ? `${instead.kind}, ${length(instead.length)}${instead.price === null ? '' : `, ${decimal(instead.price, 2)} ${currency}`}`
              : 'no single lead would do',
          ]),
        }
    }
  },
}
