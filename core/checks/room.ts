import { z } from 'zod'
import { type Admission, namesLineRate } from '../link/admission'
import { controllerOf } from '../link/controller'
import { lackOfMode, modesInCommon } from '../link/data-link'
import { type PictureLack, pictureLackFor, portPicture } from '../link/picture-link'
import { portModes } from '../link/port-modes'
import type { Uplink } from '../link/uplink'
import { alternatives } from '../picture/fit'
import { formatPictureMode } from '../picture/mode-text'
import type { Socket } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { formatBytesPerSecond, formatRate } from '../quantity/rate'
import { isBetterMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { displayPortLane, hdmiLink } from '../standards/picture-links'
import { PICTURE_SHARE } from '../tunnel/tunnel'
import { NEED_KINDS, type NeedKind, pictureModeSchema } from '../vocabulary/need'
import { type Found, reason } from './check'
import { lackSchema } from './finding'
import { LACK_REMEDIES, remediesFor } from './lack-remedies'
import type { RemedyOf } from './remedies'
import { lackFigures, leadPart, portPart, runPart, type Situation } from './situation'
import { lackSentence, needNames } from './wording'

/** A rate with its unit, as people say it of a need. */
const rateOf = (kind: NeedKind, rate: number): string =>
  kind === 'storage' ? `${formatBytesPerSecond(rate)} (${formatRate(rate)})` : formatRate(rate)

/** Why a need finds room or not: of pictures, streams, files and data alike. */
export const roomReasons = {
  rate: reason(
    {
      kind: z.enum(NEED_KINDS),
      carrier: z.string(),
      before: z.number(),
      lack: lackSchema.nullable(),
      picture: pictureModeSchema.nullable(),
      compressedBits: z.number().nullable(),
      held: z.number().nullable().describe('What is held for it, where that is more than it sends'),
      cause: z
        .enum(['ports', 'picture beside', 'controller'])
        .nullable()
        .describe(
          'What keeps it from more, where that is no lead: the ports, a picture on the same pins, or the controller behind the port',
        ),
      overUsb: z.boolean().describe('A picture that a dock makes over plain USB, by a driver'),
    },
    ({ kind, carrier, before, lack, picture, compressedBits, held, cause, overUsb }, { label, have, need, unit }) => {
      const compressed = overUsb
        ? ', compressed and made over USB by a driver at the cost of the computer,'
        : compressedBits === null
          ? ''
          : `, compressed to ${decimal(compressedBits, 2)} bits a pixel,`
      const what = picture ? `The picture ${formatPictureMode(picture)}${compressed}` : `The ${needNames[kind]}`
      const shared = before > 0 ? ` after ${formatRate(before)} for what goes before it` : ''
      const link = `${carrier} leaves ${rateOf(kind, have)}${shared}`
      const holds = held === null ? '' : ` ${formatRate(held)} are held for it.`
      if (atLeast(have, need)) return `${what} needs ${rateOf(kind, need)}; ${link}.${holds}`
      const why = lack
        ? ` ${lackSentence(lack, label, unit)}`
        : cause === 'ports'
          ? ` These two ports carry no more, whatever lead lies between them.`
          : cause === 'picture beside'
            ? ' The picture on the same connector leaves no more.'
            : cause === 'controller'
              ? ' All ports on it share that, whatever lead lies here.'
              : ''
      return `${what} needs ${rateOf(kind, need)}, and ${link}.${holds}${why}`
    },
  ),
  'no-carrier': reason(
    {
      kind: z.enum(NEED_KINDS),
      cause: z.enum(['charge-only', 'unknown-lead', 'nothing-common', 'no-usb2-pair', 'one-picture', 'no-link']),
    },
    ({ kind, cause }, { label }) => {
      const what = needNames[kind]
      switch (cause) {
        case 'charge-only':
          return `${label} is a charge-only lead; the ${what} finds nothing to travel on.`
        case 'unknown-lead':
          return `Nothing is known about what ${label} carries, so nothing promises that the ${what} gets through.`
        case 'nothing-common':
          return `The two ports have nothing in common that could carry the ${what}.`
        case 'no-usb2-pair':
          return `The ${what} comes up as USB 2.0 further down, and ${label} brings no USB 2.0 pair for it.`
        case 'one-picture':
          return `An HDMI link carries one picture, and it has one already.`
        case 'no-link':
          return `No link comes up that could carry the ${what}.`
      }
    },
  ),
}
export const ROOM_REMEDIES = [
  ...LACK_REMEDIES,
  'picture-instead',
  'compress-pictures',
  'other-port',
  'ask-less',
] as const
type RoomRemedy = (typeof ROOM_REMEDIES)[number]

/** A picture fits or it does not; streams and files are tight when little is left of the link. */
const wantsHeadroom = (admission: Admission): boolean => ['headset', 'camera', 'storage'].includes(admission.need.kind)

/** Whether a need finds room on the run after what goes before it, who takes it away, and what would do instead. */
export function roomFor(situation: Situation, admission: Admission): Found<typeof roomReasons, RoomRemedy> {
  const { index, laid, picture, policy, uplink, crossings } = situation
  const { need, have, wanted, before, carrier, held, sent } = admission
  const isPicture = need.kind === 'picture' && !admission.overUsb
  const short = !admission.admitted
  const tight = !short && wantsHeadroom(admission) && !atLeast(have, wanted * (1 + policy.headroom))
  const hindrance = short || tight ? hindranceOf(situation, admission) : null
  const lack = typeof hindrance === 'string' ? null : hindrance
  const part = lack
    ? leadPart(lack.lead)
    : !carrier
      ? blamed(laid, isPicture)
      : hindrance === 'ports'
        ? portPart(lesserPort(laid, isPicture))
        : hindrance === 'controller'
          ? portPart(controllerOf(index, laid.run)?.away === 'up' ? laid.to : laid.from)
          : runPart(laid.run)
  const figures = { needId: need.id, measured: { have, need: wanted, unit: 'bit/s' } } as const
  if (!carrier && uplink.mode !== null && crossings.some((crossing) => crossing.need === need && crossing.usb2)) {
    const mute = laid.leads.find(({ reach }) => !reach.data.some(({ mode }) => mode === 'usb2'))
    return {
      ...figures,
      grade: 'blocked',
      part: mute ? leadPart(mute) : runPart(laid.run),
      reason: { code: 'no-carrier', kind: need.kind, cause: 'no-usb2-pair' },
      remedies: [{ code: 'other-lead' }],
    }
  }
  if (carrier && isPicture && have === 0 && before > 0 && picture.link?.via === 'hdmi')
    return {
      ...figures,
      grade: 'blocked',
      part: runPart(laid.run),
      reason: { code: 'no-carrier', kind: need.kind, cause: 'one-picture' },
      remedies: [{ code: 'other-port' }],
    }
  if (!carrier) {
    const cause = silence(laid, lack !== null)
    const remedies = lack ? [...remediesFor(lack, situation)] : [{ code: 'other-lead' } as const]
    return { ...figures, grade: 'blocked', part, reason: { code: 'no-carrier', kind: need.kind, cause }, remedies }
  }
  return {
    ...figures,
    grade: short ? 'blocked' : tight ? 'tight' : 'clear',
    part,
    reason: {
      code: 'rate',
      kind: need.kind,
      carrier: carrier.name,
      before,
      lack: lack ? lackFigures(lack) : null,
      picture: need.kind === 'picture' ? need.mode : null,
      compressedBits: admission.compressedBits,
      overUsb: admission.overUsb,
      cause: typeof hindrance === 'string' ? hindrance : null,
      held: atLeast(sent.down + sent.up, held.down + held.up) ? null : held.down + held.up,
    },
    remedies:
      short || tight
        ? [
            ...(lack ? remediesFor(lack, situation) : []),
            ...compressed(admission, uplink),
            ...askLess(admission),
            ...(hindrance === null || lack ? [] : [{ code: 'other-port' } as const]),
          ]
        : [],
    source: lack && 'source' in lack ? lack.source : carrier.source,
  }
}

/**
 * What keeps a need from what it asks: of the modes and steps that both ports have, the least that would carry it is asked for the lead that lacks it. `ports`:
 * none of them would. Null: what it shares the run with takes it.
 */
function hindranceOf(
  { laid, policy, data, picture, uplink, dataBeside, crossings }: Situation,
  { need, carrier, asked, found, wanted, before, admitted, overUsb, byController }: Admission,
): PictureLack | 'ports' | 'picture beside' | 'controller' | null {
  if (byController) return 'controller'
  // what is USB 2.0 further down shares its pair with others like it, whatever these ports could do
  if (crossings.some((crossing) => crossing.need === need && crossing.usb2)) return null
  const tunnelled = picture.link?.via === 'tunnel'
  const isPicture = need.kind === 'picture' && !overUsb
  if (need.kind === 'picture' && !overUsb && !tunnelled) {
    if (carrier && admitted) return null
    const lack = pictureLackFor(laid, need.mode, { compression: !need.uncompressed, dataBeside })
    // what could only have come through a tunnel lacks the tunnel
    return lack === 'ports' ? (picture.lack ?? (carrier ? 'ports' : null)) : lack
  }
  if (uplink.mode === 'usb2' && data.mode !== 'usb2' && data.mode !== null) return 'picture beside'
  const payload = uplink.mode === null ? 0 : linkModeFacts[uplink.mode].payload
  const tightest = asked.up > 0 && payload - found.up + asked.up > payload - found.down + asked.down ? 'up' : 'down'
  const headroom = admitted ? 1 + policy.headroom : 1
  const enough = (mode: LinkMode): boolean => {
    const facts = linkModeFacts[mode]
    if (isPicture) return facts.tunnel && atLeast(facts.line * PICTURE_SHARE, before + wanted)
    // a data sheet that names the mark on the plug is held against the mark
    if (namesLineRate(need)) return atLeast(facts.line, before + wanted * headroom)
    const taken = payload - found[tightest]
    return atLeast(facts.payload, Math.max(0, taken) + asked[tightest] * headroom)
  }
  const candidates = modesInCommon(laid).filter(enough)
  if (candidates.length === 0) return !carrier ? data.lack : before > 0 ? null : 'ports'
  // of two that carry as much the one that people would choose
  const [least] = candidates.sort(
    (one, other) => linkModeFacts[one].payload - linkModeFacts[other].payload || (isBetterMode(one, other) ? -1 : 1),
  )
  const lack = least ? lackOfMode(laid, least, policy) : null
  if (lack) return lack
  return uplink.mode === data.mode ? null : 'picture beside'
}

/** Which of two ports goes less far. */
function lesserPort({ from, to }: Situation['laid'], picture: boolean): Socket {
  const most = ({ port }: Socket, direction: 'out' | 'in'): number => {
    if (!picture) return Math.max(0, ...[...portModes(port)].map((mode) => linkModeFacts[mode].payload))
    const offer = portPicture(port, direction)
    if (!offer) return 0
    return offer.family === 'hdmi'
      ? hdmiLink[offer.level].payload
      : displayPortLane[offer.displayport.link].payload * offer.displayport.lanes
  }
  return most(to, 'in') < most(from, 'out') ? to : from
}

/** Data that is held up by pictures which might send less. */
function* compressed(
  { need, have, wanted, asked, overUsb }: Admission,
  { compressible, mode }: Uplink,
): Iterable<RemedyOf<'compress-pictures'>> {
  if ((need.kind === 'picture' && !overUsb) || mode === 'usb2' || asked.down === 0 || compressible === 0) return
  if (!atLeast(have, wanted) && atLeast(have + compressible, wanted))
    yield { code: 'compress-pictures', rate: have + compressible }
}

const INSTEAD_SHOWN = 3

/** The best pictures that do fit, or, for anything else, less of it. */
function* askLess({ need, spec }: Admission): Iterable<RemedyOf<'picture-instead' | 'ask-less'>> {
  const instead = need.kind === 'picture' && spec ? alternatives(need.mode, spec, { compression: false }) : []
  for (const { concession, mode } of instead.slice(0, INSTEAD_SHOWN))
    yield { code: 'picture-instead', concession, mode }
  if (instead.length === 0) yield { code: 'ask-less' }
}

/** Why no link comes up at all. */
function silence(
  { leads }: Situation['laid'],
  lacking: boolean,
): 'charge-only' | 'unknown-lead' | 'nothing-common' | 'no-link' {
  if (leads.some((lead) => lead.known.grade.value === 'charge-only')) return 'charge-only'
  if (leads.some((lead) => lead.known.grade.value === null)) return 'unknown-lead'
  return lacking ? 'no-link' : 'nothing-common'
}

/** With no link at all and no lead that lacks it, the first port that does not offer it is to blame. */
function blamed({ from, to, leads, run }: Situation['laid'], picture: boolean) {
  const mute = leads.find((lead) => lead.known.grade.value === null || lead.known.grade.value === 'charge-only')
  if (mute) return leadPart(mute)
  const offers = ({ port }: Situation['laid']['from']): boolean =>
    picture
      ? port.displayport !== undefined || port.hdmi !== undefined
      : port.usb !== undefined || port.usb4 !== undefined || port.thunderbolt !== undefined
  if (!offers(from)) return portPart(from)
  return offers(to) ? runPart(run) : portPart(to)
}
