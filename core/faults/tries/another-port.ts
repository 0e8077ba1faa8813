import { hostSide } from '../controller-odds'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'worn socket': 0.95,
  'dead port': 0.95,
  'lesser port': 0.6,
  'loose plug': 0.55,
  'hung port': 0.4,
  'stale driver': 0.12,
  'controller falls back': 0.06,
  'busy controller': 0.08,
}

const OTHER_CONTROLLER = { 'controller falls back': 0.78, 'busy controller': 0.8, 'hung port': 0.5 }

/** Another port of the same host, on another controller where there is one. */
export const anotherPort: TryKind = {
  *of(scene) {
    const { free } = scene
    const { device } = scene.laid.from
    yield {
      how: free
        ? `Move the host end to ${free.port.name} of ${device.name}${free.otherController ? ', which hangs on another controller' : ''}.`
        : `Move the host end to another port of ${device.name}.`,
      ...(free ? { with: free.port.name } : { lacks: `a free port of ${device.name} that does no less` }),
      minutes: 2,
      trouble: 0,
      outcomes: goneOrSame(
        free?.otherController ? { ...TAKES_AWAY, ...OTHER_CONTROLLER } : TAKES_AWAY,
        hostSide(scene),
      ),
    }
  },
}
