import { sentence } from '../checks/sentences'
import { formatLength, type LengthUnit } from '../quantity/length'
import type { Candidate } from './rank'

/** The one line that says why a cable stands where it does among the candidates. */
export function candidateSentence(candidate: Candidate, unit: LengthUnit = 'm'): string {
  const { grade, leading, laidIn, supplied, spare } = candidate
  const apart = [supplied ? 'It came with this device.' : '', laidIn ? `It lies in ${laidIn} now.` : ''].filter(Boolean)
  const heart =
    grade === 'clear'
      ? `Does it, with ${formatLength(Math.max(0, spare), unit)} to spare.`
      : leading
        ? sentence(leading, unit)
        : ''
  return [heart, ...apart].join(' ')
}
