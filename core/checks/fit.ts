import { z } from 'zod'
import type { LaidLead } from '../link/lay'
import { portKey, priceAt, type Socket } from '../plan/site-index'
import { decimal } from '../quantity/parsed'
import { CONNECTORS, describeEnd, type End, endsMate, GENDERS } from '../standards/connectors'
import type { CableKind } from '../vocabulary/cable'
import { takenPorts } from './aspects'
import { check, reason } from './check'
import { craft, metresField, type Part } from './finding'
import { leadPart, portPart, runPart, type Situation } from './situation'
import { article, listed } from './wording'

export const endFigure = z.strictObject({
  connector: z.enum(CONNECTORS),
  gender: z.enum(GENDERS),
  ownPlug: z.string().optional(),
})

/** Each joint from port to port is one plug in one socket of the same connector. Nobody else uses the ports, and no lead is retired. */
export const fitCheck = check({
  name: 'fit',
  reasons: {
    'no-lead': reason({}, (_, { label }) => `${label} has no cable yet.`),
    mates: reason({ leads: z.int() }, ({ leads }) =>
      leads === 0
        ? 'Plug and socket fit without a lead between them.'
        : leads === 1
          ? 'The lead fits both ports.'
          : `All ${leads} leads fit from port to port.`,
    ),
    'ends-do-not-mate': reason(
      { one: endFigure, oneLabel: z.string(), other: endFigure, otherLabel: z.string() },
      ({ one, oneLabel, other, otherLabel }) =>
        `${article(describeEnd(one)).replace(/^a/, 'A')} of ${oneLabel} does not fit ${article(describeEnd(other))} of ${otherLabel}.`,
    ),
    'port-taken': reason({ by: z.string() }, ({ by }, { label }) => `${label} is already used by ${by}.`),
    retired: reason({}, (_, { label }) => `${label} is retired and must not be used again.`),
    lent: reason({}, (_, { label }) => `${label} is lent; it is not here until it comes back.`),
    'to-buy': reason(
      {
        length: metresField,
        price: z.number().nullable(),
        currency: z.string(),
        test: z.boolean(),
        wants: z.array(z.string()),
      },
      ({ length, price, currency, test, wants }, { label, metres }) =>
        `${label} (${metres(length)}) is yet to be had${price === null ? '' : `, for ${decimal(price, 2)} ${currency}`}.${wants.length > 0 ? ` It needs ${listed(wants)}.` : ''}${test ? ' Test it on the day it comes, while it can go back.' : ''}`,
    ),
  },
  remedies: ['other-port', 'choose-lead', 'other-lead'],
  reads: [takenPorts],
  source: craft,
  *find({ index, laid }) {
    for (const end of ['from', 'to'] as const) {
      const users = index.runsIn.get(portKey(laid.run[end])) ?? []
      const other = users.length > 1 ? users.find((run) => run.id !== laid.run.id) : undefined
      if (!other) continue
      yield {
        grade: 'blocked',
        part: portPart(laid[end]),
        reason: { code: 'port-taken', by: other.tag },
        remedies: [{ code: 'other-port' }],
      }
    }
    if (laid.leads.length === 0) {
      yield {
        grade: 'blocked',
        part: runPart(laid.run),
        reason: { code: 'no-lead' },
        remedies: [{ code: 'choose-lead' }],
      }
      return
    }
    const remedies = [{ code: 'other-lead' }] as const
    const laidLeads = laid.leads.filter(({ captive }) => captive === undefined)
    for (const [at, lead] of laidLeads.entries()) {
      const part = leadPart(lead)
      const { length, standing } = lead.cable
      const named = laid.run.leads[at]
      const kind = named && 'kind' in named ? index.kinds.get(named.kind) : undefined
      const { currency, buying } = index.plan.policy
      if (kind)
        yield {
          grade: 'note',
          part,
          reason: {
            code: 'to-buy',
            length,
            price: priceAt(kind, length),
            currency,
            test: buying === 'cheapest',
            wants: lacking(kind),
          },
        }
      if (standing === 'retired') yield { grade: 'blocked', part, reason: { code: 'retired' }, remedies }
      if (standing === 'lent') yield { grade: 'tight', part, reason: { code: 'lent' }, remedies }
    }
    let open = 0
    for (const { one, oneOwner, other, otherOwner } of jointsOf(laid)) {
      if (endsMate(one, other)) continue
      open += 1
      const [nearer, farther] = [partOf(oneOwner), partOf(otherOwner)]
      yield {
        grade: 'blocked',
        part: farther.kind === 'lead' ? farther : nearer,
        reason: {
          code: 'ends-do-not-mate',
          one: endOf(one),
          oneLabel: nearer.label,
          other: endOf(other),
          otherLabel: farther.label,
        },
        remedies,
      }
    }
    if (open === 0)
      yield { grade: 'clear', part: runPart(laid.run), reason: { code: 'mates', leads: laidLeads.length } }
  },
})

/** What a kind needs and does not come with. */
const lacking = ({ wants = [], includes = [] }: CableKind): string[] =>
  wants.filter((each) => !includes.some((had) => had.toLowerCase() === each.toLowerCase()))

type Owner = Socket | LaidLead
type Joint = { one: End; oneOwner: Owner; other: End; otherOwner: Owner }

/** Every joint of a run, from the host port on. */
function* jointsOf({ from, to, leads }: Situation['laid']): Iterable<Joint> {
  let one: End = from.port
  let oneOwner: Owner = from
  for (const lead of leads) {
    // the own lead of a device is part of it
    if (lead.captive !== 'from') yield { one, oneOwner, other: lead.hostEnd, otherOwner: lead }
    one = lead.farEnd
    oneOwner = lead
  }
  if (leads.at(-1)?.captive !== 'to') yield { one, oneOwner, other: to.port, otherOwner: to }
}

const partOf = (owner: Owner): Part => ('cable' in owner ? leadPart(owner) : portPart(owner))

/** The end alone: a port carries more than that. */
const endOf = ({ connector, gender, ownPlug }: End): End =>
  ownPlug === undefined ? { connector, gender } : { connector, gender, ownPlug }
