import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'device off': 0.88,
  'hub fault': 0.4,
  'wrong input': 0.25,
  'hung port': 0.35,
}

/** The far device without power for a minute. */
export const powerCycle: TryKind = {
  *of(scene) {
    if (scene.laid.to.device.kind === 'headset') return
    yield {
      how: `Switch ${scene.laid.to.device.name} off at its supply, wait a minute, and switch it on.`,
      minutes: 3,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
