import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'hung port': 0.9,
  'stale driver': 0.12,
  update: 0.15,
  'busy controller': 0.08,
  'first picture': 0.15,
  'wrong input': 0.05,
}

/** The host restarted. */
export const restart: TryKind = {
  *of(scene) {
    if (scene.laid.from.device.kind !== 'computer') return
    yield {
      how: `Restart ${scene.laid.from.device.name}.`,
      minutes: 4,
      trouble: 2,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
