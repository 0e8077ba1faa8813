import { formatPictureMode } from '../picture/mode-text'
import type { BitsPerSecond } from '../quantity/rate'
import type { PictureMode } from '../vocabulary/need'
import { type Asks, isGood } from './came'
import type { Series, Sort } from './ledger'
import type { Here } from './spot'
import { byPlace, type Standing, standingOf } from './standing'
import type { Says } from './tally'

/** A picture that was tried, by the bits a second it sends, and what came of it. */
export type PictureTried = {
  mode: PictureMode
  rate: BitsPerSecond
  held: boolean
  /** It was there, and went black after a while. */
  dropped?: true
}
export type PictureSeries = Series<PictureTried>

export const pictureSort: Sort<PictureTried> = {
  nameOf: ({ mode, held, dropped }) =>
    `picture ${formatPictureMode(mode)} ${held ? 'held' : dropped ? 'dropped' : 'black'}`,
  canHold: ({ held }) => held,
  canFail: ({ held }) => !held,
}

/** What a picture that was tried says of one that sends so many bits a second: one as large or larger held, or one as large or smaller did not. */
const saysOf = ({ held, dropped, rate }: PictureTried, asked: BitsPerSecond): Says | null => {
  if (held) return rate >= asked ? 'held' : null
  return rate > asked ? null : dropped ? 'after a while' : 'at once'
}

/** What pictures that were tried say of one of a rate: in one socket, and in how many others as much held or failed. */
export type SeenOfPicture = {
  here: Standing<PictureSeries> | null
  stale: boolean
  held: number
  failed: number
}

/** Whoever sees a picture stay has seen it; only what went black has to hold for a time. */
const asksOf = ({ least, soak }: Asks): Asks => ({ least, soak, relied: 0 })

/** What the pictures tried over a lead say of one that sends so many bits a second. */
export function seenOfPicture(
  pictures: readonly PictureSeries[],
  rate: BitsPerSecond,
  asks: Asks,
  here: Here | null,
): SeenOfPicture {
  const says = (picture: PictureSeries): Says | null => saysOf(picture, rate)
  const { own, others } = byPlace(pictures, here)
  const last = standingOf(own, says, asksOf(asks), here)
  const elsewhere = others.flatMap((list) => standingOf(list, says, asksOf(asks), null) ?? [])
  const held = elsewhere.filter((there) => isGood(there.came)).length
  return { here: last, stale: last?.stale ?? false, held, failed: elsewhere.length - held }
}
