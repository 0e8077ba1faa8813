import type { LaidLead } from '../link/lay'
import { portKey, priceAt, type Socket } from '../plan/site-index'
import { type End, endsMate } from '../standards/connectors'
import { craft, type Finding, type Part } from './finding'
import { type Check, leadPart, portPart, runPart, type Situation } from './situation'

/** Each joint from port to port is one plug in one socket of the same connector, in ports nobody else uses, with leads still in use. */
export const fitCheck: Check = {
  name: 'fit',
  *findings({ index, laid }: Situation): Iterable<Finding> {
    const bare = { check: 'fit', have: null, need: null, unit: null, source: craft } as const
    for (const end of ['from', 'to'] as const) {
      const users = index.runsIn.get(portKey(laid.run[end])) ?? []
      const other = users.length > 1 ? users.find((run) => run.id !== laid.run.id) : undefined
      if (other) {
        yield {
          ...bare,
          grade: 'blocked',
          part: portPart(laid[end]),
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
    for (const [at, lead] of laid.leads.entries()) {
      const named = laid.run.leads[at]
      const kind = named && 'kind' in named ? index.kinds.get(named.kind) : undefined
      if (kind) {
        const price = priceAt(kind, lead.cable.length)
        const reason = {
          code: 'to-buy',
          length: lead.cable.length,
          price,
          currency: index.plan.policy.currency,
          test: index.plan.policy.buying === 'cheapest',
        } as const
        yield { ...bare, grade: 'note', part: leadPart(lead), reason, remedies: [] }
      }
      if (lead.cable.standing === 'retired') {
        yield {
          ...bare,
          grade: 'blocked',
          part: leadPart(lead),
          reason: { code: 'retired' },
          remedies: [{ code: 'other-lead' }],
        }
      } else if (lead.cable.standing === 'lent') {
        yield {
          ...bare,
          grade: 'tight',
          part: leadPart(lead),
          reason: { code: 'lent' },
          remedies: [{ code: 'other-lead' }],
        }
      }
    }
    let open = 0
    for (const { one, oneOwner, other, otherOwner } of jointsOf(laid)) {
      if (endsMate(one, other)) continue
      open += 1
      const nearer = partOf(oneOwner)
      const part = partOf(otherOwner)
      yield {
        ...bare,
        grade: 'blocked',
        part: part.kind === 'lead' ? part : nearer,
        reason: {
          code: 'ends-do-not-mate',
          one: endOf(one),
          oneLabel: nearer.label,
          other: endOf(other),
          otherLabel: part.label,
        },
        remedies: [{ code: 'other-lead' }],
      }
    }
    if (open === 0) {
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

type Owner = Socket | LaidLead
type Joint = { one: End; oneOwner: Owner; other: End; otherOwner: Owner }

/** Every joint of a run, from the host port on. */
function* jointsOf({ from, to, leads }: Situation['laid']): Iterable<Joint> {
  let one: End = from.port
  let oneOwner: Owner = from
  for (const lead of leads) {
    yield { one, oneOwner, other: lead.hostEnd, otherOwner: lead }
    one = lead.farEnd
    oneOwner = lead
  }
  yield { one, oneOwner, other: to.port, otherOwner: to }
}

const partOf = (owner: Owner): Part => ('cable' in owner ? leadPart(owner) : portPart(owner))

/** The connector and gender alone: a port carries more than its end. */
const endOf = ({ connector, gender }: End): End => ({ connector, gender })
