import { leadPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { devicePart, looseLeads } from '../scene'

const source = commonPractice('supplies of active leads are forgotten or missing from the box')

/** An active lead that takes a supply, or an extender end, without its supply. */
export const noFeed: CauseKind = {
  *of(scene) {
    for (const lead of looseLeads(scene))
      if (lead.cable.feed === 'required' || lead.cable.feed === 'optional')
        yield { part: leadPart(lead), odds: lead.feeding === 'unfed' ? 1.5 : 0.5, source }
    for (const { device } of [scene.laid.from, scene.laid.to])
      if (device.kind === 'extender') yield { part: devicePart(device), odds: 0.6, source }
  },
  shows: {
    'not detected': 0.45,
    'usb2 only': 0.25,
    drops: 0.3,
    'frames lost': 0.2,
    'headset drains': 0.2,
    'supply dark': 0.3,
  },
  words: (part) => `${part} has no supply, or one that is too weak.`,
  followUp: 'feed it',
}
