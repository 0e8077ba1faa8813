import { isGood } from '../observe/came'
import { figureCame, isWatts } from '../observe/figures'
import { seenOfPicture } from '../observe/pictures'
import { inOnePlace, type Spot } from '../observe/spot'
import { streamRate } from '../picture/timing'
import { portKey } from '../plan/site-index'
import type { Need } from '../vocabulary/need'
import type { LaidRun } from './lay'
import { SHARE_OF_WATTS } from './lead-came'

/** Whether a picture or power was seen to get through a run as it lies, over each of its leads here or over the run: then nobody asks what else they carry. */
export function wasSeenToCarry({ leads, seen, here, asks, run }: LaidRun, need: Need): boolean {
  const ends = [run.from, run.to].map(portKey)
  const isAt = ({ port, far }: Spot): boolean =>
    port === undefined || ends.includes(port) || (far !== undefined && ends.includes(far)) || port === `run /${run.id}`
  const places =
    leads.length === 1
      ? leads.map(({ known }) => known)
      : [{ pictures: seen.pictures, watts: seen.figures.filter(isWatts) }]
  return places.every(({ pictures, watts }) => {
    if (need.kind === 'picture') {
      const there = pictures.filter(({ spot }) => isAt(spot)).map(inOnePlace)
      return isGood(seenOfPicture(there, streamRate(need.mode), asks, here).here?.came ?? null)
    }
    if (need.kind !== 'power') return false
    const there = watts.filter(({ spot }) => isAt(spot)).map(inOnePlace)
    return isGood(figureCame(there, need.watts * SHARE_OF_WATTS, 'all', here)?.came ?? null)
  })
}
