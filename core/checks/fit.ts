import { portKey } from '../plan/site-index'
import { endsMate } from '../standards/connectors'
import { craft, type Finding, type Part } from './finding'
import { type Check, leadPart, portPart, runPart, type Situation } from './situation'

/** Each joint from port to port is one plug in one socket of the same connector, in ports nobody else uses, with leads still in use. */
export const fitCheck: Check = {
  name: 'fit',
  *findings({ index, laid }: Situation): Iterable<Finding> {
    const bare = { check: 'fit', have: null, need: null, unit: null, source: craft } as const
    for (const socket of [laid.from, laid.to]) {
      const address = portKey({ device: socket.device.id, port: socket.port.id })
      const other = index.runsIn.get(address)?.find((run) => run.id !== laid.run.id)
      if (other) {
        yield {
          ...bare,
          grade: 'blocked',
          part: portPart(socket),
          reason: { code: 'port-taken', by: other.tag },
          remedies: [{ code: 'other-port' }],
        }
      }
    }
    if (laid.leads.length === 0) {
      yield {
        ...bare,
        grade: 'blocked',
        part: runPart(laid.run),
        reason: { code: 'no-lead' },
        remedies: [{ code: 'choose-lead' }],
      }
      return
    }
    for (const lead of laid.leads) {
      if (lead.cable.standing === 'retired') {
        yield {
          ...bare,
          grade: 'blocked',
          part: leadPart(lead),
          reason: { code: 'retired' },
          remedies: [{ code: 'other-lead' }],
        }
      }
    }
    const joints = jointsOf(laid)
    const open = joints.filter(({ one, other }) => !endsMate(one, other))
    for (const { one, other, onePart, part } of open) {
      const reason = { code: 'ends-do-not-mate', one, oneLabel: onePart.label, other, otherLabel: part.label } as const
      yield {
        ...bare,
        grade: 'blocked',
        part: part.kind === 'lead' ? part : onePart,
        reason,
        remedies: [{ code: 'other-lead' }],
      }
    }
    if (open.length === 0) {
      yield {
        ...bare,
        grade: 'clear',
        part: runPart(laid.run),
        reason: { code: 'mates', leads: laid.leads.length },
        remedies: [],
      }
    }
  },
}

type Joint = { one: Situation['laid']['leads'][number]['hostEnd']; onePart: Part; other: Joint['one']; part: Part }

function jointsOf({ from, to, leads }: Situation['laid']): Joint[] {
  const joints: Joint[] = []
  let one: Joint['one'] = from.port
  let onePart = portPart(from)
  for (const lead of leads) {
    const part = leadPart(lead)
    joints.push({ one, onePart, other: lead.hostEnd, part })
    one = lead.farEnd
    onePart = part
  }
  joints.push({ one, onePart, other: to.port, part: portPart(to) })
  // the connector and gender alone: a port carries more than its end
  return joints.map((joint) => ({ ...joint, one: endOf(joint.one), other: endOf(joint.other) }))
}

const endOf = ({ connector, gender }: Joint['one']): Joint['one'] => ({ connector, gender })
