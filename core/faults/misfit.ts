import type { Problem } from './next-try'
import type { Evidence } from './odds'

/** Something that was answered in a search, with the id of what it was written down as. */
export type Answer = Evidence & { id: string }

/** An answer is told as a misfit where all the rest makes it at least so unlikely. */
const FITS_BADLY = 12
const FEWEST_ANSWERS = 3

/** The one answer without which some known cause explains the others far better; null where all fit. */
export function misfitOf({ causes }: Problem, evidence: readonly Answer[]): { words: string; id: string } | null {
  if (evidence.length < FEWEST_ANSWERS) return null
  const known = causes.flatMap(({ name }, at) => (name === 'something else' ? [] : [at]))
  const explained = (pieces: readonly Evidence[]): number =>
    Math.max(...known.map((cause) => pieces.reduce((sum, { likelihood }) => sum + Math.log(likelihood[cause] ?? 1), 0)))
  const all = explained(evidence)
  const [worst] = evidence
    .map((piece) => ({ piece, gain: explained(evidence.filter((each) => each !== piece)) - all }))
    .sort((one, other) => other.gain - one.gain)
  return worst && worst.gain > Math.log(FITS_BADLY) ? { words: worst.piece.words, id: worst.piece.id } : null
}
