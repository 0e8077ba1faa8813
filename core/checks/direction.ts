import { z } from 'zod'
import { convertsBackwards } from '../link/adapter'
import { portPicture } from '../link/picture-link'
import { describeEnd } from '../standards/connectors'
import { commonPractice } from '../standards/source'
import { check, type Found, reason } from './check'
import { endFigure } from './fit'
import { leadPart, portPart, runPart, type Situation } from './situation'

const reasons = {
  'two-hosts': reason({ typeA: z.boolean() }, ({ typeA }) =>
    typeA
      ? 'Both ends are type-A host ports: two sources would feed each other through this lead, and neither would see the other as a device.'
      : 'Both ends are host ports; neither would see the other as a device.',
  ),
  'two-devices': reason({}, () => 'Both ends are device ports; nothing would drive the link.'),
  'wrong-way-round': reason(
    {},
    (_, { label }) => `${label} is drawn from the device to the host; it runs the other way.`,
  ),
  'one-way-lead': reason(
    { from: endFigure, to: endFigure },
    ({ from, to }, { label }) =>
      `${label} carries one way only, from its ${describeEnd(from)} to its ${describeEnd(to)}, and lies the other way round here.`,
  ),
  'converts-other-way': reason(
    {},
    (_, { label }) => `${label} converts DisplayPort into HDMI and not back; from an HDMI source it gives no picture.`,
  ),
  'right-way-round': reason({}, () => 'The one-way lead lies the way it carries.'),
}
const REMEDIES = ['other-port', 'turn-round', 'two-way-lead', 'other-lead'] as const
type Direction = Found<typeof reasons, (typeof REMEDIES)[number]>

/** A host faces a device, pictures flow out of the host end, and one-way leads lie the way they carry. Two type-A hosts must never meet. */
export const directionCheck = check({
  name: 'direction',
  reasons,
  remedies: REMEDIES,
  reads: [],
  source: commonPractice('one-way leads and USB roles'),
  *find({ laid }) {
    const misjoined = misjoinedPorts(laid)
    if (misjoined) yield misjoined
    const backwards = laid.leads.filter((lead) => lead.cable.oneWay && lead.reversed)
    for (const lead of backwards) {
      const [from, to] = lead.cable.ends
      yield {
        grade: 'blocked',
        part: leadPart(lead),
        reason: { code: 'one-way-lead', from, to },
        remedies: [{ code: from.connector === to.connector ? 'turn-round' : 'two-way-lead' }],
      }
    }
    for (const lead of laid.leads)
      if (!backwards.includes(lead) && convertsBackwards(lead))
        yield {
          grade: 'blocked',
          part: leadPart(lead),
          reason: { code: 'converts-other-way' },
          remedies: [{ code: 'other-lead' }],
        }
    if (!misjoined && backwards.length === 0 && laid.leads.some((lead) => lead.cable.oneWay))
      yield { grade: 'clear', part: runPart(laid.run), reason: { code: 'right-way-round' } }
  },
})

/** What is wrong with joining these two ports this way; null where nothing is. */
function misjoinedPorts({ from, to, run }: Situation['laid']): Direction | null {
  const near = from.port.role
  const far = to.port.role
  if (near === 'host' && far === 'host') {
    const typeA = from.port.connector === 'type-a' && to.port.connector === 'type-a'
    return {
      grade: 'blocked',
      part: portPart(to),
      reason: { code: 'two-hosts', typeA },
      remedies: [{ code: 'other-port' }],
      caution: typeA ? 'two-supplies' : undefined,
    }
  }
  if (near === 'device' && far === 'device')
    return {
      grade: 'blocked',
      part: portPart(from),
      reason: { code: 'two-devices' },
      remedies: [{ code: 'other-port' }],
    }
  const backwards =
    (near === 'device' && far === 'host') || (portPicture(from.port, 'in') && portPicture(to.port, 'out'))
  if (!backwards) return null
  return {
    grade: 'blocked',
    part: runPart(run),
    reason: { code: 'wrong-way-round' },
    remedies: [{ code: 'turn-round' }],
  }
}
