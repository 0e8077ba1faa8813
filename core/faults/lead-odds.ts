import { TOP_ODDS } from '../link/estimate'
import { type LaidLead, oughtOf } from '../link/lay'
import { estimateOn } from '../link/outcomes'
import { cameIn } from '../link/record'
import { isGood } from '../observe/came'
import { printedLength } from '../standards/reach'
import { commonPractice, type Source } from '../standards/source'
import type { Cable } from '../vocabulary/cable'
import type { Scene } from './scene'

type Odds = { odds: number; source: Source }

/** How likely a lead fails beside other causes: by what this site has seen of leads like it, on this controller where there is anything. */
export function failingOdds({ index, laid, planned }: Scene, { cable }: LaidLead, usual: number): Odds {
  if (planned === null) return { odds: usual, source: commonPractice('the lead is the part that lies most') }
  const kind = cable.kind === undefined ? undefined : index.kinds.get(cable.kind)?.name.toLowerCase()
  const { controller } = laid.from.port
  const { odds, own } = estimateOn(index, {
    mode: planned,
    construction: cable.construction,
    length: cable.length,
    ...(kind === undefined ? {} : { kind }),
    ...(controller === undefined ? {} : { controller }),
  })
  return {
    odds: (usual * (1 - odds)) / (1 - TOP_ODDS),
    source: commonPractice(
      own === null
        ? 'the lead is the part that lies most'
        : `the record of this site: ${own.passed} of ${own.tried} of its kind and length held`,
    ),
  }
}

/** How likely a lead does less than it says, by how what is believed of it is known. */
export function lyingOdds({ planned }: Scene, lead: LaidLead): Odds {
  const { known } = lead
  const came = planned === null ? null : (cameIn(known.links, planned, oughtOf(lead)) ?? null)
  if (isGood(came)) return { odds: 0.2, source: commonPractice('it held this very mode before') }
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
