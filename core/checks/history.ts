import { recordOfKindOn } from '../observe/record'
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
      const { passed, tried } = recordOfKindOn(index, kind, shared, controller)
      if (tried < FEWEST) continue
      yield {
        check: 'history',
        grade: 'note',
        part: leadPart(lead),
        have: null,
        need: null,
        unit: null,
        reason: {
          code: 'history',
          passed,
          tried,
          mode: shared,
          controller: controller ?? null,
        },
        remedies: [],
        source,
      }
    }
  },
}
