import jstat from 'jstat'
import type { SuccessRate } from './statistics'

/** What lies outside an interval of 95 % at each side. */
const TAIL = 0.025

/**
 * How often something worked, with the exact binomial interval of 95 % (Clopper and Pearson 1934). It is wide for few tries and never promises more than was
 * seen. Null where nothing was tried.
 */
export function exactShare(passed: number, tried: number): SuccessRate | null {
  if (tried === 0) return null
  return {
    passed,
    tried,
    share: passed / tried,
    low: exactLower(passed, tried, TAIL),
    high: passed === tried ? 1 : jstat.beta.inv(1 - TAIL, passed + 1, tried - passed),
  }
}

/** The least share that what was seen leaves likely, with so much of a tail below it (Clopper and Pearson 1934). 0 where nothing held. */
export const exactLower = (passed: number, tried: number, tail: number): number =>
  passed === 0 ? 0 : jstat.beta.inv(tail, passed, tried - passed + 1)

export const SECONDS_OF_DAY = 86_400

/** How often a link drops in a day, with the interval that so many seconds leave open. */
export type DropRate = { drops: number; seconds: number; perDay: number; low: number; high: number }

/** Drops a day, with the exact Poisson interval of 95 % (Garwood 1936). Null where nothing was watched. */
export function dropRate(drops: number, seconds: number): DropRate | null {
  if (seconds <= 0) return null
  const perDay = SECONDS_OF_DAY / seconds
  return {
    drops,
    seconds,
    perDay: drops * perDay,
    low: drops === 0 ? 0 : (jstat.chisquare.inv(TAIL, 2 * drops) / 2) * perDay,
    high: (jstat.chisquare.inv(1 - TAIL, 2 * drops + 2) / 2) * perDay,
  }
}

/**
 * What a soak without a drop promises, 95 % sure: on average at most one drop in so many seconds. It is a third of the soak: chance alone
 * lets three expected drops stay away once in twenty times.
 */
export const cleanSoakPromises = (seconds: number): number => seconds / -Math.log(0.05)
