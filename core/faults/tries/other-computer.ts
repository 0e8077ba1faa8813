import { hostSide } from '../controller-odds'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'worn socket': 0.95,
  'dead port': 0.97,
  'lesser port': 0.85,
  'controller falls back': 0.85,
  'busy controller': 0.9,
  'stale driver': 0.97,
  'hung port': 0.95,
  update: 0.9,
  'old system': 0.85,
  'mode not chosen': 0.85,
  'loose plug': 0.5,
  'hub fault': 0.9,
  'weak charger': 0.8,
  'shared charger': 0.8,
  'dead supply': 0.85,
  'first picture': 0.2,
}

/** Another computer, or other host, at the host end. */
export const otherComputer: TryKind = {
  *of(scene) {
    yield {
      how: scene.otherComputer
        ? `Plug the host end into ${scene.otherComputer.name} instead of ${scene.laid.from.device.name}.`
        : `Plug the host end into another host instead of ${scene.laid.from.device.name}.`,
      minutes: 8,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY, hostSide(scene)),
    }
  },
}
