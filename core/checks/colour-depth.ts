import { inStandardRange } from '../picture/fit'
import type { Socket } from '../plan/site-index'
import { DISPLAYPORT_LINKS, displayPortLane, HDMI_LEVELS, hdmiLink } from '../standards/picture-links'
import { fromMemory, published, type Source } from '../standards/source'
import type { Port } from '../vocabulary/device'
import type { PictureMode } from '../vocabulary/need'
import type { Finding, Reason, Remedy } from './finding'
import { shownBy } from './shown-modes'
import { type Check, portPart, type Situation } from './situation'

const asRead = published('VESA E-EDID and CTA-861.3, as the display was read')
const standard = published('VESA E-EDID and CTA-861.3')
const carried = fromMemory('high dynamic range is told from HDMI 2.0a and DisplayPort 1.4 on')

type Said = { grade: Finding['grade']; reason: Reason; source: Source; remedies?: readonly Remedy[] }

/** Bits per colour and dynamic range: what the display says that it takes, and whether the ports are of a version that tells it. */
export const colourDepthCheck: Check = {
  name: 'colour depth',
  *findings({ laid, crossings, picture }: Situation): Iterable<Finding> {
    const find = (at: Socket, needId: string, { grade, reason, source, remedies = [] }: Said): Finding => ({
      check: 'colour depth',
      grade,
      part: portPart(at),
      needId,
      have: null,
      need: null,
      unit: null,
      reason,
      remedies,
      source,
    })
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const { mode } = need
      const shown = shownBy(laid, need)
      if (shown) for (const said of saysDisplay(shown, mode)) yield find(shown, need.id, said)
      if (!mode.hdr || !picture.link?.spec) continue
      for (const end of [laid.from, laid.to]) {
        const old = tooOld(end.port)
        if (old)
          yield find(end, need.id, {
            grade: 'tight',
            reason: { code: 'hdr-version', ...old },
            source: carried,
            remedies: [instead(mode)],
          })
      }
    }
  },
}

function* saysDisplay({ device: { kind, screen } }: Socket, mode: PictureMode): Iterable<Said> {
  // 4:2:2 has room for 12 bits wherever it goes (HDMI, from memory)
  if (screen?.bits !== undefined && mode.bits > screen.bits && mode.chroma !== '422')
    yield {
      grade: 'blocked',
      reason: { code: 'fewer-bits', most: screen.bits, asked: mode.bits, read: screen.read },
      source: asRead,
      remedies: [{ code: 'ask-less' }],
    }
  if (!mode.hdr || kind === 'dock') return
  if (screen?.hdr === false)
    yield {
      grade: 'blocked',
      reason: { code: 'no-hdr', read: screen.read },
      source: asRead,
      remedies: [instead(mode)],
    }
  else
    yield {
      grade: screen?.hdr ? 'clear' : 'note',
      reason: { code: 'hdr', read: screen?.hdr ? screen.read : null },
      source: screen?.hdr ? asRead : standard,
    }
}

const instead = (mode: PictureMode): Remedy => ({
  code: 'picture-instead',
  concession: 'standard range',
  mode: inStandardRange(mode),
})

/** A port whose level is that of a version before the first that tells high dynamic range; one of a later version may have no more. */
function tooOld({ hdmi, displayport }: Port): { level: string; since: string } | null {
  if (hdmi)
    return HDMI_LEVELS.indexOf(hdmi.level) < HDMI_LEVELS.indexOf('tmds-18') && hdmi.level !== 'frl-9'
      ? { level: hdmiLink[hdmi.level].name, since: 'HDMI 2.0a' }
      : null
  return displayport && DISPLAYPORT_LINKS.indexOf(displayport.link) < DISPLAYPORT_LINKS.indexOf('hbr3')
    ? { level: displayPortLane[displayport.link].name, since: 'DisplayPort 1.4' }
    : null
}
