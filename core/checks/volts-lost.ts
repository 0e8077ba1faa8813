import { z } from 'zod'
import type { LaidLead } from '../link/lay'
import { arriving } from '../link/supply'
import { ALLOWED_DROP, type Drop, GROUND_WIRES, loopDrop, wireDrop } from '../power/wire'
import { decimal } from '../quantity/parsed'
import type { Amps } from '../quantity/watts'
import { commonPractice } from '../standards/source'
import { wire } from './aspects'
import { check, reason } from './check'
import { momentFigure, wattsFigure } from './finding'
import { leadPart, wantedWatts } from './situation'
import { dayOf } from './wording'

const asMeasured = commonPractice('volts that this lead lost at a measured current')

/** Volts a lead loses at the current that is asked, by what was measured of it or by its gauge; more than a cable may lose makes devices drop out under load. */
export const voltsLostCheck = check({
  name: 'volts lost',
  reasons: {
    'volts-lost': reason(
      { total: z.number(), amps: z.number(), watts: wattsFigure, measured: momentFigure.nullable() },
      ({ total, amps, watts, measured }, { label, need }) =>
        `${label} loses ${decimal(total, 2)} V there and back at ${decimal(amps, 2)} A, ${decimal(watts, 1)} W of heat${measured ? `, as measured on ${dayOf(measured)}` : ''}; a cable may lose ${decimal(need, 2)} V on its supply.`,
    ),
  },
  remedies: ['thicker-or-shorter'],
  reads: [wire],
  source: ALLOWED_DROP.source,
  *find({ laid, crossings }) {
    const watts = Math.max(0, ...crossings.map((crossing) => wantedWatts(crossing) ?? 0))
    if (watts === 0) return
    const upward = crossings.some(({ need, way }) => need.kind === 'power' && way === 'up')
    const [giver, taker] = upward ? [laid.to, laid.from] : [laid.from, laid.to]
    const { level } = arriving(laid, giver, taker)
    if (level === null) return
    const amps = Math.min(level.amps, watts / level.volts)
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
  },
})

/** What a lead loses at a current: by the volts somebody measured, otherwise by its gauge; null where neither is known. */
function dropOf({ cable, known }: LaidLead, amps: Amps): Drop | null {
  if (known.ohms) return loopDrop(known.ohms.value, amps)
  if (cable.awg === undefined) return null
  const drop = wireDrop({ awg: cable.awg, length: cable.length, amps, groundWires: GROUND_WIRES })
  return drop.ok ? drop.value : null
}
