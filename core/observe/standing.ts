import { type Asks, type Came, came, drops, failures, isGood } from './came'
import type { Series } from './ledger'
import { type Here, isHere, isStale } from './spot'
import { NOTHING_COUNTED, type Says, type Tally, tallyOf } from './tally'

/** How a question stands in one place after all that was tried there: the outcome, its counts, and the series of the try that says so. */
export type Standing<S extends Series<object> = Series<object>> = {
  came: Came
  tally: Tally<S>
  /** It comes up and drops. */
  drops: boolean
  series: S
  /** All of it was seen before the computer changed. */
  stale: boolean
}

/** Seen in a place before somebody set it right, or before something else was installed there. */
const isEarlier = ({ before, spot }: Series<object>, here: Here | null): boolean =>
  before === true || (here !== null && isStale(spot, here))

/** What all that was seen in one place says of a question; null where it says nothing. `here` tells what is installed there now. */
export function standingOf<S extends Series<object>>(
  all: readonly S[],
  says: (series: S) => Says | null,
  asks: Asks,
  here: Here | null,
): Standing<S> | null {
  if (all.length === 0) return null
  const isNow = (series: S): boolean => !isEarlier(series, here)
  const asThingsAre = all.every(isNow) ? all : all.filter(isNow)
  const now = tallyOf(asThingsAre, says)
  const earlier: Tally<S> =
    asThingsAre === all
      ? NOTHING_COUNTED
      : tallyOf(
          all.filter((series) => !isNow(series)),
          says,
        )
  const outcome = came(now, earlier, asks)
  if (outcome === null) return null
  const anew = outcome === 'begun anew'
  const seenNow = now.held + failures(now) > 0
  const tally = seenNow || anew ? now : earlier
  const series = isGood(outcome) ? tally.lastHeld : anew ? earlier.lastFailed : now.lastFailed
  return (
    series && {
      came: outcome,
      tally,
      drops: drops(tally, asks),
      series,
      stale: !seenNow && here !== null && isStale(series.spot, here),
    }
  )
}

/** What was seen in a socket, and in each of the others: of no socket at all, every one is another. */
export function byPlace<S extends Series<object>>(
  all: readonly S[],
  here: Here | null,
): { own: readonly S[]; others: readonly (readonly S[])[] } {
  const own: S[] = []
  const others = new Map<string, S[]>()
  for (const series of all) {
    if (here && isHere(series.spot, here)) {
      own.push(series)
      continue
    }
    const { port, controller, alone } = series.spot
    const key = `${port ?? controller ?? ''} ${alone ?? ''}`
    const list = others.get(key)
    if (list) list.push(series)
    else others.set(key, [series])
  }
  return { own, others: [...others.values()] }
}
