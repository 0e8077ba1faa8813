import { z } from 'zod'
import { atMost } from '../quantity/limit'
import { formatRate } from '../quantity/rate'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { pcieCeiling } from '../storage/storage'
import { check, reason } from './check'
import { runPart } from './situation'

/**
 * A laptop's own screen that an outboard graphics box draws: its frames come back over the tunnel as PCIe data, beside what the box is sent. That costs frames; a
 * display on the box itself costs none (common practice).
 */
export const ownScreenCheck = check({
  name: 'own screen',
  reasons: {
    'needs-tunnel': reason(
      { mode: z.enum(LINK_MODES).nullable() },
      ({ mode }) =>
        `Only USB4 or Thunderbolt brings a screen back from a graphics box. ${mode === null ? 'No link comes up here.' : `This run comes up as ${linkModeFacts[mode].name}.`}`,
    ),
    'comes-back': reason(
      { rate: z.number(), ceiling: z.number() },
      ({ rate, ceiling }) =>
        `The frames come back over this link: ${formatRate(rate)} of the ${formatRate(ceiling)} of PCIe data it carries. Expect fewer frames than on a display at the graphics box.`,
    ),
  },
  remedies: ['outboard-display', 'ask-less'],
  reads: [],
  source: commonPractice("a laptop's own screen, fed back from an outboard graphics box"),
  *find({ laid, crossings, uplink }) {
    if (laid.leads.length === 0) return
    for (const { need } of crossings) {
      if (need.kind !== 'own screen') continue
      const about = { part: runPart(laid.run), needId: need.id } as const
      const { mode } = uplink
      if (mode === null || !linkModeFacts[mode].tunnel) {
        yield {
          ...about,
          grade: 'blocked',
          reason: { code: 'needs-tunnel', mode },
          remedies: [{ code: 'outboard-display' }],
        }
        continue
      }
      const ceiling = Math.min(linkModeFacts[mode].payload, pcieCeiling(mode, laid.from.port) ?? Infinity)
      const fits = atMost(need.rate, ceiling)
      yield {
        ...about,
        grade: fits ? 'note' : 'blocked',
        measured: { have: ceiling, need: need.rate, unit: 'bit/s' },
        reason: { code: 'comes-back', rate: need.rate, ceiling },
        remedies: [{ code: 'outboard-display' }, ...(fits ? [] : [{ code: 'ask-less' } as const])],
      }
    }
  },
})
