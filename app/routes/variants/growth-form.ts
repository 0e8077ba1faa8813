import { parsePictureMode } from '../../../core/picture/mode-text'
import { type Parsed, parsed } from '../../../core/quantity/parsed'
import { parseRate } from '../../../core/quantity/rate'
import { parseWatts } from '../../../core/quantity/watts'
import type { Growth } from '../../../core/vocabulary/growth'

/** What may grow, each with how its size is said. */
export const SORTS = {
  pictures: { words: 'every picture becomes', example: '3840x2160@120' },
  display: { words: 'one more display behind a dock', example: '3840x2160@60' },
  power: { words: 'whatever charges takes', example: '240 W' },
  headset: { words: 'a faster headset decoder', example: '4 Gb/s' },
  storage: { words: 'faster disks', example: '2500 MB/s' },
  camera: { words: 'faster cameras', example: '8 Gb/s' },
} as const
export type Sort = keyof typeof SORTS
export const isSort = (name: unknown): name is Sort => typeof name === 'string' && name in SORTS

/** Often thought of, ready to be kept. */
export const USUAL: readonly { name: string; sort: Exclude<Sort, 'display'>; size: string }[] = [
  { name: '4K at 120 Hz everywhere', sort: 'pictures', size: '3840x2160@120' },
  { name: '8K at 60 Hz everywhere', sort: 'pictures', size: '7680x4320@60' },
  { name: 'a 240 W laptop', sort: 'power', size: '240 W' },
  { name: 'a faster headset decoder', sort: 'headset', size: '4 Gb/s' },
  { name: 'disks at 2500 MB/s', sort: 'storage', size: '2500 MB/s' },
]

/** What grows to which size, as a form says it; a display also at which dock. */
export function readGrowth(sort: Sort, size: string, at: string): Parsed<Growth> {
  if (sort === 'power') {
    const watts = parseWatts(size)
    return watts.ok ? parsed({ what: 'power', watts: watts.value }) : watts
  }
  if (sort === 'pictures' || sort === 'display') {
    const mode = parsePictureMode(size)
    if (!mode.ok) return mode
    return parsed(sort === 'pictures' ? { what: sort, mode: mode.value } : { what: sort, at, mode: mode.value })
  }
  const rate = parseRate(size)
  return rate.ok ? parsed({ what: 'rate', kind: sort, rate: rate.value }) : rate
}
