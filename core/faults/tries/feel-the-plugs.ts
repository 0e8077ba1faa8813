import { showsOf } from '../causes'
import { lookOutcomes, type TryKind } from '../try'

const HOT_BY_CHANCE = 0.01

/** Both plugs felt after some minutes under load. One that is hot ends the trying. */
export const feelThePlugs: TryKind = {
  *of() {
    yield {
      how: 'Feel both plugs after some minutes under load. If one is hot, unplug at the supply.',
      minutes: 2,
      trouble: 0,
      outcomes: lookOutcomes(
        [{ name: 'hot', says: 'A plug is hot', odds: (cause) => showsOf(cause).hot ?? HOT_BY_CHANCE }],
        { name: 'cool', says: 'They stay cool, or lukewarm' },
      ),
    }
  },
}
