import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  update: 0.65,
  'old system': 0.75,
  'controller falls back': 0.35,
  'hub fault': 0.2,
  'stale driver': 0.3,
  'hung port': 0.85,
}

/** Firmware and system brought up to date: slow, and not without risk, so it comes late. */
export const firmware: TryKind = {
  *of(scene) {
    if (scene.laid.from.device.kind !== 'computer') return
    yield {
      how: `Bring the firmware and the system of ${scene.laid.from.device.name} up to date, on mains and with its data saved.`,
      minutes: 20,
      trouble: 20,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
