import type { TryName } from '../vocabulary/search'
import type { Cause, CauseName } from './causes'
import type { Scene } from './scene'

/** What may come of a try, by its name, in words, and how likely where a cause is to blame. */
export type Outcome = { name: string; says: string; odds(cause: Cause): number }

/** One thing to try at a run. */
export type Attempt = {
  /** Tells it from the others of its search: its name and the part it acts on. */
  key: string
  name: TryName
  part?: string
  /** What to do, as a sentence. */
  how: string
  /** What is put in its place. */
  with?: string
  /** What is not at hand for it; then it cannot be tried now, and what was tried before still counts. */
  lacks?: string
  minutes: number
  /** What it risks or upsets beside its minutes, in minutes. */
  trouble: number
  outcomes: readonly Outcome[]
}

/** One kind of try. Adding one is adding a file like those in `tries/` and a line in the list. */
export type TryKind = {
  /** What can be tried of it at this run with what is at hand; nothing where it makes no sense. */
  of(scene: Scene): Iterable<Omit<Attempt, 'key' | 'name'>>
}

/** So often a symptom goes away, or seems to, by something that has nothing to do with it. */
export const GOES_BY_ITSELF = 0.015
/** How often a try that says nothing of an unknown cause takes its symptom away. */
const UNKNOWN_GOES = 0.15

/** The chance that one of several changes at once takes it away: then nobody knows which. */
export const goesWith = (first: readonly Outcome[], second: readonly Outcome[]): readonly Outcome[] => {
  const [one, other] = [first, second].map((outcomes) => outcomes.find(({ name }) => name === 'gone'))
  if (!one || !other) return first
  const gone = (cause: Cause): number => 1 - (1 - one.odds(cause)) * (1 - other.odds(cause))
  return first.map((outcome) =>
    outcome.name === 'gone' ? { ...outcome, odds: gone } : { ...outcome, odds: (cause) => 1 - gone(cause) },
  )
}

/** How often a try takes the symptom away, by the cause that is to blame. The figures are Hallway's own estimates, in the order that common practice has them. */
export type TakesAway = Partial<Record<CauseName, number>>

/**
 * The two outcomes of changing something: the symptom is gone, or it is the same. `acts` names the parts that were changed; causes that sit in others are
 * left as they were.
 */
export function goneOrSame(takesAway: TakesAway, acts?: readonly string[]): readonly Outcome[] {
  const gone = ({ name, part }: Cause): number => {
    if (name === 'something else') return UNKNOWN_GOES
    return acts !== undefined && !acts.includes(part.id) ? GOES_BY_ITSELF : (takesAway[name] ?? GOES_BY_ITSELF)
  }
  return [
    { name: 'gone', says: 'It is gone', odds: gone },
    { name: 'same', says: 'It is the same', odds: (cause) => 1 - gone(cause) },
  ]
}

/** Outcomes of a look, each with how likely it is; the last takes what is left. */
export function lookOutcomes(first: readonly Outcome[], rest: Pick<Outcome, 'name' | 'says'>): readonly Outcome[] {
  const left = (cause: Cause): number => Math.max(0.01, 1 - first.reduce((sum, { odds }) => sum + odds(cause), 0))
  return [...first, { ...rest, odds: left }]
}
