import { z } from 'zod'
import { arriving } from '../link/supply'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { formatWatts, type Watts } from '../quantity/watts'
import { commonPractice } from '../standards/source'
import { check, type Found, reason } from './check'
import { type Caution, type Grade, momentFigure, wattsFigure } from './finding'
import { type Crossing, leadPart, portPart, runPart, type Situation, wantedWatts } from './situation'
import { dayOf } from './wording'

/** What too few watts come to. */
const shortOfWatts = (charging: boolean, grade: Grade): string =>
  !charging ? 'the device may not start' : grade === 'tight' ? 'it charges slowly' : 'it does not charge under load'

const reasons = {
  power: reason(
    {
      limit: z.enum(['supply', 'lead', 'device']),
      amps: z.number(),
      volts: z.number(),
      unmarked: z.boolean(),
      charging: z.boolean(),
    },
    ({ limit, amps, volts, unmarked, charging }, { label, grade, have, need }) => {
      const there = formatWatts(have)
      const asked = `${formatWatts(need)} are asked`
      const arrive = `${asked} and ${there} ${have === 0 ? 'arrives' : 'arrive'}`
      const level = `${decimal(volts, 1)} V x ${decimal(amps, 2)} A`
      // asked as the grade asks it: 20 V x 5.75 A is a hair less than 115 W
      if (atLeast(have, need)) return `${asked} and ${there} can arrive (${level}).`
      const effect = shortOfWatts(charging, grade)
      if (limit === 'device') return `${arrive}: ${label} does not accept the higher levels of this supply; ${effect}.`
      if (limit === 'supply') return `${asked} and ${label} gives ${there} at most (${level}); ${effect}.`
      const mark = unmarked
        ? `${label} has no 5 A mark, and an unmarked lead carries 3 A at most`
        : `${label} is marked for ${decimal(amps, 1)} A`
      return `${arrive} (${level}): ${mark}; ${effect}.`
    },
  ),
  'lead-without-power': reason({ optical: z.boolean() }, ({ optical }, { label }) =>
    optical
      ? `${label} is optical and carries no power; the device would have none.`
      : `${label} carries no power; the device would have none.`,
  ),
  'no-supply': reason({}, (_, { label }) => `${label} gives no power.`),
  'watts-seen': reason(
    { at: momentFigure, by: z.enum(['run', 'lead']), charging: z.boolean() },
    ({ at, by, charging }, { label, grade, have, need }) =>
      `${formatWatts(need)} are asked. ${by === 'run' ? `On this run ${formatWatts(have)} arrived` : `${label} let ${formatWatts(have)} through on this charger`} when it was measured on ${dayOf(at)}${grade === 'clear' ? '' : `; ${shortOfWatts(charging, grade)}`}.`,
  ),
  'watts-elsewhere': reason(
    { watts: wattsFigure, at: momentFigure },
    ({ watts, at }, { label }) =>
      `${label} let only ${formatWatts(watts)} through on another charger on ${dayOf(at)}. Measure it on this one: a limit may belong to one charger and one device.`,
  ),
}
const REMEDIES = ['powered-far-end', 'other-lead', 'other-port', 'test-it', 'marked', 'stronger-supply'] as const
type Power = Found<typeof reasons, (typeof REMEDIES)[number]>

/** The watts a need asks arrive: as much as the supply gives and the lead's current mark allows. */
export const currentCheck = check({
  name: 'current',
  reasons,
  remedies: REMEDIES,
  reads: [],
  source: commonPractice('no mark, no more than 3 A: 60 W; a 5 A mark 100 W; an extended range mark 240 W'),
  *find(situation) {
    if (situation.laid.leads.length === 0) return
    for (const crossing of situation.crossings) {
      const wanted = wantedWatts(crossing)
      if (wanted !== null) yield powerFor(situation, crossing, wanted)
    }
  },
})

function powerFor({ laid, policy }: Situation, { need, way }: Crossing, wanted: Watts): Power {
  const charging = need.kind === 'power'
  // bus power goes from host to device whichever way the data flows; a supply feeds the way its need says
  const [giver, taker] = charging && way === 'up' ? [laid.to, laid.from] : [laid.from, laid.to]
  const leads = laid.leads.map((lead) => ({ lead, amps: lead.known.amps.value, volts: lead.known.volts.value }))
  const supply = arriving(laid, giver, taker)
  const bare = { needId: need.id, measured: { have: supply.watts, need: wanted, unit: 'W' } } as const

  const dead = leads.find(({ amps }) => amps === 0)
  if (dead && supply.seen === null)
    return {
      ...bare,
      grade: 'blocked',
      part: leadPart(dead.lead),
      reason: { code: 'lead-without-power', optical: dead.lead.cable.construction === 'optical' },
      remedies: [{ code: 'powered-far-end' }, { code: 'other-lead' }],
    }
  if (supply.level === null && supply.limit !== 'device' && supply.seen === null)
    return {
      ...bare,
      grade: 'blocked',
      part: portPart(giver),
      reason: { code: 'no-supply' },
      remedies: [{ code: 'other-port' }, { code: 'powered-far-end' }],
    }
  const weakest = leads.reduce((weak, next) => (next.amps * next.volts < weak.amps * weak.volts ? next : weak))
  const enough = atLeast(supply.watts, wanted)
  const charges = charging && atLeast(supply.watts, wanted * policy.chargeAtLeast)
  const grade = enough ? 'clear' : charges ? 'tight' : 'blocked'
  const caution = cautionFor(wanted)
  if (supply.seen) {
    const { reading, lead } = supply.seen
    return {
      ...bare,
      grade,
      part: lead ? leadPart(lead) : runPart(laid.run),
      reason: { code: 'watts-seen', at: reading.at, by: lead ? 'lead' : 'run', charging },
      remedies: enough ? [] : [{ code: lead ? 'other-lead' : 'test-it' }],
      source: supply.source,
      caution,
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
      caution,
    }
  const remedies: NonNullable<Power['remedies']>[number][] = []
  if (!enough && supply.limit === 'lead') remedies.push({ code: 'marked', amps: 5, volts: wanted > 100 ? 50 : 20 })
  if (!enough && !atLeast(supply.offered, wanted)) remedies.push({ code: 'stronger-supply', watts: wanted })
  return {
    ...bare,
    grade,
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
    caution,
  }
}

const cautionFor = (watts: Watts): Caution | undefined =>
  watts > 100 ? 'above-100-watts' : watts > 60 ? 'above-60-watts' : undefined
