import { socketName } from '../../plan/site-index'
import { restsWords, stateSaid } from '../../prove/proof-words'
import type { Run } from '../../vocabulary/run'
import type { Card } from '../block'
import { leadTags, usesWords } from '../run-words'
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
  const rests = proof?.accepted?.rests
  return {
    title: run.tag,
    lines: [
      `${socketName(index.devices, run.from)} to ${socketName(index.devices, run.to)}`,
      `${leadTags(index, run)}, ${of.length(run.route.length)}`,
      usesWords(of, run),
      ...(proof ? [stateSaid(index, run, proof)] : []),
      ...(rests ? [`Rests on: ${restsWords(index, run, rests, of.length).slice(1).join('; ')}`] : []),
    ],
    path: `/sites/${index.plan.site.id}/runs/${run.id}`,
  }
}
