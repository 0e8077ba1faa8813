import { trialOf } from '../link/chain'
import { knownOf } from '../link/lay'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

const source = commonPractice("the shop's own record of what works")
/** Fewer trials than this are anecdotes. */
const FEWEST = 3

/** What cables of the same kind did in the same mode on this controller, as the shop's own trials have it. */
export const historyCheck: Check = {
  name: 'history',
  *findings({ laid, index, data }: Situation): Iterable<Finding> {
    const { shared } = data
    if (shared === null) return
    const { controller } = laid.from.port
    for (const lead of laid.leads) {
      const { kind } = lead.cable
      if (kind === undefined) continue
      const siblings = index.plan.cables.filter((cable) => cable.kind === kind)
      const verdicts = siblings.flatMap((cable) => trialOf(knownOf(index, cable).trials, shared, controller) ?? [])
      if (verdicts.length < FEWEST) continue
      yield {
        check: 'history',
        grade: 'note',
        part: leadPart(lead),
        have: null,
        need: null,
        unit: null,
        reason: {
          code: 'history',
          passed: verdicts.filter(({ passed }) => passed).length,
          tried: verdicts.length,
          mode: shared,
          controller: controller ?? null,
        },
        remedies: [],
        source,
      }
    }
  },
}
