import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, portPart, type Situation, wantedWatts } from './situation'

const source = commonPractice('a device without the two type-C resistors charges from an A-to-C lead only')

/** A type-C port without its two resistors asks a type-C supply for nothing, and is given nothing; from a type-A socket 5 V always come. */
export const resistorsCheck: Check = {
  name: 'resistors',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    const { from, to, leads } = laid
    if (leads.length === 0 || leads.some(({ cable }) => cable.ends.some(({ connector }) => connector !== 'type-c')))
      return
    const wanted = crossings.some((crossing) => (wantedWatts(crossing) ?? 0) > 0)
    for (const socket of [from, to]) {
      if (!socket.port.lacksResistors) continue
      yield {
        check: 'resistors',
        grade: wanted ? 'blocked' : 'note',
        part: portPart(socket),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'lacks-resistors' },
        remedies: [{ code: 'a-to-c-lead' }],
        source,
      }
    }
  },
}
