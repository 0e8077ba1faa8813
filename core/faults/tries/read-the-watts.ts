import { formatWatts } from '../../quantity/watts'
import { busWatts } from '../../vocabulary/need'
import { BY_CHANCE } from '../cause'
import { showsOf } from '../causes'
import { lookOutcomes, type TryKind } from '../try'

/** The watts that arrive, read off a meter in the run or the power page of the computer. */
export const readTheWatts: TryKind = {
  *of({ crossings }) {
    const asked = Math.max(
      0,
      ...crossings.map(({ need }) => (need.kind === 'power' ? need.watts : (busWatts(need) ?? 0))),
    )
    if (asked === 0) return
    yield {
      how: `Read the watts that arrive, with a meter or on the power page. Planned are ${formatWatts(asked)}.`,
      minutes: 2,
      trouble: 0,
      outcomes: lookOutcomes(
        [
          { name: 'none', says: 'No power arrives', odds: (cause) => showsOf(cause)['no power'] ?? BY_CHANCE },
          {
            name: 'less',
            says: 'Clearly less arrives',
            odds: (cause) => showsOf(cause)['charges slowly'] ?? BY_CHANCE,
          },
        ],
        { name: 'planned', says: 'It arrives as planned' },
      ),
    }
  },
}
