import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'busy controller': 0.95,
  'draws too much': 0.4,
  'first picture': 0.9,
  'shared charger': 0.9,
  'controller falls back': 0.15,
}

const MOST_NAMED = 4

/** All else on the same controller unplugged. */
export const fewerNeighbours: TryKind = {
  *of(scene) {
    const { neighbours, crossings } = scene
    const shared = scene.laid.from.device.pool !== undefined
    if (neighbours.length === 0 && !shared && crossings.length < 2) return
    const named = neighbours.slice(0, MOST_NAMED).map(({ tag }) => tag)
    yield {
      how:
        named.length > 0
          ? `Unplug what else hangs on the same controller: ${named.join(', ')}${neighbours.length > MOST_NAMED ? ' and the others' : ''}.`
          : 'Unplug all else from the same device.',
      minutes: 2 + Math.min(3, neighbours.length),
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
