import { z } from 'zod'
import { arrivesAt, besideWatts, type PowerLink, type PowerWay, powerLink } from '../link/power-link'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { formatWatts, type Watts } from '../quantity/watts'
import { isOlderPlug } from '../standards/connectors'
import { commonPractice } from '../standards/source'
import { check, type Found, reason } from './check'
import { feeds } from './feeds-aspect'
import { type Caution, type Grade, momentFigure, type Part, wattsFigure } from './finding'
import { type Crossing, leadPart, portPart, runPart, type Situation, wantedWatts } from './situation'
import { dayOf, listed } from './wording'

/** What too few watts come to. */
const shortOfWatts = (charging: boolean, grade: Grade): string =>
  !charging ? 'the device may not start' : grade === 'tight' ? 'it charges slowly' : 'it does not charge under load'

const reasons = {
  power: reason(
    {
      limit: z.enum(['supply', 'lead', 'plug', 'device', 'pool', 'fed']),
      amps: z.number(),
      volts: z.number(),
      unmarked: z.boolean(),
      charging: z.boolean(),
      offered: wattsFigure.describe('What the supply gives alone'),
      sharers: z.array(z.string()).describe('Other ports of the supply that are in use'),
      lost: wattsFigure.nullable().describe('Watts lost in the wire, where somebody knows it'),
    },
    ({ limit, amps, volts, unmarked, charging, offered, sharers, lost }, { label, grade, have, need }) => {
      const there = formatWatts(have)
      const asked = `${formatWatts(need)} are asked`
      const arrive = `${asked} and ${there} ${have === 0 ? 'arrives' : 'arrive'}`
      const level = `${decimal(volts, 1)} V x ${decimal(amps, 2)} A`
      const less = lost === null || lost < 0.05 ? '' : `, less ${formatWatts(lost)} in the wire`
      // asked as the grade asks it: 20 V x 5.75 A is a hair less than 115 W
      if (atLeast(have, need)) return `${asked} and ${there} can arrive (${level}${less}).`
      const effect = shortOfWatts(charging, grade)
      switch (limit) {
        case 'device':
          return `${arrive}: ${label} does not accept the higher levels of this supply; ${effect}.`
        case 'supply':
          return `${asked} and ${label} gives ${there} at most (${level}); ${effect}.`
        case 'plug':
          return `${arrive} (${level}). ${label} has an older plug, and that gives 5 V only; ${effect}.`
        case 'pool':
          return `${asked}. ${label} gives ${there} while ${listed(sharers)} ${sharers.length === 1 ? 'is' : 'are'} in use too, and ${formatWatts(offered)} alone; ${effect}.`
        case 'fed':
          return `${asked}. ${label} has no power supply and can pass on ${there}; ${effect}.`
        case 'lead': {
          const mark = unmarked
            ? `${label} has no 5 A mark, and an unmarked lead carries 3 A at most`
            : `${label} is marked for ${decimal(amps, 1)} A`
          return `${arrive} (${level}): ${mark}; ${effect}.`
        }
      }
    },
  ),
  'lead-without-power': reason({ optical: z.boolean() }, ({ optical }, { label }) =>
    optical
      ? `${label} is optical and carries no power; the device would have none.`
      : `${label} carries no power; the device would have none.`,
  ),
  'no-supply': reason({}, (_, { label }) => `${label} gives no power.`),
  'supply-without-mains': reason({}, (_, { label }) => `${label} needs mains, and there is none where it stands.`),
  'stronger-beside': reason(
    { watts: wattsFigure },
    ({ watts }) =>
      `Another run brings ${formatWatts(watts)}, and of two supplies the device takes the stronger. What comes over this one is not used.`,
  ),
  'watts-seen': reason(
    {
      at: momentFigure,
      by: z.enum(['run', 'lead']),
      charging: z.boolean(),
      counted: z.strictObject({ held: z.int(), failed: z.int() }).nullable(),
    },
    ({ at, by, charging, counted }, { label, grade, have, need }) =>
      counted
        ? `${formatWatts(need)} come and go over ${label}: they arrived in ${counted.held} of ${counted.held + counted.failed} tries, and ${formatWatts(have)} are sure.`
        : `${formatWatts(need)} are asked. ${by === 'run' ? `On this run ${formatWatts(have)} arrived` : `${label} let ${formatWatts(have)} through on this charger`} when it was measured on ${dayOf(at)}${grade === 'clear' ? '' : `; ${shortOfWatts(charging, grade)}`}.`,
  ),
  'watts-elsewhere': reason(
    { watts: wattsFigure, at: momentFigure },
    ({ watts, at }, { label }) =>
      `${label} let only ${formatWatts(watts)} through on another charger on ${dayOf(at)}. Measure it on this one: a limit may belong to one charger and one device.`,
  ),
}
const REMEDIES = [
  'powered-far-end',
  'other-lead',
  'other-port',
  'test-it',
  'marked',
  'stronger-supply',
  'c-to-c-lead',
  'mains-there',
] as const
type Power = Found<typeof reasons, (typeof REMEDIES)[number]>

/** The watts a need asks arrive: as much as the supply gives and the lead's current mark allows. */
export const currentCheck = check({
  name: 'current',
  reasons,
  remedies: REMEDIES,
  reads: [feeds],
  source: commonPractice('no mark, no more than 3 A: 60 W; a 5 A mark 100 W; an extended range mark 240 W'),
  *find(situation) {
    if (situation.laid.leads.length === 0) return
    for (const crossing of situation.crossings) {
      const wanted = wantedWatts(crossing)
      if (wanted !== null) yield powerFor(situation, crossing, wanted)
    }
  },
})

/** The way power goes for a need: bus power from host to device whichever way the data flows, a supply the way its need says. */
export const powerWayOf = ({ need, way }: Crossing): PowerWay => (need.kind === 'power' ? way : 'down')

function powerFor(situation: Situation, crossing: Crossing, wanted: Watts): Power {
  const { index, laid, policy } = situation
  const { need } = crossing
  const charging = need.kind === 'power'
  const link = powerLink(index, laid, powerWayOf(crossing))
  const bare = { needId: need.id, measured: { have: link.watts, need: wanted, unit: 'W' } } as const
  const nothing = nothingFrom(link)
  const enough = nothing === null && atLeast(link.watts, wanted)
  const beside = charging && !enough ? besideWatts(index, laid.run, need.to) : 0
  if (beside > link.watts && atLeast(beside, wanted))
    return { ...bare, grade: 'note', part: runPart(laid.run), reason: { code: 'stronger-beside', watts: beside } }
  if (nothing) return { ...bare, grade: 'blocked', ...nothing }

  const charges = charging && atLeast(link.watts, wanted * policy.chargeAtLeast)
  const sometimes = !enough && link.seen !== null && atLeast(link.seen.most, wanted)
  const grade = enough ? 'clear' : charges || sometimes ? 'tight' : 'blocked'
  const caution = cautionFor(wanted)
  if (link.seen) {
    const { reading, lead, counted } = link.seen
    return {
      ...bare,
      grade,
      part: lead ? leadPart(lead) : runPart(laid.run),
      reason: {
        code: 'watts-seen',
        at: reading.at,
        by: lead ? 'lead' : 'run',
        charging,
        counted: sometimes ? counted(wanted) : null,
      },
      remedies: enough ? [] : [{ code: lead ? 'other-lead' : 'test-it' }],
      source: link.source,
      caution,
    }
  }
  const { elsewhere, limit } = link
  if (enough && elsewhere && !atLeast(Math.max(elsewhere.watts, elsewhere.shown), wanted))
    return {
      ...bare,
      grade: 'tight',
      part: leadPart(elsewhere.lead),
      reason: { code: 'watts-elsewhere', watts: elsewhere.watts, at: elsewhere.reading.at },
      remedies: [{ code: 'test-it' }],
      caution,
    }
  const weakest = weakestLead(link)
  const { known, volts, watts, amps } = arrivesAt(link, wanted)
  return {
    ...bare,
    grade,
    part: partOf(link),
    reason: {
      code: 'power',
      limit: limit === 'seen' || limit === 'mains' ? 'supply' : limit,
      amps: link.level?.amps ?? 0,
      volts: link.level?.volts ?? 0,
      unmarked: weakest?.known.amps.basis === 'assumed',
      charging,
      offered: link.offered,
      sharers: [...link.sharers],
      lost: known && volts > 0 ? (link.level?.volts ?? 0) * amps - watts : null,
    },
    remedies: enough ? [] : [...remediesFor(link, wanted)],
    caution,
  }
}

const weakestLead = ({ leads }: PowerLink) =>
  [...leads].sort(
    (one, other) => one.known.amps.value * one.known.volts.value - other.known.amps.value * other.known.volts.value,
  )[0]

/** Why nothing at all comes over a link; null where something does. */
function nothingFrom(link: PowerLink): Pick<Power, 'part' | 'reason' | 'remedies'> | null {
  if (link.seen !== null) return null
  if (link.limit === 'mains')
    return {
      part: portPart(link.giver),
      reason: { code: 'supply-without-mains' },
      remedies: [{ code: 'mains-there' }, { code: 'other-port' }],
    }
  const dead = link.third ? undefined : link.leads.find(({ known }) => known.amps.value === 0)
  if (dead)
    return {
      part: leadPart(dead),
      reason: { code: 'lead-without-power', optical: dead.cable.construction === 'optical' },
      remedies: [{ code: 'powered-far-end' }, { code: 'other-lead' }],
    }
  if (link.level === null && link.limit !== 'device' && link.limit !== 'fed')
    return {
      part: portPart(link.giver),
      reason: { code: 'no-supply' },
      remedies: [{ code: 'other-port' }, { code: 'powered-far-end' }],
    }
  return null
}

/** The part that keeps the watts from being more. */
function partOf(link: PowerLink): Part {
  const { limit, giver, taker, leads, third } = link
  if (limit === 'device') return portPart(taker)
  if (third) return leadPart(third)
  if (limit === 'plug') {
    const older = leads.find(({ cable }) => cable.ends.some(({ connector }) => isOlderPlug(connector)))
    return older ? leadPart(older) : portPart(giver)
  }
  const weakest = limit === 'lead' ? weakestLead(link) : undefined
  return weakest ? leadPart(weakest) : portPart(giver)
}

/** What would bring more over a link. */
function* remediesFor(
  { limit, offered, giver, taker, sharers }: PowerLink,
  wanted: Watts,
): Iterable<NonNullable<Power['remedies']>[number]> {
  const bothC = giver.port.connector === 'type-c' && taker.port.connector === 'type-c'
  if (limit === 'lead') yield { code: 'marked', amps: 5, volts: wanted > 100 ? 50 : 20 }
  if (limit === 'plug' && bothC) yield { code: 'c-to-c-lead' }
  if (limit === 'pool' && sharers.length > 0 && atLeast(offered, wanted)) yield { code: 'other-port' }
  if (!atLeast(offered, wanted) || limit === 'pool' || limit === 'fed' || (limit === 'plug' && !bothC))
    yield { code: 'stronger-supply', watts: wanted }
}

const cautionFor = (watts: Watts): Caution | undefined =>
  watts > 100 ? 'above-100-watts' : watts > 60 ? 'above-60-watts' : undefined
