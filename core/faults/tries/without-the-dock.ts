import { passesThrough } from '../../vocabulary/device'
import { hostSide } from '../controller-odds'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'hub fault': 0.95,
  'first picture': 0.85,
  'busy controller': 0.8,
  'shared charger': 0.8,
  'weak charger': 0.4,
  'worn socket': 0.9,
  'dead port': 0.95,
  'lesser port': 0.6,
  'controller falls back': 0.5,
  'dead supply': 0.9,
}

/** The far device straight at the computer, without the dock or hub between them. */
export const withoutTheDock: TryKind = {
  *of(scene) {
    if (!passesThrough(scene.laid.from.device)) return
    yield {
      how: `Plug ${scene.laid.to.device.name} straight into the computer, without ${scene.laid.from.device.name}.`,
      minutes: 5,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY, hostSide(scene)),
    }
  },
}
