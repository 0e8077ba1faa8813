import { durationText } from '../quantity/duration'
import { cleanSoakPromises, dropRate } from '../quantity/intervals'
import { decimal } from '../quantity/parsed'
import type { Instant } from '../vocabulary/fields'
import { isRunSoak, type RunSoak, type Soak } from '../vocabulary/session'

/** How a soak of a run stands at a moment. */
export type SoakStanding = {
  soak: RunSoak
  /** Seconds since it began, by the clock of whoever asks. A clock that was put back gives none. */
  seconds: number
  /** It has lasted as long as was asked. */
  over: boolean
}

/** The soaks of runs that go on at a moment, those that are over first, then the longest. */
export const runSoaksOf = (soaks: readonly Soak[], now: Date): SoakStanding[] =>
  soaks
    .filter(isRunSoak)
    .map((soak) => soakStanding(soak, now))
    .sort((one, other) => Number(other.over) - Number(one.over) || other.seconds - one.seconds)

export function soakStanding(soak: RunSoak, now: Date): SoakStanding {
  const seconds = Math.max(0, Math.floor((now.getTime() - Date.parse(soak.since)) / 1000))
  return { soak, seconds, over: seconds >= soak.seconds }
}

/** What so long a soak with so many drops promises, in words. Exact Poisson limits, 95 % sure. */
export function soakPromise(drops: readonly Instant[] | number, seconds: number): string {
  const count = typeof drops === 'number' ? drops : drops.length
  if (seconds < 60) return 'Watched for less than 60 s: it proves nothing.'
  if (count === 0)
    return `No drop in ${durationText(seconds)}: on average at most one in ${durationText(cleanSoakPromises(seconds))}, 95 % sure.`
  const rate = dropRate(count, seconds)
  if (!rate) return ''
  return `${count} ${count === 1 ? 'drop' : 'drops'} in ${durationText(seconds)}: ${decimal(rate.low, 2)} to ${decimal(rate.high, 2)} a day, 95 % sure.`
}
