import { atLeast } from '../quantity/limit'
import { craft, type Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

/** The leads together span the route, and the slack the site keeps at both ends. */
export const lengthCheck: Check = {
  name: 'length',
  *findings({ laid, policy }: Situation): Iterable<Finding> {
    if (laid.leads.length === 0) return
    const [only] = laid.leads
    const have = laid.leads.reduce((sum, lead) => sum + lead.cable.length, 0)
    const route = laid.run.route.length
    const need = route * (1 + policy.slack)
    const code = !atLeast(have, route) ? 'too-short' : !atLeast(have, need) ? 'little-slack' : 'long-enough'
    yield {
      check: 'length',
      grade: code === 'too-short' ? 'blocked' : code === 'little-slack' ? 'tight' : 'clear',
      part: laid.leads.length === 1 && only ? leadPart(only) : runPart(laid.run),
      have,
      need,
      unit: 'm',
      reason: { code, route },
      remedies: code === 'long-enough' ? [] : [{ code: 'longer', length: need }],
      source: craft,
    }
  },
}
