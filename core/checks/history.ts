import { z } from 'zod'
import { FEWEST_TRIALS, ranHotOfKind, recordOfKindOn } from '../link/record'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { kindRecord } from './aspects'
import { check, reason } from './check'
import { leadPart } from './situation'

/** What cables of the same kind did in the same mode on this controller by the shop's own trials. Whether one of them ran hot. */
export const historyCheck = check({
  name: 'history',
  reasons: {
    'kind-ran-hot': reason(
      { count: z.int() },
      ({ count }) => `${count === 1 ? 'One cable' : `${count} cables`} of this kind ran hot.`,
    ),
    history: reason(
      { passed: z.int(), tried: z.int(), mode: z.enum(LINK_MODES), controller: z.string().nullable() },
      ({ passed, tried, mode, controller }) =>
        `Cables of this kind: ${passed} of ${tried} held ${linkModeFacts[mode].name}${controller ? ` on ${controller}` : ''}.`,
    ),
  },
  remedies: [],
  reads: [kindRecord],
  source: commonPractice("the shop's own record of what works"),
  *find({ laid, index, data }) {
    const mode = data.shared
    const { controller } = laid.from.port
    for (const lead of laid.leads) {
      const { kind } = lead.cable
      if (kind === undefined) continue
      const part = leadPart(lead)
      const count = ranHotOfKind(index, kind)
      if (count > 0 && !lead.known.hot) yield { grade: 'note', part, reason: { code: 'kind-ran-hot', count } }
      if (mode === null) continue
      const { passed, tried } = recordOfKindOn(index, kind, mode, controller)
      if (tried >= FEWEST_TRIALS)
        yield {
          grade: 'note',
          part,
          reason: { code: 'history', passed, tried, mode, controller: controller ?? null },
        }
    }
  },
})
