import type { Run } from '../../vocabulary/run'
import type { Card } from '../block'
import { leadTags, socketWords, stateOf, usesWords } from '../run-words'
import type { BookOf, Section } from '../section'

/** A card for each run, with the code that opens it. */
export const cards: Section = {
  name: 'cards',
  title: 'A card for each run',
  says: 'To be cut out and left at the run; the code on it opens its page.',
  *blocks(of) {
    const { plan } = of.site.index
    for (let from = 0; from < plan.runs.length; from += AT_ONCE)
      yield { sort: 'cards', cards: plan.runs.slice(from, from + AT_ONCE).map((run) => cardOf(of, run)) }
  },
}

/** A screen shows some at a time; on paper nothing tells where one lot ends. */
const AT_ONCE = 40

function cardOf(of: BookOf, run: Run): Card {
  const { index } = of.site
  const proof = of.proofs.get(run.id)
  return {
    title: run.tag,
    lines: [
      `${socketWords(index, run.from)} to ${socketWords(index, run.to)}`,
      `${leadTags(index, run)}, ${of.length(run.route.length)}`,
      usesWords(of, run),
      ...(proof ? [stateOf(proof)] : []),
    ],
    path: `/sites/${index.plan.site.id}/runs/${run.id}`,
  }
}
