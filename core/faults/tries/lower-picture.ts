import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'long lead': 0.85,
  'lesser lead': 0.75,
  'worn lead': 0.4,
  'adapter limit': 0.85,
  'first picture': 0.7,
  'lesser port': 0.75,
  noise: 0.4,
  'controller falls back': 0.4,
  'plan blocked': 0.7,
}

/** A smaller picture or a lower refresh: it tells a narrow link from one that is not there. */
export const lowerPicture: TryKind = {
  *of(scene) {
    if (!scene.kinds.has('picture')) return
    yield {
      how: 'Choose a smaller picture or a lower refresh: half the refresh, or the next smaller size.',
      minutes: 2,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
