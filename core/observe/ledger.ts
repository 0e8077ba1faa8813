import type { Instant } from '../vocabulary/fields'
import { placeKey, type Spot } from './spot'

/** How often, how many seconds in all, and the longest of them. */
export type Since = readonly [times: number, seconds: number, longest: number]
const NEVER: Since = [0, 0, 0]

/** How often, how long, and when something was seen in one place. What follows from the rest is left out. */
type Counted = {
  spot: Spot
  /** It was seen before somebody set it right. */
  before?: true
  times: number
  /** The last of them, and how long that was watched where somebody said. */
  at: Instant
  watched?: number
  /** Of several, where they are others: the first of them, the seconds that were watched in sum, and the longest look. */
  first?: Instant
  seconds?: number
  longest?: number
  /** How much of it came after the last of another series, where some of it came before: by the key of that one. */
  since?: Readonly<Record<string, Since>>
  /** What another series of its ledger calls it by. */
  key?: string
}

/** What was seen again and again in one place, alike in all that anybody asks of it. */
export type Series<What> = What & Counted

const firstAt = ({ first, at }: Counted): Instant => first ?? at
/** Seconds that were watched, in sum. */
export const secondsOf = ({ seconds, watched = 0 }: Counted): number => seconds ?? watched
/** Seconds of the longest look. */
export const longestOf = ({ longest, watched = 0 }: Counted): number => longest ?? watched

/** Where and when an observation was made; `place` tells the spot, and what was seen there before somebody set it right, in one text. */
export type Placed = { spot: Spot; place: string; before: boolean; at: Instant }

/** What a ledger is told of what it takes: its name, and whether it may be a hold, or a failure, of anything that is asked. */
export type Sort<What> = {
  nameOf(what: What): string
  canHold(what: What): boolean
  canFail(what: What): boolean
}

type Open<What> = {
  key: string
  what: What
  spot: Spot
  before: boolean
  times: number
  at: Instant
  watched: number | undefined
  first: Instant
  seconds: number
  longest: number
  since: Map<string, Since> | null
}

/**
 * Takes observations in the order of their instants and keeps, of each sort, as much as tells how often it came since the last of any other sort. What is
 * kept grows with the sorts of outcome there were, and not with how often they were seen; of one instant nothing counts as later.
 */
export class Ledger<What extends object> {
  readonly #open = new Map<string, Open<What>>()

  constructor(
    private readonly sort: Sort<What>,
    known: readonly Series<What>[] = [],
  ) {
    for (const series of known) {
      const {
        spot,
        before,
        times,
        at,
        watched,
        first: _,
        seconds: __,
        longest: ___,
        since,
        key: ____,
        ...rest
      } = series
      const what = rest as unknown as What
      const key = `${sort.nameOf(what)} ${placeKey(series)}`
      this.#open.set(key, {
        key,
        what,
        spot,
        before: before ?? false,
        times,
        at,
        watched,
        first: firstAt(series),
        seconds: secondsOf(series),
        longest: longestOf(series),
        since: since ? new Map(Object.entries(since)) : null,
      })
    }
  }

  add(what: What, { spot, place, before, at }: Placed, watched: number | undefined): void {
    const key = `${this.sort.nameOf(what)} ${place}`
    const looked = watched ?? 0
    const own = this.#open.get(key)
    for (const other of this.#open.values()) {
      if (other === own) continue
      other.since?.delete(key)
      if (!own || other.at >= at || own.first > other.at) continue
      // only what can hold is counted since what can fail
      if (!this.sort.canHold(what) || !this.sort.canFail(other.what)) continue
      own.since ??= new Map()
      const [times, sum, longest] = own.since.get(other.key) ?? NEVER
      own.since.set(other.key, [times + 1, sum + looked, Math.max(longest, looked)])
    }
    if (!own) {
      const open = { key, what, spot, before, times: 1, at, watched, first: at, seconds: looked, longest: looked }
      this.#open.set(key, { ...open, since: null })
      return
    }
    own.times += 1
    own.at = at
    own.watched = watched
    own.seconds += looked
    own.longest = Math.max(own.longest, looked)
  }

  /** What was taken so far, in an order that follows from it alone. */
  series(): Series<What>[] {
    const all = [...this.#open.values()]
    if (all.length === 0) return []
    if (all.length > 1) all.sort((one, other) => (one.key < other.key ? -1 : 1))
    const called = new Set<string>()
    for (const { since } of all) if (since) for (const key of since.keys()) called.add(key)
    return all.map((open) => seriesOf(open, called.has(open.key)))
  }
}

/** A series without what follows from the rest of it: it goes to browsers as text. */
function seriesOf<What extends object>(open: Open<What>, isCalled: boolean): Series<What> {
  const { what, spot, before, times, at, watched = 0, first, seconds, longest, since } = open
  // one field after the other: it is made for each of all that was ever tried
  const series = { ...what } as Series<What>
  series.spot = spot
  series.times = times
  series.at = at
  if (before) series.before = true
  if (open.watched !== undefined) series.watched = watched
  if (first !== at) series.first = first
  if (seconds !== watched) series.seconds = seconds
  if (longest !== watched) series.longest = longest
  if (isCalled) series.key = open.key
  if (since && since.size > 0)
    series.since = Object.fromEntries([...since].sort(([one], [other]) => (one < other ? -1 : 1)))
  return series
}

/** How much of a series came after the last of another. */
export function sinceLast(series: Series<object>, other: Pick<Series<object>, 'key' | 'at'>): Since {
  if (series.at <= other.at) return NEVER
  if (firstAt(series) > other.at) return [series.times, secondsOf(series), longestOf(series)]
  return (other.key === undefined ? undefined : series.since?.[other.key]) ?? NEVER
}
