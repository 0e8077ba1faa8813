import { z } from 'zod'
import { proofOf } from '../link/chain'
import type { LaidLead, LaidRun } from '../link/lay'
import { HUB_OWN_WATTS, powerLink } from '../link/power-link'
import { atLeast } from '../quantity/limit'
import { formatWatts } from '../quantity/watts'
import type { LinkMode } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { busWatts } from '../vocabulary/need'
import { busPower } from './aspects'
import { check, reason } from './check'
import { feeds } from './feeds-aspect'
import { portPart, wantedWatts } from './situation'

/** A hub without a supply, or an active lead that is not fed, lives on the bus with all that hangs behind it. */
export const busBudgetCheck = check({
  name: 'bus budget',
  reasons: {
    'bus-budget': reason(
      { ownSupply: z.boolean(), leads: z.int(), count: z.int(), soaked: z.boolean() },
      ({ ownSupply, leads, count, soaked }, { label, have, need }) => {
        const takers = [
          ownSupply ? 'for the device' : 'for the hub itself',
          ...(leads > 0 ? [leads === 1 ? 'the active lead' : `${leads} active leads`] : []),
          ...(count > 0 ? [`${count} behind it`] : []),
        ]
        const who = ownSupply ? `${label} shares the bus with its lead` : `${label} has no supply`
        return `${who}: ${formatWatts(need)} ${takers.join(' and ')}, of ${formatWatts(have)} that arrive.${soaked ? ' It held a soak all the same: it draws less than assumed.' : ''}`
      },
    ),
  },
  remedies: ['powered-hub', 'powered-far-end'],
  reads: [busPower, feeds],
  source: commonPractice('a hub without a supply, and an unfed active lead, live on what the uplink gives'),
  *find({ index, laid, data, crossings }) {
    const { device, port } = laid.to
    if (laid.leads.length === 0) return
    const hungry = laid.leads.filter(livesOnTheBus).length
    const behind = crossings.flatMap(({ need, lastMile }) => (lastMile ? [] : (busWatts(need) ?? [])))
    const atEnd = crossings.flatMap((crossing) => (crossing.need.kind === 'power' ? [] : (wantedWatts(crossing) ?? [])))
    if (!device.busPowered && (hungry === 0 || atEnd.length === 0)) return
    const have = powerLink(index, laid, 'down').watts
    const own = device.busPowered ? (port.takes ?? HUB_OWN_WATTS) : 0
    const need = [...behind, ...atEnd].reduce((sum, watts) => sum + watts, own + hungry * HUB_OWN_WATTS)
    const assumed = (device.busPowered && port.takes === undefined ? 1 : 0) + hungry
    // what a soaked run has passed outranks what is only assumed of it
    const soaked = !atLeast(have, need) && atLeast(have, need - assumed * HUB_OWN_WATTS) && heldSoak(laid, data.mode)
    const enough = soaked || atLeast(have, need)
    yield {
      grade: enough ? 'clear' : 'blocked',
      part: portPart(laid.to),
      measured: { have, need, unit: 'W' },
      reason: { code: 'bus-budget', ownSupply: !device.busPowered, leads: hungry, count: behind.length, soaked },
      remedies: enough ? [] : [{ code: device.busPowered ? 'powered-hub' : 'powered-far-end' }],
    }
  },
})

/** This very run held what it comes up in for as long as the site soaks. */
function heldSoak(laid: LaidRun, mode: LinkMode | null): boolean {
  const seen = mode === null ? null : proofOf(laid, mode).here
  return seen?.came === 'held' && seen.tally.longestHeld >= laid.asks.soak
}

/** Active leads with older plugs and extensions take their watts from the bus; those between type-C plugs have a supply pin of their own (from memory). */
const livesOnTheBus = ({ cable, shape, feeding }: LaidLead): boolean =>
  cable.construction === 'active' && feeding === 'unfed' && (shape === 'legacy' || shape === 'extension')
