import type { HeldBackBy } from '../every'

/** "write: 34 MB/s, the disk was the limit". */
export const readingWords = (what: string, figure: string, limit: HeldBackBy | undefined): string =>
  `${what}: ${figure}${limit && limit !== 'lead' && limit !== 'unknown' ? `, the ${limit} was the limit` : ''}`
