import { craft, type Finding } from './finding'
import { type Check, leadPart, type Situation } from './situation'

/** Where the site holds to supplied cables only, each lead is one that came with a device at an end of the run. */
export const pairingCheck: Check = {
  name: 'pairing',
  *findings({ laid, policy, index }: Situation): Iterable<Finding> {
    if (policy.cables !== 'supplied') return
    const here = new Set([laid.from.device.id, laid.to.device.id])
    for (const lead of laid.leads) {
      const owner = lead.cable.suppliedWith
      if (owner !== undefined && here.has(owner)) continue
      const name = owner === undefined ? '' : (index.devices.get(owner)?.name ?? '')
      yield {
        check: 'pairing',
        grade: 'blocked',
        part: leadPart(lead),
        have: null,
        need: null,
        unit: null,
        reason: { code: 'not-supplied', with: name },
        remedies: [{ code: 'other-lead' }],
        source: craft,
      }
    }
  },
}
