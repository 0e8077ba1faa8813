import type { LinkSpec } from '../picture/link-spec'
import type { BitsPerSecond } from '../quantity/rate'
import type { Source } from '../standards/source'
import type { PictureEnds } from '../tunnel/tunnel'
import { NEED_KINDS, type Need } from '../vocabulary/need'
import { type EachWay, floored, type Way } from './each-way'

/** What one need asks of a run, what it found when its turn came, and what came of it. */
export type Admission = {
  need: Need
  way: Way
  /** What it asks, after coding. */
  asked: EachWay
  /** What the needs before it left. */
  found: EachWay
  /** What is held for it; a picture in a tunnel often holds more than it sends. */
  held: EachWay
  /** What it really sends. */
  sent: EachWay
  /** It finds all that it asks. */
  admitted: boolean
  /** A picture that goes as data, by a driver. */
  overUsb: boolean
  /** On the way on which the least is left of what it asks, in the figures its data sheet names: what it finds, what it asks, what earlier needs have taken. */
  have: BitsPerSecond
  wanted: BitsPerSecond
  before: BitsPerSecond
  /** The controller behind the port leaves less than the link. */
  byController: boolean
  /** The link or the controller that decides; null where there is no link. */
  carrier: { name: string; source: Source } | null
  /** The link a picture came up at, for what fits instead; null for data, for a picture that is refused, and in the middle of a shared link. */
  spec: LinkSpec | null
  /** Bits a pixel where it goes through compressed. */
  compressedBits: number | null
}

/** Data sheets of sensors and of plain data links name the mark on the plug; files, streams and frames are payload. */
export const namesLineRate = (need: Need): boolean =>
  need.kind === 'data' || need.kind === 'sensor' || need.kind === 'audio'

/** A controller that other runs of its device hang on as well. */
export type SharedController = {
  name: string
  /** What it carries in all, each way, after coding. */
  carries: BitsPerSecond
  /** What needs that are served earlier take of it on other runs, the ways as on this one. */
  before: EachWay
}
/** What a controller has left beside what needs of other runs take, and those of this one. */
export const leftOf = ({ carries, before }: SharedController, taken: EachWay): EachWay =>
  floored({ down: carries - before.down - taken.down, up: carries - before.up - taken.up })

/** A need as it crosses a run. */
export type Crossed = {
  need: Need
  way: Way
  /** For a picture: what its first and last ports speak to each other through the tunnel. */
  ends?: PictureEnds
  /** Further down it comes up as USB 2.0, so that here it takes the pair of USB 2.0 and not the fast ones. */
  usb2?: boolean
  /** A picture that a dock makes over plain USB: what it takes of the link as data. */
  overUsb?: BitsPerSecond
  /** The controller behind the port of the run, where somebody said what it carries in all. */
  controller?: SharedController
}

export type CrossedPicture = Crossed & { need: Extract<Need, { kind: 'picture' }> }
/** A picture that goes as one: on pins, in a lead or a tunnel, and not as the data of a driver. */
export const isPicture = (crossed: Crossed): crossed is CrossedPicture =>
  crossed.need.kind === 'picture' && crossed.overUsb === undefined

/** Served after every need that states a priority. */
const UNSTATED = 10

/** Who is served first: by kind, then by the priority stated; of equal ones the order of the list stays. */
export const precedence = (one: Need, other: Need): number =>
  NEED_KINDS.indexOf(one.kind) - NEED_KINDS.indexOf(other.kind) ||
  (one.priority ?? UNSTATED) - (other.priority ?? UNSTATED)
