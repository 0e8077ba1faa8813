import { formatLength, type LengthUnit, type Metres } from '../quantity/length'
import { type CableGrade, type Construction, gradeFacts } from '../standards/grades'
import type { ChipFacts } from './e-marker'

/** What is printed on a cable, listed of it, or seen of it. */
export type Claim = {
  length?: Metres
  grade?: CableGrade
  amps?: 0 | 3 | 5
  volts?: 20 | 50
  construction?: Construction
}

/** Something the chip says that cannot be true beside what is claimed, or by the rules of the chip itself. */
export type Contradiction =
  | { code: 'latency'; stated: Metres; above: Metres; upTo: Metres | null }
  | { code: 'rate'; claimed: CableGrade; chip: CableGrade }
  | { code: 'current'; claimed: number; chip: number }
  | { code: 'voltage' }
  | { code: 'construction'; claimed: Construction; chip: Construction }
  | { code: 'missing-word'; word: string }
  | { code: 'reserved-bits'; where: string }
  | { code: 'not-a-cable' }

/** A stated length is rounded by whoever printed it. */
const ROUNDING: Metres = 0.15

/** Every contradiction between a chip's facts and what is claimed of the cable, and within the chip's own answer. */
export function contradictionsOf(facts: ChipFacts, claim: Claim): Contradiction[] {
  const found: Contradiction[] = []
  if (facts.product !== 'passive' && facts.product !== 'active') found.push({ code: 'not-a-cable' })
  const { length } = facts
  if (claim.length !== undefined && length !== null) {
    const longer = length.upTo !== null && claim.length > length.upTo + ROUNDING
    const shorter = claim.length < length.above - ROUNDING
    if (longer || shorter) found.push({ code: 'latency', stated: claim.length, ...length })
  }
  if (claim.grade && facts.grade && gradeFacts[facts.grade].marked < gradeFacts[claim.grade].marked)
    found.push({ code: 'rate', claimed: claim.grade, chip: facts.grade })
  if (claim.amps !== undefined && facts.amps !== null && facts.amps < claim.amps)
    found.push({ code: 'current', claimed: claim.amps, chip: facts.amps })
  if (claim.volts === 50 && facts.volts < 50) found.push({ code: 'voltage' })
  if (claim.construction && facts.construction && claim.construction !== facts.construction)
    found.push({ code: 'construction', claimed: claim.construction, chip: facts.construction })
  for (const word of facts.missing) found.push({ code: 'missing-word', word })
  for (const where of facts.reservedSet) found.push({ code: 'reserved-bits', where })
  return found
}

export function contradictionSentence(contradiction: Contradiction, unit: LengthUnit = 'm'): string {
  const metres = (length: Metres): string => formatLength(length, unit)
  switch (contradiction.code) {
    case 'latency': {
      const { stated, above, upTo } = contradiction
      const range =
        upTo === null ? `more than ${metres(above)}` : `more than ${metres(above)} and up to ${metres(upTo)}`
      return `The lead is stated to be ${metres(stated)} long; the latency its chip gives belongs to ${above === 0 && upTo !== null ? `a lead of up to ${metres(upTo)}` : `${range}`}.`
    }
    case 'rate':
      return `It claims ${gradeFacts[contradiction.claimed].name}; its chip says ${gradeFacts[contradiction.chip].name}.`
    case 'current':
      return `It claims ${contradiction.claimed} A; its chip says ${contradiction.chip} A.`
    case 'voltage':
      return 'It claims 240 W; its chip does not allow the 50 V that takes.'
    case 'construction':
      return `It is said to be ${contradiction.claimed}; its chip says ${contradiction.chip}.`
    case 'missing-word':
      return `The ${contradiction.word} is missing from the answer: the chip is incomplete, or the tester showed only part of it.`
    case 'reserved-bits':
      return `Bits that must be zero are set (${contradiction.where}): a newer revision than was chosen, or a chip made carelessly.`
    case 'not-a-cable':
      return 'The chip says it is not a cable; the words may be those of the device at the other end.'
  }
}
