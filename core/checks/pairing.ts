import { z } from 'zod'
import { suppliedWith } from './aspects'
import { check, reason } from './check'
import { craft } from './finding'
import { leadPart } from './situation'

/** Where the site holds to supplied cables only, each lead is one that came with a device at an end of the run. */
export const pairingCheck = check({
  name: 'pairing',
  reasons: {
    'not-supplied': reason({ with: z.string() }, ({ with: owner }, { label }) =>
      owner
        ? `${label} came with ${owner}; this site uses only the lead supplied with a device of the run.`
        : `${label} came with no device; this site uses only supplied leads.`,
    ),
  },
  remedies: ['other-lead'],
  reads: [suppliedWith],
  source: craft,
  *find({ laid, policy, index }) {
    if (policy.cables !== 'supplied') return
    const here = new Set([laid.from.device.id, laid.to.device.id])
    for (const lead of laid.leads) {
      const owner = lead.cable.suppliedWith
      if (owner !== undefined && here.has(owner)) continue
      const name = owner === undefined ? '' : (index.devices.get(owner)?.name ?? '')
      yield {
        grade: 'blocked',
        part: leadPart(lead),
        reason: { code: 'not-supplied', with: name },
        remedies: [{ code: 'other-lead' }],
      }
    }
  },
})
