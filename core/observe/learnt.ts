import type { BitsPerSecond } from '../quantity/rate'
import type { Amps, Volts, Watts } from '../quantity/watts'
import type { CableGrade } from '../standards/grades'
import type { LinkMode } from '../standards/link-modes'
import type { Instant } from '../vocabulary/fields'
import type { PictureMode } from '../vocabulary/need'
import type { Basis } from './basis'
import type { HeldBackBy } from './every'
import type { Spot } from './spot'
import type { Trial } from './trials'

export type Said<T> = { value: T; at: Instant }
/** What each basis says of one thing, the latest it said; a basis that was asked and had nothing is left out. */
export type SaidBy<T> = { [B in Basis]?: Said<T> }

/** How fast a copy went between two sockets, one way. */
export type Copy = {
  way: 'write' | 'read'
  rate: BitsPerSecond
  limit: HeldBackBy
  seconds: number
  at: Instant
  spot: Spot
}

/** A picture that was tried, by the bits a second it sends. */
export type PictureTried = {
  mode: PictureMode
  rate: BitsPerSecond
  held: boolean
  /** How long it was watched. */
  seconds?: number
  at: Instant
  spot: Spot
}

/** Watts that arrived. `least`: something else than the lead kept them from being more, so they are the least of what can arrive. */
export type WattsSeen = { watts: Watts; limit: HeldBackBy; least: boolean; at: Instant; spot: Spot }

/** One mode tried on one controller: how often, how often it held, for how many seconds it was watched and how often it dropped in them, and when last. */
export type Tally = {
  mode: LinkMode
  controller: string | null
  passed: number
  tried: number
  seconds: number
  drops: number
  last: Instant
}

/** What its chip answered when it was asked: it has none, or what it says of the extended range. */
export type ChipAsked = { at: Instant; none: boolean }

/** A plug that got hot, and whether the supply came from elsewhere: then it says nothing of the kind. */
export type RanHot = { at: Instant; strangeSupply: boolean }

/** When a run was laid as it lies, and by whom. */
export type LaidAt = { at: Instant; by: string | null }

/** What else was measured, each with one figure that tells: percent an hour, added ms, frames lost, bits a second, 1 for a good look, 0 to 2 for cool to hot, volts lost. */
export const FIGURES = ['battery', 'added delay', 'frames', 'headset link', 'sight', 'warmth', 'volts lost'] as const
export type FigureName = (typeof FIGURES)[number]
export type Figure = { measure: FigureName; value: number; at: Instant; spot: Spot }

/** When a run was accepted as it lies, by whom, why with less than its tests ask for, and under which conditions. */
export type AcceptedAt = {
  at: Instant
  by: string | null
  less: string | null
  conditions: string | null
  spot: Spot
}

/** What somebody else counted of a kind: a seller, a maker, another client. */
export type CountedElsewhere = { mode: LinkMode; held: number; tried: number; from: string | null; at: Instant }

/** The last thing somebody tried, in a few words. */
export type LastTried = { at: Instant; words: string }

/** What was learnt of one cable or one run as it lay, from all that was observed of it: as much as every computation needs, whatever the number of observations. */
export type Learnt = {
  grade: SaidBy<CableGrade>
  amps: SaidBy<Amps>
  volts: SaidBy<Volts>
  /** Its mark was looked for, and there is none. */
  unmarked: boolean
  chip: ChipAsked | null
  trials: readonly Trial[]
  tallies: readonly Tally[]
  copies: readonly Copy[]
  pictures: readonly PictureTried[]
  watts: readonly WattsSeen[]
  /** Ohms there and back, by the volts it lost. */
  ohms: Said<number> | null
  hot: RanHot | null
  /** A run lies as it was laid then; null where it does not lie, or nobody said. */
  laid: LaidAt | null
  accepted: AcceptedAt | null
  figures: readonly Figure[]
  counted: readonly CountedElsewhere[]
  last: LastTried | null
}

export const NOTHING_LEARNT: Learnt = {
  grade: {},
  amps: {},
  volts: {},
  unmarked: false,
  chip: null,
  trials: [],
  tallies: [],
  copies: [],
  pictures: [],
  watts: [],
  ohms: null,
  hot: null,
  laid: null,
  accepted: null,
  figures: [],
  counted: [],
  last: null,
}

/** What is being learnt while observations are gone through, oldest first. */
export type Learning = {
  -readonly [Name in keyof Learnt]: Learnt[Name] extends readonly (infer Each)[] ? Each[] : Learnt[Name]
}

export const beginLearning = (): Learning => ({
  ...NOTHING_LEARNT,
  grade: {},
  amps: {},
  volts: {},
  trials: [],
  tallies: [],
  copies: [],
  pictures: [],
  watts: [],
  figures: [],
  counted: [],
})
