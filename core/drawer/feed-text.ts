import type { Cable } from '../vocabulary/cable'

type Feed = Pick<Cable, 'feed' | 'feedEnd'>

/** How a lead may be fed, in the words of tables and forms. */
export const FEED_WORDS = ['bus', 'optional', 'required', 'optional at the host', 'required at the host'] as const
export type FeedWord = (typeof FEED_WORDS)[number]

const AT_HOST = ' at the host'

export const feedText = ({ feed, feedEnd }: { feed: Cable['feed']; feedEnd?: Cable['feedEnd'] }): FeedWord =>
  feed !== 'bus' && feedEnd === 'host' ? `${feed}${AT_HOST}` : feed

/** What one of the words says; a lead that is fed at its far end says no more of it. */
export function feedFrom(word: FeedWord): Feed {
  const feed = word.replace(AT_HOST, '') as Cable['feed']
  return word.endsWith(AT_HOST) ? { feed, feedEnd: 'host' } : { feed }
}

/** The words as a person is offered them. */
export const feedLabels: Record<FeedWord, string> = {
  bus: 'from the port',
  optional: 'may have its own, at the far end',
  required: 'needs its own, at the far end',
  'optional at the host': 'may have its own, at the host end',
  'required at the host': 'needs its own, at the host end',
}
