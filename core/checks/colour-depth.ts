import { z } from 'zod'
import { inStandardRange } from '../picture/fit'
import type { Socket } from '../plan/site-index'
import { DISPLAYPORT_LINKS, displayPortLane, HDMI_LEVELS, hdmiLink } from '../standards/picture-links'
import { fromMemory, published } from '../standards/source'
import type { Port } from '../vocabulary/device'
import type { Need, PictureMode } from '../vocabulary/need'
import { screens } from './aspects'
import { check, type Found, reason } from './check'
import type { RemedyOf } from './remedies'
import { shownBy } from './shown-modes'
import { portPart, runPart, type Situation } from './situation'

const standard = published('VESA E-EDID and CTA-861.3')
const carried = fromMemory('high dynamic range is told from HDMI 2.0a and DisplayPort 1.4 on')

const reasons = {
  'fewer-bits': reason(
    { most: z.number(), asked: z.number(), read: z.string() },
    ({ most, asked, read }, { label }) =>
      `${label} takes ${most} bits per colour at most, as it was read on ${read}; this picture has ${asked}.`,
  ),
  'rgb-only': reason(
    {},
    (_, { label }) => `${label} goes over DVI, which carries RGB (4:4:4) only; this picture has less colour.`,
  ),
  'no-hdr': reason(
    { read: z.string() },
    ({ read }, { label }) => `${label} does not list high dynamic range, as it was read on ${read}.`,
  ),
  hdr: reason({ read: z.string().nullable() }, ({ read }, { label }) =>
    read === null
      ? `Whether ${label} takes high dynamic range is not known: read its EDID, or look it up.`
      : `${label} takes high dynamic range, as it was read on ${read}.`,
  ),
  'hdr-version': reason(
    { level: z.string(), since: z.string() },
    ({ level, since }, { label }) =>
      `${label} goes to ${level}, so it may be older than ${since}, the first version that signals high dynamic range. Look up its version.`,
  ),
}

const REMEDIES = ['ask-less', 'picture-instead', 'other-port'] as const

/** Bits per colour and dynamic range: what the display says that it takes, and whether the ports are of a version that tells it. */
export const colourDepthCheck = check({
  name: 'colour depth',
  reasons,
  remedies: REMEDIES,
  reads: [screens],
  source: published('VESA E-EDID and CTA-861.3, as the display was read'),
  *find({ laid, crossings, picture }) {
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const shown = shownBy(laid, need)
      if (shown) yield* saidBy(shown, need)
      if (need.mode.chroma !== '444' && isOverDvi(laid))
        yield {
          grade: 'blocked',
          part: runPart(laid.run),
          needId: need.id,
          reason: { code: 'rgb-only' },
          remedies: [{ code: 'other-port' }],
          source: fromMemory('DVI 1.0'),
        }
      if (!need.mode.hdr || !picture.link?.spec) continue
      for (const end of [laid.from, laid.to]) {
        const old = tooOld(end.port)
        if (old)
          yield {
            grade: 'tight',
            part: portPart(end),
            needId: need.id,
            reason: { code: 'hdr-version', ...old },
            remedies: [instead(need.mode)],
            source: carried,
          }
      }
    }
  },
})

const isOverDvi = ({ from, to, leads }: Situation['laid']): boolean =>
  [from.port, to.port, ...leads.flatMap(({ cable }) => cable.ends)].some(({ connector }) => connector === 'dvi')

/** What a display says of a picture's bits and range. */
function* saidBy(
  at: Socket,
  { id: needId, mode }: Extract<Need, { kind: 'picture' }>,
): Iterable<Found<typeof reasons, (typeof REMEDIES)[number]>> {
  const { kind, screen } = at.device
  const part = portPart(at)
  // 4:2:2 has room for 12 bits wherever it goes (HDMI, from memory)
  if (screen?.bits !== undefined && mode.bits > screen.bits && mode.chroma !== '422')
    yield {
      grade: 'blocked',
      part,
      needId,
      reason: { code: 'fewer-bits', most: screen.bits, asked: mode.bits, read: screen.read },
      remedies: [{ code: 'ask-less' }],
    }
  if (!mode.hdr || kind === 'dock') return
  if (screen?.hdr === false)
    yield { grade: 'blocked', part, needId, reason: { code: 'no-hdr', read: screen.read }, remedies: [instead(mode)] }
  else if (screen?.hdr) yield { grade: 'clear', part, needId, reason: { code: 'hdr', read: screen.read } }
  else yield { grade: 'note', part, needId, reason: { code: 'hdr', read: null }, source: standard }
}

const instead = (mode: PictureMode): RemedyOf<'picture-instead'> => ({
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
