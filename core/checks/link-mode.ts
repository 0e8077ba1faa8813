import { linkModeFacts } from '../standards/link-modes'
import { commonPractice, type Source } from '../standards/source'
import type { Finding, Remedy } from './finding'
import { type Check, lackFigures, leadPart, runPart, type Situation } from './situation'

const trialSource = commonPractice('a measurement on this cable')

/** The mode that comes up, who limits it, and what would widen it. "Works" at a lower mode is a failure that looks like success. */
export const linkModeCheck: Check = {
  name: 'link mode',
  *findings({ laid, data, crossings }: Situation): Iterable<Finding> {
    const bare = { check: 'link mode', have: data.mode ? linkModeFacts[data.mode].line : null, unit: 'bit/s' } as const
    if (laid.leads.length === 0 || data.shared === null) return
    const need = linkModeFacts[data.shared].line
    const wantsData =
      crossings.length === 0 || crossings.some(({ need: crossing }) => !['power', 'picture'].includes(crossing.kind))

    const chargeOnly = laid.leads.find((lead) => lead.known.grade.value === 'charge-only')
    const unknown = laid.leads.find((lead) => lead.known.grade.value === null)
    const dumb = chargeOnly ?? unknown
    if (data.mode === null && dumb) {
      yield {
        ...bare,
        have: 0,
        need,
        grade: wantsData || unknown ? 'blocked' : 'note',
        part: leadPart(dumb),
        reason: { code: chargeOnly ? 'charge-only' : 'unknown-lead' },
        remedies: chargeOnly ? [{ code: 'better-grade', mode: data.shared }] : [{ code: 'test-it' }],
        source: commonPractice('charge-only leads fit everywhere and carry no data'),
      }
      return
    }
    if (data.lack) {
      const lack = lackFigures(data.lack)
      yield {
        ...bare,
        have: bare.have ?? 0,
        need,
        // where nobody has said what must flow, a fall is the only warning there is; otherwise the rate check judges it
        grade:
          crossings.length === 0 && data.mode !== null ? 'tight' : data.mode === null && wantsData ? 'blocked' : 'note',
        part: leadPart(data.lack.lead),
        reason: { code: 'falls', mode: data.mode, shared: data.shared, lack },
        remedies: [...remediesFor(lack)],
        source: 'source' in data.lack ? data.lack.source : data.lack.why === 'failed' ? trialSource : gradeSource,
      }
      return
    }
    if (data.mode === null) return
    yield {
      ...bare,
      need,
      grade: 'clear',
      part: runPart(laid.run),
      reason: { code: 'mode', mode: data.mode },
      remedies: [],
      source: linkModeFacts[data.mode].source,
    }
  },
}

const gradeSource: Source = commonPractice('what leads of this grade carry')

/** What would carry the mode that a lead lacks. */
export function* remediesFor(lack: ReturnType<typeof lackFigures>): Iterable<Remedy> {
  if (lack.unfed) yield { code: 'feed-lead' }
  if (lack.why === 'unfed') return
  if (lack.why === 'doubted' || lack.failed?.stale) yield { code: 'test-it' }
  else if (lack.why === 'failed') yield { code: 'other-lead' }
  else if (lack.why === 'grade' || lack.reach === null) yield { code: 'better-grade', mode: lack.mode }
  else {
    yield { code: 'shorter', reach: lack.reach, mode: lack.mode }
    if (lack.passive) yield { code: 'active', length: lack.length, mode: lack.mode }
  }
}
