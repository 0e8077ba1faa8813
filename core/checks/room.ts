import type { Admission } from '../link/admission'
import { alternatives } from '../picture/fit'
import { atLeast } from '../quantity/limit'
import { craft, type Finding, type Remedy } from './finding'
import { remediesFor } from './link-mode'
import { lackFigures, leadPart, portPart, runPart, type Situation } from './situation'

/** A picture fits or it does not; streams and files are tight when little is left of the link. */
const wantsHeadroom = (admission: Admission): boolean => ['headset', 'camera', 'storage'].includes(admission.need.kind)

/** Whether a need finds room on the run after what goes before it, who takes it away, and what would do instead. */
export function roomFinding(
  check: 'picture' | 'rate',
  { laid, data, picture, policy }: Situation,
  admission: Admission,
): Finding {
  const { need, have, wanted, before, carrier } = admission
  const lack = need.kind === 'picture' ? picture.lack : data.lack
  const part = lack ? leadPart(lack.lead) : carrier ? runPart(laid.run) : blamed(laid, need.kind === 'picture')
  const figures = { check, needId: need.id, have, need: wanted, unit: 'bit/s' } as const
  if (!carrier) {
    const cause = silence(laid, lack !== null)
    const remedies = lack ? [...remediesFor(lackFigures(lack))] : [{ code: 'other-lead' } as const]
    return {
      ...figures,
      grade: 'blocked',
      part,
      reason: { code: 'no-carrier', kind: need.kind, cause },
      remedies,
      source: craft,
    }
  }
  const short = !atLeast(have, wanted)
  const tight = !short && wantsHeadroom(admission) && !atLeast(have, wanted * (1 + policy.headroom))
  const limit = short || tight ? lack : null
  return {
    ...figures,
    grade: short ? 'blocked' : tight ? 'tight' : 'clear',
    part: limit ? part : runPart(laid.run),
    reason: {
      code: 'rate',
      kind: need.kind,
      carrier: carrier.name,
      before,
      lack: limit ? lackFigures(limit) : null,
      picture: need.kind === 'picture' ? need.mode : null,
      compressedBits: admission.compressedBits ?? null,
    },
    remedies: short || tight ? [...(limit ? remediesFor(lackFigures(limit)) : []), ...askLess(admission)] : [],
    source: limit && 'source' in limit ? limit.source : carrier.source,
  }
}

const INSTEAD_SHOWN = 3

/** The best pictures that do fit, or, for anything else, less of it. */
function* askLess({ need, spec }: Admission): Iterable<Remedy> {
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
