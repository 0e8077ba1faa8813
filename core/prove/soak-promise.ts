import { durationText } from '../quantity/duration'
import { cleanSoakPromises, dropRate } from '../quantity/intervals'
import { decimal } from '../quantity/parsed'
import type { Instant } from '../vocabulary/fields'

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
