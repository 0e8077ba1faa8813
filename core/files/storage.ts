import { LARGEST_GROWN_BYTES, LARGEST_PLAN_BYTES } from '../plan/read'
import { MOST_FILE_BYTES } from './file-types'

/** What a site keeps of one sort, beside the most it may. */
export type Stored = { what: string; bytes: number; most: number }

/** From this share of the most on it is said, while there is still room to do something about it. */
export const NEARLY_FULL = 0.8

/** What a site keeps, in bytes: its plan without what was seen, what was seen, its drawings and photos. */
export const storedOf = (kept: { bytes: number; grown: number; files: number }): Stored[] => [
  { what: 'the plan', bytes: kept.bytes, most: LARGEST_PLAN_BYTES },
  { what: 'what was seen', bytes: kept.grown, most: LARGEST_GROWN_BYTES },
  { what: 'drawings and photos', bytes: kept.files, most: MOST_FILE_BYTES },
]

export const isNearlyFull = ({ bytes, most }: Stored): boolean => bytes >= NEARLY_FULL * most

/** In megabytes, with one more digit where it is little: "163 of 200 MB", "0.4 of 16 MB", "under 0.1 of 48 MB". */
export const storedWords = ({ bytes, most }: Stored): string => `${megabytes(bytes)} of ${megabytes(most)} MB`

export const megabytes = (bytes: number): string => {
  const value = bytes / 1e6
  if (value > 0 && value < 0.1) return 'under 0.1'
  // down, as "200 of 200" is said of what is full
  return value >= 10 || value === 0 ? String(Math.floor(value)) : (Math.floor(value * 10) / 10).toFixed(1)
}
