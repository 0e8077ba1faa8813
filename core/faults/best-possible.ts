import { conclude, nextTries, type Problem, priceOf, somethingElse } from './next-try'
import { posterior } from './odds'

/** Whether a search is over: there is an answer, or nothing is left that tells. */
function isOver(problem: Problem, shares: readonly number[], done: ReadonlySet<number>): boolean {
  const left = nextTries(problem, shares, done, 'most telling')
  return conclude(problem, shares, left, somethingElse(problem)).state !== 'open'
}

/** The expected minutes of a search from here on, where `choose` says which tries may come next. */
function minutesFrom(
  problem: Problem,
  shares: readonly number[],
  done: ReadonlySet<number>,
  choose: (shares: readonly number[], done: ReadonlySet<number>) => readonly number[],
): number {
  if (isOver(problem, shares, done)) return 0
  const each = choose(shares, done).map((at) => {
    const attempt = problem.attempts[at]
    if (!attempt) return Number.POSITIVE_INFINITY
    const after = new Set([...done, at])
    return (problem.tables[at] ?? []).reduce((sum, row) => {
      const odds = shares.reduce((all, share, cause) => all + share * (row[cause] ?? 0), 0)
      return sum + odds * minutesFrom(problem, posterior(shares, [{ likelihood: row }]), after, choose)
    }, priceOf(attempt))
  })
  return Math.min(...each)
}

/** The least expected minutes that any order of tries comes to, found by going through all of them. For a handful of tries: it grows with their factorial. */
export const bestPossible = (problem: Problem): number =>
  minutesFrom(problem, posterior(problem.priors, []), new Set(), (_, done) =>
    problem.attempts.flatMap((_attempt, at) => (done.has(at) ? [] : [at])),
  )

/** The expected minutes of a search that follows `nextTries`, worked out exactly by its own odds. */
export const expectedMinutes = (problem: Problem): number =>
  minutesFrom(problem, posterior(problem.priors, []), new Set(), (shares, done) =>
    nextTries(problem, shares, done, 'most telling')
      .slice(0, 1)
      .map(({ at }) => at),
  )
