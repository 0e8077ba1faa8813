import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'mode not chosen': 0.95,
  'stale driver': 0.08,
  'wrong input': 0.03,
  'first picture': 0.2,
}

/** The wanted mode and scaling chosen on the computer. */
export const settings: TryKind = {
  *of(scene) {
    if (!scene.kinds.has('picture')) return
    yield {
      how: 'Open the display settings. Choose the wanted size and refresh, with scaling at 100 %. Never choose "second display only" before the second is known to show.',
      minutes: 2,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
