import { negotiate } from '../power/negotiate'
import { ALLOWED_DROP, GROUND_WIRES, wireDrop } from '../power/wire'
import type { Finding } from './finding'
import { type Check, leadPart, type Situation, wantedWatts } from './situation'

/** Volts a lead of known gauge loses at the current that flows; more than a cable may lose makes devices drop out under load. */
export const voltsLostCheck: Check = {
  name: 'volts lost',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    const watts = Math.max(0, ...crossings.map((crossing) => wantedWatts(crossing) ?? 0))
    if (watts === 0) return
    const upward = crossings.some(({ need, way }) => need.kind === 'power' && way === 'up')
    const [giver, taker] = upward ? [laid.to, laid.from] : [laid.from, laid.to]
    const limits = laid.leads.map((lead) => ({ amps: lead.known.amps.value, volts: lead.known.volts.value }))
    const { level } = negotiate(giver.port, limits, taker.port.accepts)
    if (level === null) return
    const amps = Math.min(level.amps, watts / level.volts)
    for (const lead of laid.leads) {
      if (lead.cable.awg === undefined) continue
      const drop = wireDrop({ awg: lead.cable.awg, length: lead.cable.length, amps, groundWires: GROUND_WIRES })
      if (!drop.ok) continue
      yield {
        check: 'volts lost',
        grade: drop.value.allowed ? 'clear' : 'tight',
        part: leadPart(lead),
        have: drop.value.supply,
        need: ALLOWED_DROP.supply,
        unit: 'V',
        reason: { code: 'volts-lost', total: drop.value.total, amps, watts: drop.value.watts },
        remedies: drop.value.allowed ? [] : [{ code: 'thicker-or-shorter' }],
        source: ALLOWED_DROP.source,
      }
    }
  },
}
