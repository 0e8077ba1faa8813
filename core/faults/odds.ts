import type { Cause } from './causes'
import type { Outcome } from './try'

/** Something that was seen or tried: how likely it is under each cause, in the order of the causes. */
export type Evidence = { key: string; words: string; likelihood: readonly number[] }

/** So often people look wrong, or write down another answer than they saw. */
export const MISTAKEN = 0.03

/** A likelihood as it is once some answers are mistaken: never nothing, never certain. */
const asAnswered = (odds: number, outcomes: number): number => (1 - MISTAKEN) * odds + MISTAKEN / outcomes

/** How likely one of some outcomes is under each cause, mistakes included. */
export const outcomeLikelihood = (causes: readonly Cause[], outcomes: readonly Outcome[], name: string): number[] => {
  const outcome = outcomes.find((each) => each.name === name)
  return causes.map((cause) => (outcome ? asAnswered(outcome.odds(cause), outcomes.length) : 1))
}

/** How likely a symptom is told, or told to be absent, under each cause. */
export const symptomLikelihood = (seen: readonly number[], told: 'seen' | 'absent'): number[] =>
  seen.map((odds) => asAnswered(told === 'seen' ? odds : 1 - odds, 2))

/**
 * How likely each cause is, by Bayes' rule: its odds before, times how likely it makes each thing that was seen. One cause is to blame, and what was seen does
 * not depend on each other once it is known. The order of the evidence does not matter. Shares that add up to 1.
 */
export function posterior(priors: readonly number[], evidence: readonly Pick<Evidence, 'likelihood'>[]): number[] {
  // in logarithms, so that much evidence does not run out of digits
  const logs = priors.map((odds, cause) =>
    evidence.reduce((sum, { likelihood }) => sum + Math.log(likelihood[cause] ?? 1), Math.log(odds)),
  )
  const most = Math.max(...logs)
  const shares = logs.map((log) => Math.exp(log - most))
  const all = shares.reduce((sum, share) => sum + share, 0)
  return shares.map((share) => share / all)
}

/** Which causes are settled together: the number of the group of each. */
export type Groups = { of: readonly number[]; count: number }

/** Shares of causes added up by group. */
export function byGroup(shares: readonly number[], { of, count }: Groups): number[] {
  const sums = new Array<number>(count).fill(0)
  for (let cause = 0; cause < shares.length; cause += 1) {
    const group = of[cause] ?? 0
    sums[group] = (sums[group] ?? 0) + (shares[cause] ?? 0)
  }
  return sums
}

/** How much is not known yet, in bits (Shannon 1948): 0 where one group is certain. */
export function entropy(shares: readonly number[]): number {
  let bits = 0
  for (const share of shares) if (share > 0) bits -= share * Math.log2(share)
  return bits
}

/** A try with how likely each of its outcomes is under each cause: a row an outcome. */
export type Table = readonly (readonly number[])[]

export const tableOf = (causes: readonly Cause[], outcomes: readonly Outcome[]): Table =>
  outcomes.map(({ odds }) => causes.map((cause) => asAnswered(odds(cause), outcomes.length)))

/** What a try is expected to tell of which group is to blame, in bits: never less than nothing. */
export function information(shares: readonly number[], table: Table, groups: Groups): number {
  let after = 0
  for (const row of table) {
    const sums = new Array<number>(groups.count).fill(0)
    let all = 0
    for (let cause = 0; cause < shares.length; cause += 1) {
      const both = (shares[cause] ?? 0) * (row[cause] ?? 0)
      const group = groups.of[cause] ?? 0
      sums[group] = (sums[group] ?? 0) + both
      all += both
    }
    // all × entropy(sums / all), without dividing
    for (const sum of sums) if (sum > 0) after -= sum * Math.log2(sum / all)
  }
  return Math.max(0, entropy(byGroup(shares, groups)) - after)
}

/** Which rows of a table tell two groups of causes apart: the largest difference of what they make likely. */
export function apart(table: Table, one: number, other: number): number {
  let most = 0
  for (const row of table) most = Math.max(most, Math.abs((row[one] ?? 0) - (row[other] ?? 0)))
  return most
}
