import { convertsBackwards } from '../link/adapter'
import { portPicture } from '../link/picture-link'
import { commonPractice } from '../standards/source'
import type { Finding, Part, Reason, Remedy } from './finding'
import { type Check, leadPart, portPart, runPart, type Situation } from './situation'

const source = commonPractice('one-way leads and USB roles')

/** A host faces a device, pictures flow out of the host end, and one-way leads lie the way they carry. Two type-A hosts must never meet. */
export const directionCheck: Check = {
  name: 'direction',
  *findings({ laid }: Situation): Iterable<Finding> {
    const bare = { check: 'direction', have: null, need: null, unit: null, source } as const
    const misjoined = misjoinedPorts(laid)
    if (misjoined) {
      const { part, reason, remedy } = misjoined
      const caution = reason.code === 'two-hosts' && reason.typeA ? 'two-supplies' : undefined
      yield { ...bare, grade: 'blocked', part, reason, remedies: [remedy], caution }
    }
    const backwards = laid.leads.filter((lead) => lead.cable.oneWay && lead.reversed)
    for (const lead of backwards) {
      const [start, end] = lead.cable.ends
      yield {
        ...bare,
        grade: 'blocked',
        part: leadPart(lead),
        reason: { code: 'one-way-lead', from: start, to: end },
        remedies: [{ code: start.connector === end.connector ? 'turn-round' : 'two-way-lead' }],
      }
    }
    const wrongConverters = laid.leads.filter((lead) => !backwards.includes(lead) && convertsBackwards(lead))
    for (const lead of wrongConverters) {
      yield {
        ...bare,
        grade: 'blocked',
        part: leadPart(lead),
        reason: { code: 'converts-other-way' },
        remedies: [{ code: 'other-lead' }],
      }
    }
    if (!misjoined && backwards.length === 0 && laid.leads.some((lead) => lead.cable.oneWay)) {
      yield { ...bare, grade: 'clear', part: runPart(laid.run), reason: { code: 'right-way-round' }, remedies: [] }
    }
  },
}

/** What is wrong with joining these two ports this way; null where nothing is. */
function misjoinedPorts({ from, to, run }: Situation['laid']): { part: Part; reason: Reason; remedy: Remedy } | null {
  const near = from.port.role
  const far = to.port.role
  if (near === 'host' && far === 'host') {
    const typeA = from.port.connector === 'type-a' && to.port.connector === 'type-a'
    return { part: portPart(to), reason: { code: 'two-hosts', typeA }, remedy: { code: 'other-port' } }
  }
  if (near === 'device' && far === 'device') {
    return { part: portPart(from), reason: { code: 'two-devices' }, remedy: { code: 'other-port' } }
  }
  const backwards =
    (near === 'device' && far === 'host') || (portPicture(from.port, 'in') && portPicture(to.port, 'out'))
  return backwards ? { part: runPart(run), reason: { code: 'wrong-way-round' }, remedy: { code: 'turn-round' } } : null
}
