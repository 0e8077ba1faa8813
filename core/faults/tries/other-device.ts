import { farPart } from '../scene'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'broken device': 0.96,
  'slow drive': 0.95,
  'damaged files': 0.96,
  'wrong input': 0.5,
  'device off': 0.9,
  'draws too much': 0.7,
  'no resistors': 0.9,
  'flat battery': 0.95,
  'lesser port': 0.8,
  'worn socket': 0.85,
  'dead supply': 0.85,
  'stale driver': 0.3,
  'hub fault': 0.9,
  'weak charger': 0.1,
}

/** Another device of the same sort at the far end. */
export const otherDevice: TryKind = {
  *of(scene) {
    yield {
      how: scene.otherDevice
        ? `Plug ${scene.otherDevice.name} in at the far end instead of ${scene.laid.to.device.name}.`
        : `Plug another device like ${scene.laid.to.device.name} in at the far end.`,
      minutes: 5,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY, [farPart(scene).id, scene.laid.to.device.id]),
    }
  },
}
