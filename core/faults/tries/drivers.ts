import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'stale driver': 0.92,
  'hung port': 0.4,
  update: 0.3,
  'old system': 0.1,
}

/** Sellers and makers disagree where a driver is best taken from: both are steps, neither is done by itself. */
const SOURCES = {
  system: 'Let the system find its own driver first; the board maker has one if that does not help.',
  maker: "Take the board maker's driver first; the system has its own if that does not help.",
}

/** Disconnected entries shown and removed, the device plugged in again; the driver of the board maker or that of the system, by the rules of the site. */
export const drivers: TryKind = {
  *of(scene) {
    if (scene.laid.from.device.kind !== 'computer') return
    yield {
      how: `On ${scene.laid.from.device.name}, show entries of devices that are not connected, remove those of this device, and plug it in again. ${SOURCES[scene.index.plan.policy.drivers]}`,
      minutes: 9,
      trouble: 3,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
