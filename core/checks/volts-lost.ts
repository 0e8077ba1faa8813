import { z } from 'zod'
import { arrivesAt, drawnBy, dropOf, powerLink } from '../link/power-link'
import { ALLOWED_DROP } from '../power/wire'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { commonPractice, fromMemory } from '../standards/source'
import { wire } from './aspects'
import { check, reason } from './check'
import { powerWayOf } from './current'
import { feeds } from './feeds-aspect'
import { momentFigure, wattsFigure } from './finding'
import { leadPart, portPart, type Situation, wantedWatts } from './situation'
import { dayOf } from './wording'

const asMeasured = commonPractice('volts that this lead lost at a measured current')

/** Below this a device on 5 V is doubtful (USB 2.0, the least a port gives, from memory). */
const DOUBTFUL_VOLTS = 4.75
/** Below these a device fails: an older one (USB 2.0 §7.2, from memory), and one of type-C (4.75 V less the 750 mV that a cable may lose, from memory). */
const FAILING_VOLTS = { older: 4.4, 'type-c': 4 } as const

/**
 * Volts a lead loses at the current that flows, by what was measured of it or by its gauge; more than a cable may lose makes devices drop out under load. On 5 V
 * what is left at the device counts, with what was lost before it on the way through hubs that live on the bus.
 */
export const voltsLostCheck = check({
  name: 'volts lost',
  reasons: {
    'volts-lost': reason(
      { total: z.number(), amps: z.number(), watts: wattsFigure, measured: momentFigure.nullable() },
      ({ total, amps, watts, measured }, { label, need }) =>
        `${label} loses ${decimal(total, 2)} V there and back at ${decimal(amps, 2)} A, ${decimal(watts, 1)} W of heat${measured ? `, as measured on ${dayOf(measured)}` : ''}; a cable may lose ${decimal(need, 2)} V on its supply.`,
    ),
    'volts-arrive': reason(
      { amps: z.number(), before: z.number(), fails: z.number() },
      ({ amps, before, fails }, { label, grade, have, need }) =>
        `${decimal(have, 2)} V of 5 arrive at ${label} while it draws ${decimal(amps, 2)} A${before > 0.005 ? `; ${decimal(before, 2)} V are lost before this run` : ''}. ${grade === 'clear' ? `${decimal(need, 2)} V is enough.` : grade === 'tight' ? `Below ${decimal(need, 2)} V a device may drop out.` : `Below ${decimal(fails, 2)} V it fails.`}`,
    ),
  },
  remedies: ['thicker-or-shorter', 'powered-hub'],
  reads: [wire, feeds],
  source: ALLOWED_DROP.source,
  *find({ index, laid, crossings }) {
    for (const way of ['down', 'up'] as const) {
      // of wire of which nobody knows anything nothing is said
      const giver = way === 'down' ? laid.from.device : laid.to.device
      if (!giver.busPowered && !isWireKnown(laid)) continue
      const asked = crossings.filter((crossing) => powerWayOf(crossing) === way)
      const charged = Math.max(0, ...asked.map((crossing) => wantedWatts(crossing) ?? 0))
      const watts = way === 'down' ? Math.max(charged, drawnBy(index, laid.to.device)) : charged
      if (watts === 0) continue
      const link = powerLink(index, laid, way)
      if (link.level === null || (link.lostBefore === 0 && !isWireKnown(laid))) continue
      const { amps, volts, known } = arrivesAt(link, watts)
      for (const lead of laid.leads) {
        const drop = dropOf(lead, amps)
        if (drop === null) continue
        const { ohms } = lead.known
        yield {
          grade: drop.allowed ? 'clear' : 'tight',
          part: leadPart(lead),
          measured: { have: drop.supply, need: ALLOWED_DROP.supply, unit: 'V' },
          reason: { code: 'volts-lost', total: drop.total, amps, watts: drop.watts, measured: ohms?.at ?? null },
          remedies: drop.allowed ? [] : [{ code: 'thicker-or-shorter' }],
          ...(ohms && { source: asMeasured }),
        }
      }
      if (link.level.volts > 5 || !known) continue
      const fails = FAILING_VOLTS[link.taker.port.connector === 'type-c' ? 'type-c' : 'older']
      const grade = atLeast(volts, DOUBTFUL_VOLTS) ? 'clear' : atLeast(volts, fails) ? 'tight' : 'blocked'
      yield {
        grade,
        part: portPart(link.taker),
        measured: { have: volts, need: DOUBTFUL_VOLTS, unit: 'V' },
        reason: { code: 'volts-arrive', amps, before: link.lostBefore, fails },
        remedies:
          grade === 'clear'
            ? []
            : [{ code: 'thicker-or-shorter' }, ...(link.lostBefore > 0 ? [{ code: 'powered-hub' } as const] : [])],
        source: fromMemory('USB 2.0 and USB Type-C, volts at the device'),
      }
    }
  },
})

const isWireKnown = ({ leads }: Situation['laid']): boolean =>
  leads.some(({ cable, known }) => cable.awg !== undefined || known.ohms !== null)
