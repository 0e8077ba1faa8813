import type { LaidLead } from '../link/lay'
import { ranHotOfKind, recordOfKindOn } from '../link/record'
import { commonPractice } from '../standards/source'
import type { Finding, Reason } from './finding'
import { type Check, leadPart, type Situation } from './situation'

const source = commonPractice("the shop's own record of what works")
/** Fewer trials than this are anecdotes. */
const FEWEST = 3

/** What cables of the same kind did in the same mode on this controller, as the shop's own trials have it. */
export const historyCheck: Check = {
  name: 'history',
  *findings({ laid, index, data }: Situation): Iterable<Finding> {
    yield* hotKinds(laid, index)
    const { shared } = data
    if (shared === null) return
    const { controller } = laid.from.port
    for (const lead of laid.leads) {
      const { kind } = lead.cable
      if (kind === undefined) continue
      const { passed, tried } = recordOfKindOn(index, kind, shared, controller)
      if (tried < FEWEST) continue
      yield told(lead, { code: 'history', passed, tried, mode: shared, controller: controller ?? null })
    }
  },
}

/** A kind of which some ran hot is told wherever one of it lies, or is to be bought. */
function* hotKinds(laid: Situation['laid'], index: Situation['index']): Iterable<Finding> {
  for (const lead of laid.leads) {
    const { kind } = lead.cable
    const count = kind === undefined ? 0 : ranHotOfKind(index, kind)
    if (count === 0 || lead.known.hot) continue
    yield told(lead, { code: 'kind-ran-hot', count })
  }
}

const told = (lead: LaidLead, reason: Reason): Finding => ({
  check: 'history',
  grade: 'note',
  part: leadPart(lead),
  have: null,
  need: null,
  unit: null,
  reason,
  remedies: [],
  source,
})
