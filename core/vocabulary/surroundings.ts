/** What a way passes that somebody must ask about, or take care of. */
export const SURROUNDINGS = [
  'wall',
  'ceiling',
  'plenum',
  'riser',
  'conduit',
  'mains',
  'motors',
  'outdoors',
  'other-earth',
  'at-height',
  'play-area',
  'open-floor',
] as const
export type Surrounding = (typeof SURROUNDINGS)[number]
