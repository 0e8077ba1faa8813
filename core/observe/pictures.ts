import type { BitsPerSecond } from '../quantity/rate'
import type { PictureTried } from './learnt'
import { type Here, isHere, isStale } from './spot'

/** What pictures that were tried say of one of a rate: in one socket, and in how many others as much held or failed. */
export type SeenOfPicture = {
  here: { held: boolean; tried: PictureTried } | null
  stale: boolean
  held: number
  failed: number
}

/** What is said of a picture: one as large or larger held, or one as large or smaller did not; the later counts, of one moment the worse. */
function lastOf(pictures: readonly PictureTried[], rate: BitsPerSecond): SeenOfPicture['here'] {
  let last: SeenOfPicture['here'] = null
  for (const tried of pictures) {
    if (tried.held ? tried.rate < rate : tried.rate > rate) continue
    const now = { held: tried.held, tried }
    if (last === null || tried.at > last.tried.at || (tried.at === last.tried.at && !tried.held)) last = now
  }
  return last
}

/** What the pictures tried over a lead say of one that sends so many bits a second. */
export function seenOfPicture(
  pictures: readonly PictureTried[],
  rate: BitsPerSecond,
  here: Here | null,
): SeenOfPicture {
  const own: PictureTried[] = []
  const others = new Map<string, PictureTried[]>()
  for (const picture of pictures) {
    if (here && isHere(picture.spot, here)) own.push(picture)
    else {
      const key = picture.spot.port ?? picture.spot.controller ?? ''
      others.set(key, [...(others.get(key) ?? []), picture])
    }
  }
  const last = lastOf(own, rate)
  const elsewhere = [...others.values()].flatMap((list) => lastOf(list, rate) ?? [])
  return {
    here: last,
    stale: last !== null && here !== null && isStale(last.tried.spot, here),
    held: elsewhere.filter(({ held }) => held).length,
    failed: elsewhere.filter(({ held }) => !held).length,
  }
}
