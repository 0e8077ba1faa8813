import { z } from 'zod'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { runPart } from './situation'

/** A headset that asks for a faster link than it uses refuses one that comes up lower, though its pictures would fit. */
export const askedLinkCheck = check({
  name: 'asked link',
  reasons: {
    'asked-link': reason(
      { asked: z.enum(LINK_MODES), mode: z.enum(LINK_MODES).nullable() },
      ({ asked, mode }) =>
        `The headset asks for a link of ${linkModeFacts[asked].name}. ${mode === null ? 'None comes up.' : `This run comes up as ${linkModeFacts[mode].name}.`}`,
    ),
  },
  remedies: ['better-grade', 'other-lead'],
  reads: [],
  source: commonPractice('headsets that ask for a link of a certain speed'),
  *find({ laid, crossings, uplink }) {
    if (laid.leads.length === 0) return
    for (const { need, usb2 } of crossings) {
      if (need.kind !== 'headset' || need.link === undefined) continue
      const mode = usb2 ? 'usb2' : uplink.mode
      const enough = mode !== null && linkModeFacts[mode].line >= linkModeFacts[need.link].line
      yield {
        grade: enough ? 'clear' : 'blocked',
        part: runPart(laid.run),
        needId: need.id,
        reason: { code: 'asked-link', asked: need.link, mode },
        remedies: enough ? [] : [{ code: 'better-grade', mode: need.link }, { code: 'other-lead' }],
      }
    }
  },
})
