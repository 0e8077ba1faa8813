import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { portPart, wantedWatts } from './situation'

/** A type-C port without its two resistors asks a type-C supply for nothing, and is given nothing; from a type-A socket 5 V always come. */
export const resistorsCheck = check({
  name: 'resistors',
  reasons: {
    'lacks-resistors': reason(
      {},
      (_, { label }) =>
        `${label} lacks the two type-C resistors: a C-to-C lead gives it nothing, a lead from a type-A socket does.`,
    ),
  },
  remedies: ['a-to-c-lead'],
  reads: [],
  source: commonPractice('a device without the two type-C resistors charges from an A-to-C lead only'),
  *find({ laid, crossings }) {
    const { from, to, leads } = laid
    if (leads.length === 0 || leads.some(({ cable }) => cable.ends.some(({ connector }) => connector !== 'type-c')))
      return
    const wanted = crossings.some((crossing) => (wantedWatts(crossing) ?? 0) > 0)
    for (const socket of [from, to])
      if (socket.port.lacksResistors)
        yield {
          grade: wanted ? 'blocked' : 'note',
          part: portPart(socket),
          reason: { code: 'lacks-resistors' },
          remedies: [{ code: 'a-to-c-lead' }],
        }
  },
})
