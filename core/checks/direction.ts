import { portPicture } from '../link/picture-link'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, portPart, runPart, type Situation } from './situation'

const source = commonPractice('one-way leads and USB roles')

/** A host faces a device, pictures flow out of the host end, and one-way leads lie the way they carry. Two type-A hosts must never meet. */
export const directionCheck: Check = {
  name: 'direction',
  *findings({ laid }: Situation): Iterable<Finding> {
    const bare = { check: 'direction', have: null, need: null, unit: null, source } as const
    const { from, to, leads, run } = laid
    let wrong = false
    const roles = [from.port.role, to.port.role]
    if (roles.every((role) => role === 'host')) {
      wrong = true
      const typeA = [from.port, to.port].every((port) => port.connector === 'type-a')
      yield {
        ...bare,
        grade: 'blocked',
        part: portPart(to),
        reason: { code: 'two-hosts', typeA },
        remedies: [{ code: 'other-port' }],
        caution: typeA ? 'two-supplies' : undefined,
      }
    } else if (roles.every((role) => role === 'device')) {
      wrong = true
      yield {
        ...bare,
        grade: 'blocked',
        part: portPart(from),
        reason: { code: 'two-devices' },
        remedies: [{ code: 'other-port' }],
      }
    } else if (roles[0] === 'device' && roles[1] === 'host') {
      wrong = true
      yield {
        ...bare,
        grade: 'blocked',
        part: runPart(run),
        reason: { code: 'wrong-way-round' },
        remedies: [{ code: 'turn-round' }],
      }
    } else if (portPicture(from.port, 'in') && portPicture(to.port, 'out')) {
      wrong = true
      yield {
        ...bare,
        grade: 'blocked',
        part: runPart(run),
        reason: { code: 'wrong-way-round' },
        remedies: [{ code: 'turn-round' }],
      }
    }
    for (const lead of leads) {
      if (!lead.cable.oneWay || !lead.reversed) continue
      wrong = true
      const [start, end] = lead.cable.ends
      yield {
        ...bare,
        grade: 'blocked',
        part: leadPart(lead),
        reason: { code: 'one-way-lead', from: start, to: end },
        remedies: [{ code: start.connector === end.connector ? 'turn-round' : 'two-way-lead' }],
      }
    }
    if (!wrong && leads.some((lead) => lead.cable.oneWay)) {
      yield { ...bare, grade: 'clear', part: runPart(run), reason: { code: 'right-way-round' }, remedies: [] }
    }
  },
}
