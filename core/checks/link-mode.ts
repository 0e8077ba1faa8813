import { z } from 'zod'
import { wasSeenToCarry } from '../link/seen-to-carry'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { lackSchema } from './finding'
import { LACK_REMEDIES, remediesFor } from './lack-remedies'
import { lackFigures, leadPart, runPart } from './situation'
import { lackSentence } from './wording'

const asTried = commonPractice('a measurement on this cable')
const chargeOnly = commonPractice('charge-only leads fit everywhere and carry no data')

/** The mode that comes up, who limits it, and what would widen it. "Works" at a lower mode is a failure that looks like success. */
export const linkModeCheck = check({
  name: 'link mode',
  reasons: {
    'charge-only': reason(
      {},
      (_, { label }) => `${label} is a charge-only lead: it fits and charges, and carries no data and no picture.`,
    ),
    'unknown-lead': reason(
      {},
      (_, { label }) => `Nothing is known about what ${label} carries; nothing can be promised until it is tested.`,
    ),
    mode: reason(
      { mode: z.enum(LINK_MODES) },
      ({ mode }) => `Comes up as ${linkModeFacts[mode].name}, the best both ports can do.`,
    ),
    falls: reason(
      { mode: z.enum(LINK_MODES).nullable(), shared: z.enum(LINK_MODES), lack: lackSchema },
      ({ mode, lack }, { label, unit }) =>
        `${lackSentence(lack, label, unit)} ${mode ? `It comes up as ${linkModeFacts[mode].name}.` : 'No link comes up.'}`,
    ),
  },
  remedies: LACK_REMEDIES,
  reads: [],
  source: commonPractice('what leads of this grade carry'),
  *find({ laid, data, crossings, policy }) {
    if (laid.leads.length === 0 || data.shared === null) return
    const measured = {
      have: data.mode ? linkModeFacts[data.mode].line : 0,
      need: linkModeFacts[data.shared].line,
      unit: 'bit/s',
    } as const
    const wantsData = crossings.length === 0 || crossings.some(({ need }) => !['power', 'picture'].includes(need.kind))

    const idle = laid.leads.find((lead) => lead.known.grade.value === 'charge-only')
    const unknown = laid.leads.find((lead) => lead.known.grade.value === null)
    const mute = idle ?? unknown
    if (data.mode === null && mute) {
      // where all that it has to carry was seen to get through, what else it may carry is nobody's question
      const carries = !wantsData && crossings.every(({ need }) => wasSeenToCarry(laid, need))
      yield {
        grade: wantsData || (unknown && !carries) ? 'blocked' : 'note',
        part: leadPart(mute),
        measured,
        reason: idle ? { code: 'charge-only' } : { code: 'unknown-lead' },
        remedies: idle ? [{ code: 'better-grade', mode: data.shared }] : [{ code: 'test-it' }],
        source: chargeOnly,
      }
      return
    }
    if (data.lack) {
      const lack = lackFigures(data.lack)
      yield {
        // where nobody has said what must flow, a fall is the only warning there is; otherwise the rate check judges it
        grade:
          crossings.length === 0 && data.mode !== null ? 'tight' : data.mode === null && wantsData ? 'blocked' : 'note',
        part: leadPart(data.lack.lead),
        measured,
        reason: { code: 'falls', mode: data.mode, shared: data.shared, lack },
        remedies: [...remediesFor(data.lack, { laid, policy })],
        ...('source' in data.lack ? { source: data.lack.source } : data.lack.why === 'failed' && { source: asTried }),
      }
      return
    }
    if (data.mode === null) return
    yield {
      grade: 'clear',
      part: runPart(laid.run),
      measured,
      reason: { code: 'mode', mode: data.mode },
      source: linkModeFacts[data.mode].source,
    }
  },
})
