import type { Policy } from '../vocabulary/policy'
import { type Cause, followUpOf } from './causes'
import { byGroup, type Groups, information, type Table, tableOf } from './odds'
import type { Attempt } from './try'

/** Causes of one part that ask for the same are settled together: nobody has to know which wire in a lead is broken. */
export function groupsOf(causes: readonly Cause[]): Groups {
  const numbers = new Map<string, number>()
  const of = causes.map((cause) => {
    const key = `${followUpOf(cause)}: ${cause.part.id}`
    const number = numbers.get(key) ?? numbers.size
    numbers.set(key, number)
    return number
  })
  return { of, count: numbers.size }
}

/** The causes of a run and all that can be tried at it, worked out once for a search. */
export type Problem = {
  causes: readonly Cause[]
  priors: readonly number[]
  groups: Groups
  attempts: readonly Attempt[]
  tables: readonly Table[]
}

export const problemOf = (causes: readonly Cause[], attempts: readonly Attempt[]): Problem => ({
  causes,
  priors: causes.map(({ odds }) => odds),
  groups: groupsOf(causes),
  attempts,
  tables: attempts.map(({ outcomes }) => tableOf(causes, outcomes)),
})

/** A try with what it would tell, and at what price. */
export type Ranked = {
  attempt: Attempt
  /** Its number in the problem. */
  at: number
  /** What it tells of which group is to blame, in bits. */
  bits: number
  /** Bits a minute, trouble included. */
  worth: number
}

/** What tells less is not worth a walk. */
export const LEAST_BITS = 0.1
/** A group that is so likely is told as found. */
export const FOUND_AT = 0.95

/** Groups that nothing tells apart are told together where they are so likely. */
export const NARROWED_AT = 0.9

/** The price of a try in minutes. */
export const priceOf = ({ minutes, trouble }: Pick<Attempt, 'minutes' | 'trouble'>): number => minutes + trouble

/**
 * What could be tried next, the most information for its minutes and trouble first; `done` are the numbers of those that were tried or may not be. What tells
 * nothing is left out. Where the site puts the lead first, another lead comes first as long as it tells anything.
 */
export function nextTries(
  { attempts, tables, groups }: Problem,
  shares: readonly number[],
  done: ReadonlySet<number>,
  searching: Policy['searching'],
): Ranked[] {
  const ranked: Ranked[] = []
  for (const [at, attempt] of attempts.entries()) {
    const table = tables[at]
    if (done.has(at) || !table || attempt.lacks !== undefined) continue
    const bits = information(shares, table, groups)
    if (bits >= LEAST_BITS) ranked.push({ attempt, at, bits, worth: bits / priceOf(attempt) })
  }
  const first = ({ attempt }: Ranked): number => Number(searching === 'lead first' && attempt.name === 'another lead')
  return ranked.sort((one, other) => first(other) - first(one) || other.worth - one.worth || one.at - other.at)
}

/** How far a search is: the groups that are left by how likely they are, and whether that is an answer. */
export type Conclusion = {
  state: 'open' | 'found' | 'narrowed' | 'nothing left'
  /** Numbers of the groups that are the answer; the likeliest where it is open. */
  groups: readonly number[]
  /** How likely they are together. */
  odds: number
}

/** Groups that are so unlikely are no part of an answer. */
const OUT_OF_IT = 0.03

/**
 * Whether what is known is an answer: one group is likely enough; or nothing that is left to try tells the likeliest ones apart, and together they are; or
 * nothing is left to try at all.
 */
export function conclude(
  { groups }: Problem,
  shares: readonly number[],
  left: readonly Ranked[],
  somethingElse: number | null,
): Conclusion {
  const sums = byGroup(shares, groups)
  const order = sums.map((odds, group) => ({ odds, group })).sort((one, other) => other.odds - one.odds)
  const [top] = order
  if (!top) return { state: 'nothing left', groups: [], odds: 0 }
  if (top.odds >= FOUND_AT && top.group !== somethingElse)
    return { state: 'found', groups: [top.group], odds: top.odds }
  if (left.length > 0) return { state: 'open', groups: [top.group], odds: top.odds }
  let odds = 0
  const named: number[] = []
  for (const each of order) {
    if (each.odds < OUT_OF_IT) break
    named.push(each.group)
    odds += each.odds
  }
  const known = top.group !== somethingElse && odds >= NARROWED_AT
  return { state: known ? 'narrowed' : 'nothing left', groups: named, odds }
}

/** The group of what nobody listed. */
export function somethingElse({ causes, groups }: Problem): number | null {
  const at = causes.findIndex(({ name }) => name === 'something else')
  return at < 0 ? null : (groups.of[at] ?? null)
}
