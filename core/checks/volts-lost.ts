import type { LaidLead } from '../link/lay'
import { arriving } from '../link/supply'
import { ALLOWED_DROP, type Drop, GROUND_WIRES, loopDrop, wireDrop } from '../power/wire'
import type { Amps } from '../quantity/watts'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation, wantedWatts } from './situation'

/** Volts a lead loses at the current that is asked, by what was measured of it or by its gauge; more than a cable may lose makes devices drop out under load. */
export const voltsLostCheck: Check = {
  name: 'volts lost',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
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
      yield {
        check: 'volts lost',
        grade: drop.allowed ? 'clear' : 'tight',
        part: leadPart(lead),
        have: drop.supply,
        need: ALLOWED_DROP.supply,
        unit: 'V',
        reason: {
          code: 'volts-lost',
          total: drop.total,
          amps,
          watts: drop.watts,
          measured: lead.known.ohms?.at ?? null,
        },
        remedies: drop.allowed ? [] : [{ code: 'thicker-or-shorter' }],
        source: lead.known.ohms ? measured : ALLOWED_DROP.source,
      }
    }
  },
}

const measured = commonPractice('volts that this lead lost at a measured current')

/** What a lead loses at a current: by the volts somebody measured, otherwise by its gauge; null where neither is known. */
function dropOf({ cable, known }: LaidLead, amps: Amps): Drop | null {
  if (known.ohms) return loopDrop(known.ohms.value, amps)
  if (cable.awg === undefined) return null
  const drop = wireDrop({ awg: cable.awg, length: cable.length, amps, groundWires: GROUND_WIRES })
  return drop.ok ? drop.value : null
}
