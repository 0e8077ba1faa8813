import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'no feed': 0.94,
  'draws too much': 0.85,
  'weak charger': 0.3,
  'dead supply': 0.3,
}

/** The supply of an active lead, an extender end or a hungry device put in. */
export const feed: TryKind = {
  *of(scene) {
    if (
      !scene.laid.leads.some(({ cable }) => cable.feed !== 'bus') &&
      scene.laid.from.device.kind !== 'extender' &&
      scene.laid.to.device.kind !== 'extender' &&
      !scene.kinds.has('storage') &&
      !scene.kinds.has('sensor')
    )
      return
    yield {
      how: 'Give the lead, the extender end or the device its own supply, of the stated voltage and polarity.',
      minutes: 3,
      trouble: 0,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
