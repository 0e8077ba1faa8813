import { atLeast } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { craft, type Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

/** The leads together span the route, and the slack the site keeps at both ends. */
export const lengthCheck: Check = {
  name: 'length',
  *findings({ laid, policy }: Situation): Iterable<Finding> {
    const { route } = laid.run
    if (route.follows && !route.legs)
      yield {
        check: 'length',
        grade: 'tight',
        part: runPart(laid.run),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'no-way', route: route.length },
        remedies: [{ code: 'join-pathways' }],
        source: craft,
      }
    if (laid.leads.length === 0) return
    const [only] = laid.leads
    const have = laid.leads.reduce((sum, lead) => sum + lead.cable.length, 0)
    const need = leadFor(route.length, policy)
    const code = !atLeast(have, route.length) ? 'too-short' : !atLeast(have, need) ? 'little-slack' : 'long-enough'
    yield {
      check: 'length',
      grade: code === 'too-short' ? 'blocked' : code === 'little-slack' ? 'tight' : 'clear',
      part: laid.leads.length === 1 && only ? leadPart(only) : runPart(laid.run),
      have,
      need,
      unit: 'm',
      reason: { code, route: route.length },
      remedies: code === 'long-enough' ? [] : [{ code: 'longer', length: need }],
      source: craft,
    }
  },
}
