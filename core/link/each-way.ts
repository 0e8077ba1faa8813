import type { BitsPerSecond } from '../quantity/rate'

/** The way a need takes along a run: down is from its host end to its far end. */
export type Way = 'down' | 'up'
export const WAYS = ['down', 'up'] as const

/** A rate toward the far end, and one back. */
export type EachWay = Readonly<Record<Way, BitsPerSecond>>
export const NOTHING: EachWay = { down: 0, up: 0 }
export const only = (way: Way, rate: BitsPerSecond): EachWay => ({ ...NOTHING, [way]: rate })
export const ANYTHING: EachWay = { down: Infinity, up: Infinity }
export const plus = (one: EachWay, other: EachWay): EachWay => ({ down: one.down + other.down, up: one.up + other.up })
export const minus = (one: EachWay, other: EachWay): EachWay => ({ down: one.down - other.down, up: one.up - other.up })
export const leastOf = (one: EachWay, other: EachWay): EachWay => ({
  down: Math.min(one.down, other.down),
  up: Math.min(one.up, other.up),
})
export const floored = ({ down, up }: EachWay): EachWay => ({ down: Math.max(0, down), up: Math.max(0, up) })
