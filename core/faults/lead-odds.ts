import type { LaidLead } from '../link/lay'
import { recordOfKindOn } from '../link/record'
import { printedLength } from '../standards/reach'
import { commonPractice, type Source } from '../standards/source'
import type { Cable } from '../vocabulary/cable'
import type { Scene } from './scene'

type Odds = { odds: number; source: Source }

/** So many tries of a kind weigh as much as what is said of leads in general. */
const USUAL_TRIES = 6
/** Of leads that are laid so many turn out worn or broken where nobody knows more (common practice: the lead is the part that lies most). */
const USUAL_SHARE = 0.15

/** How likely a lead fails beside other causes: by this site's record of its kind on this controller where there is one, shrunk towards what is usual. */
export function failingOdds({ index, laid, planned }: Scene, { cable }: LaidLead, usual: number): Odds {
  const record =
    cable.kind === undefined || planned === null
      ? { passed: 0, tried: 0 }
      : recordOfKindOn(index, cable.kind, planned, laid.from.port.controller)
  const { passed, tried } = record
  if (tried === 0) return { odds: usual, source: commonPractice('the lead is the part that lies most') }
  const share = (tried - passed + USUAL_SHARE * USUAL_TRIES) / (tried + USUAL_TRIES)
  return {
    odds: (usual * share) / USUAL_SHARE,
    source: commonPractice(`the record of this site: ${passed} of ${tried} of its kind held here`),
  }
}

/** How likely a lead does less than it says, by how what is believed of it is known. */
export function lyingOdds({ planned }: Scene, { known }: LaidLead): Odds {
  const held = known.trials.some(({ cameUp, tried }) => cameUp === tried && tried === planned)
  if (held) return { odds: 0.2, source: commonPractice('it held this very mode before') }
  const odds = BY_BASIS[known.grade.basis] ?? CLAIMED
  return { odds, source: commonPractice(`what it carries is ${known.grade.basis}`) }
}
const CLAIMED = 1.2
const BY_BASIS: Partial<Record<LaidLead['known']['grade']['basis'], number>> = {
  supplied: 0.5,
  chip: 0.5,
  measured: 0.3,
  soaked: 0.2,
}

/** Above so much of its reach a lead is near its limit. */
export const NEAR_ITS_LIMIT = 0.6

/** How much of the length that its rate allows a lead takes; 0 for one that repeats the signal, 2 where it is not made for the mode at all. */
export function shareOfReach({ planned }: Scene, { cable, reach }: LaidLead): number {
  if (cable.construction !== 'passive' || planned === null) return 0
  const row = reach.data.find(({ mode }) => mode === planned)
  return row ? printedLength(cable.length) / row.reach : 0
}

const families: readonly (readonly string[])[] = [
  ['type-c', 'type-a', 'type-b', 'micro-b', 'mini-b'],
  ['displayport', 'mini-displayport'],
  ['hdmi', 'dvi'],
]

/** Whether a lead has plugs of two families: then it turns one into the other on its way. */
export function isAdapter(ends: Cable['ends']): boolean {
  const [one, other] = ends.map(({ connector }) => families.findIndex((family) => family.includes(connector)))
  return one !== other
}
