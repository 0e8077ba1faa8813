import { arriving } from '../link/supply'
import { atLeast } from '../quantity/limit'
import type { Watts } from '../quantity/watts'
import { commonPractice } from '../standards/source'
import type { Caution, Finding, Remedy } from './finding'
import { type Check, type Crossing, leadPart, portPart, runPart, type Situation, wantedWatts } from './situation'

const source = commonPractice('no mark, no more than 3 A: 60 W; a 5 A mark 100 W; an extended range mark 240 W')

/** The watts a need asks arrive: as much as the supply gives and the lead's current mark allows. */
export const currentCheck: Check = {
  name: 'current',
  *findings(situation: Situation): Iterable<Finding> {
    if (situation.laid.leads.length === 0) return
    for (const crossing of situation.crossings) {
      const wanted = wantedWatts(crossing)
      if (wanted !== null) yield powerFinding(situation, crossing, wanted)
    }
  },
}

function powerFinding({ laid, policy }: Situation, { need, way }: Crossing, wanted: Watts): Finding {
  const charging = need.kind === 'power'
  // bus power goes from host to device whichever way the data flows; a supply feeds the way its need says
  const [giver, taker] = charging && way === 'up' ? [laid.to, laid.from] : [laid.from, laid.to]
  const leads = laid.leads.map((lead) => ({ lead, amps: lead.known.amps.value, volts: lead.known.volts.value }))
  const supply = arriving(laid, giver, taker)
  const bare = { check: 'current', needId: need.id, have: supply.watts, need: wanted, unit: 'W', source } as const

  const dead = leads.find(({ amps }) => amps === 0)
  if (dead && supply.seen === null) {
    const reason = { code: 'lead-without-power', optical: dead.lead.cable.construction === 'optical' } as const
    return {
      ...bare,
      grade: 'blocked',
      part: leadPart(dead.lead),
      reason,
      remedies: [{ code: 'powered-far-end' }, { code: 'other-lead' }],
    }
  }
  if (supply.level === null && supply.limit !== 'device' && supply.seen === null) {
    return {
      ...bare,
      grade: 'blocked',
      part: portPart(giver),
      reason: { code: 'no-supply' },
      remedies: [{ code: 'other-port' }, { code: 'powered-far-end' }],
    }
  }
  const weakest = leads.reduce((weak, next) => (next.amps * next.volts < weak.amps * weak.volts ? next : weak))
  const enough = atLeast(supply.watts, wanted)
  const charges = charging && atLeast(supply.watts, wanted * policy.chargeAtLeast)
  const remedies: Remedy[] = []
  if (supply.seen) {
    const { reading, lead } = supply.seen
    return {
      ...bare,
      grade: enough ? 'clear' : charges ? 'tight' : 'blocked',
      part: lead ? leadPart(lead) : runPart(laid.run),
      reason: { code: 'watts-seen', at: reading.at, by: lead ? 'lead' : 'run', charging },
      remedies: enough ? [] : [{ code: lead ? 'other-lead' : 'test-it' }],
      source: supply.source,
      caution: cautionFor(wanted),
    }
  }
  const { elsewhere } = supply
  if (enough && elsewhere && !atLeast(Math.max(elsewhere.reading.watts, elsewhere.shown), wanted))
    return {
      ...bare,
      grade: 'tight',
      part: leadPart(elsewhere.lead),
      reason: { code: 'watts-elsewhere', watts: elsewhere.reading.watts, at: elsewhere.reading.at },
      remedies: [{ code: 'test-it' }],
      caution: cautionFor(wanted),
    }
  if (!enough && supply.limit === 'lead') remedies.push({ code: 'marked', amps: 5, volts: wanted > 100 ? 50 : 20 })
  if (!enough && !atLeast(supply.offered, wanted)) remedies.push({ code: 'stronger-supply', watts: wanted })
  return {
    ...bare,
    grade: enough ? 'clear' : charges ? 'tight' : 'blocked',
    part: supply.limit === 'lead' ? leadPart(weakest.lead) : portPart(supply.limit === 'device' ? taker : giver),
    reason: {
      code: 'power',
      limit: supply.limit === 'seen' ? 'supply' : supply.limit,
      amps: supply.level?.amps ?? 0,
      volts: supply.level?.volts ?? 0,
      unmarked: weakest.lead.known.amps.basis === 'assumed',
      charging,
    },
    remedies,
    caution: cautionFor(wanted),
  }
}

const cautionFor = (watts: Watts): Caution | undefined =>
  watts > 100 ? 'above-100-watts' : watts > 60 ? 'above-60-watts' : undefined
