import { negotiate } from '../power/negotiate'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, portPart, type Situation } from './situation'

const source = commonPractice('a hub without a supply shares out what its uplink gives')
/** What a hub takes for itself where its data sheet does not say: one unit load of 100 mA at 5 V (USB 2.0 §7.2.1). */
const HUB_OWN_WATTS = 0.5

/** A hub without a supply of its own lives on its uplink, with all that hangs behind it. */
export const busBudgetCheck: Check = {
  name: 'bus budget',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    const { device, port } = laid.to
    if (!device.busPowered || laid.leads.length === 0) return
    const behind = crossings.flatMap(({ need, lastMile }) =>
      !lastMile && need.kind !== 'power' && 'watts' in need && need.watts ? [need.watts] : [],
    )
    const leads = laid.leads.map((lead) => ({ amps: lead.known.amps.value, volts: lead.known.volts.value }))
    const have = negotiate(laid.from.port, leads).watts
    const need = (port.takes ?? HUB_OWN_WATTS) + behind.reduce((sum, watts) => sum + watts, 0)
    yield {
      check: 'bus budget',
      grade: have >= need ? 'clear' : 'blocked',
      part: portPart(laid.to),
      have,
      need,
      unit: 'W',
      reason: { code: 'bus-budget', count: behind.length },
      remedies: have >= need ? [] : [{ code: 'powered-hub' }],
      source,
    }
  },
}
