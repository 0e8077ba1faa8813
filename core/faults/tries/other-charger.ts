import { busWatts } from '../../vocabulary/need'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'weak charger': 0.93,
  'shared charger': 0.92,
  'dead supply': 0.8,
  'worn socket': 0.3,
  'dead port': 0.8,
}

/** Another supply, of the stated voltage and at least the watts. */
export const otherCharger: TryKind = {
  *of(scene) {
    if (!scene.crossings.some(({ need }) => need.kind === 'power' || busWatts(need) !== undefined)) return
    yield {
      how: scene.otherCharger
        ? `Feed it from ${scene.otherCharger.name}, alone on it.`
        : 'Feed it from another charger that is known to give enough, alone on it.',
      minutes: 3,
      trouble: 0,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
