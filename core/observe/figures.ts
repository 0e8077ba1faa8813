import type { BitsPerSecond } from '../quantity/rate'
import type { Amps, Volts, Watts } from '../quantity/watts'
import type { Instant } from '../vocabulary/fields'
import { type Asks, CAME, type Came, came, TRIES_TO_CLEAR } from './came'
import type { HeldBackBy } from './every'
import { type Ladder, NO_LADDER, timesBelow, timesSince, withReading } from './ladder'
import type { Placed } from './ledger'
import { type Here, isHere, isOtherSetup, isStale, placeKey, type Spot } from './spot'
import { NOTHING_COUNTED, type Tally } from './tally'

/** What is measured, with the fields of its own that each reading has. */
export type Own = {
  write: { rate: BitsPerSecond; seconds?: number | undefined }
  read: { rate: BitsPerSecond; seconds?: number | undefined }
  watts: { watts: Watts }
  battery: { slope: number; low?: number | undefined; high?: number | undefined; hours: number }
  'added delay': { ms: number }
  frames: { asked: number; came: number; gap?: number | undefined; reaction?: number | undefined }
  'headset link': { rate: BitsPerSecond }
  sight: { good: boolean }
  /** One repeat of a real job. */
  job: { what: string; done: boolean }
  warmth: { felt: 'cool' | 'warm' | 'hot'; celsius?: number | undefined }
  'volts lost': { volts: Volts; amps: Amps }
}
export type Measure = keyof Own

/** One reading as it was read, and which observation it is. */
export type Read<M extends Measure = Measure> = Own[M] & { at: Instant; id: string; limit?: HeldBackBy | undefined }

export type CopySeries = FigureSeries<'write'> | FigureSeries<'read'>
/** The copies among the figures. */
export const isCopies = (series: FigureSeries): series is CopySeries =>
  series.measure === 'write' || series.measure === 'read'
export const isWatts = (series: FigureSeries): series is FigureSeries<'watts'> => series.measure === 'watts'

/** Which readings count against a figure: only where the lead was the limit; also where nobody said what was; every one. */
export const SPEAKING = ['lead', 'unknown', 'all'] as const
export type Speaking = (typeof SPEAKING)[number]

/** What a reading speaks of: the lead, where it was the limit; perhaps, where nobody said; not, where something else was. */
type Voice = 'lead' | 'unknown' | 'bound'

/**
 * The readings of one measure in one place: how many, the last, the least and the most of them as they were read, and how often as much or less was read.
 * What a figure is worth is higher where it is better.
 */
export type FigureSeries<M extends Measure = Measure> = {
  measure: M
  spot: Spot
  before?: true
  times: number
  last: Read<M>
  /** Left out where it is the last. */
  least?: Read<M>
  most?: Read<M>
  /** By every reading; left out where there was one. */
  ladder?: Ladder
  /** How far all of them speak alike; where they differ, by whom a reading speaks of. Left out where nobody said what was the limit. */
  voice?: Voice | { lead: Ladder; unknown: Ladder }
}

/** The ladder of a series by every reading. */
export const ladderOf = ({ measure, last, ladder }: FigureSeries): Ladder =>
  ladder ?? withReading(NO_LADDER, worthOf(measure, last as Own[typeof measure]) ?? 0, { bound: false })

export const leastOf = <M extends Measure>({ least, last }: FigureSeries<M>): Read<M> => least ?? last
export const mostOf = <M extends Measure>({ most, last }: FigureSeries<M>): Read<M> => most ?? last

/** How often figures were read by those that speak; where all speak alike it follows from how often they were. */
function ladderBy(series: FigureSeries, speaking: Speaking): Ladder {
  const { voice = 'unknown' } = series
  if (speaking !== 'all' && typeof voice === 'object') return voice[speaking]
  const ladder = ladderOf(series)
  if (speaking === 'all' || typeof voice === 'object') return ladder
  return speaksIn(voice, speaking) ? ladder : { counts: [], stands: ladder.counts }
}

const speaksIn = (voice: Voice, speaking: Speaking): boolean =>
  speaking === 'all' || voice === 'lead' || (voice === 'unknown' && speaking === 'unknown')

/** One reading as it is taken in. `bound`: something else kept it from being more. */
export type FigureEntry = { measure: Measure; read: Read; worth: number; bound: boolean }

/** What a figure of a measure is worth: more is better. Null where it says nothing. */
export function worthOf<M extends Measure>(measure: M, read: Own[M]): number | null {
  switch (measure) {
    case 'write':
    case 'read':
    case 'headset link':
      return (read as Own['write']).rate
    case 'watts':
      return (read as Own['watts']).watts
    case 'battery':
      return (read as Own['battery']).slope
    case 'added delay':
      return 0 - (read as Own['added delay']).ms
    case 'frames': {
      const { asked, came: arrived } = read as Own['frames']
      return asked === 0 ? null : arrived / asked
    }
    case 'sight':
      return Number((read as Own['sight']).good)
    case 'job':
      return Number((read as Own['job']).done)
    case 'warmth':
      return 0 - FELT.indexOf((read as Own['warmth']).felt)
    default: {
      const { volts, amps } = read as Own['volts lost']
      return amps === 0 ? null : 0 - volts / amps
    }
  }
}
const FELT = ['cool', 'warm', 'hot'] as const

/** A reading with another figure, of so much worth. */
export function withWorth(measure: Measure, read: Read, worth: number): Read {
  switch (measure) {
    case 'write':
    case 'read':
    case 'headset link':
      return { ...read, rate: worth } as Read
    case 'watts':
      return { ...read, watts: worth } as Read
    case 'battery':
      return { ...read, slope: worth } as Read
    case 'added delay':
      return { ...read, ms: -worth } as Read
    case 'frames':
      return { ...read, came: worth * (read as Read<'frames'>).asked } as Read
    case 'sight':
      return { ...read, good: worth > 0 } as Read
    case 'job':
      return { ...read, done: worth > 0 } as Read
    case 'warmth':
      return { ...read, felt: FELT[-worth] ?? 'hot' } as Read
    case 'volts lost':
      return { ...read, volts: -worth * (read as Read<'volts lost'>).amps } as Read
  }
}

/** Takes readings in the order of their instants; of one instant the better first, so that the worse counts. */
export class Figures {
  readonly #open: Map<string, FigureSeries>

  constructor(known: readonly FigureSeries[] = []) {
    this.#open = new Map(known.map((series) => [`${series.measure} ${placeKey(series)}`, series]))
  }

  add(entry: FigureEntry, placed: Pick<Placed, 'spot' | 'place' | 'before'>): void {
    const key = `${entry.measure} ${placed.place}`
    const own = this.#open.get(key)
    this.#open.set(key, own ? withEntry(own, entry) : firstOf(entry, placed))
  }

  series(): FigureSeries[] {
    if (this.#open.size < 2) return [...this.#open.values()]
    return [...this.#open].sort(([one], [other]) => (one < other ? -1 : 1)).map(([, series]) => series)
  }
}

function voiceOf({ read: { limit = 'unknown' }, bound }: FigureEntry): Voice {
  if (bound || (limit !== 'lead' && limit !== 'unknown')) return 'bound'
  return limit
}

function firstOf(entry: FigureEntry, { spot, before }: Pick<Placed, 'spot' | 'before'>): FigureSeries {
  const { measure, read } = entry
  const series: FigureSeries = { measure, spot, times: 1, last: read }
  if (before) series.before = true
  const voice = voiceOf(entry)
  if (voice !== 'unknown') series.voice = voice
  return series
}

function withEntry(own: FigureSeries, entry: FigureEntry): FigureSeries {
  const { measure, read, worth } = entry
  const [least, most] = [leastOf(own), mostOf(own)]
  const worthOfOld = (old: Read): number => worthOf(measure, old as Own[typeof measure]) ?? 0
  const { spot, before } = own
  const series: FigureSeries = { measure, spot, times: own.times + 1, last: read }
  if (before) series.before = true
  if (worthOfOld(least) < worth) series.least = least
  if (worthOfOld(most) > worth) series.most = most
  series.ladder = withReading(ladderOf(own), worth, { bound: false })
  const voice = withVoice(own, voiceOf(entry), worth)
  if (voice !== 'unknown') series.voice = voice
  return series
}

function withVoice(own: FigureSeries, voice: Voice, worth: number): NonNullable<FigureSeries['voice']> {
  if ((own.voice ?? 'unknown') === voice) return voice
  const by = (speaking: 'lead' | 'unknown'): Ladder =>
    withReading(ladderBy(own, speaking), worth, { bound: !speaksIn(voice, speaking) })
  return { lead: by('lead'), unknown: by('unknown') }
}

/** How often a figure was reached, and how often it was not. */
export function figureTally(series: FigureSeries, worth: number, speaking: Speaking): Tally<never> {
  const ladder = ladderBy(series, speaking)
  // by every reading, whatever was the limit, as much was read or less
  const reached = ladderOf(series).counts.reduce((sum, [figure, times]) => (figure >= worth ? sum + times : sum), 0)
  return {
    ...NOTHING_COUNTED,
    held: reached,
    atOnce: timesBelow(ladder, worth),
    triesSince: timesSince(ladder, worth),
  }
}

/** A figure is read at once: no look is too short for it. */
export const AT_ONCE: Asks = { least: 0, relied: 0, soak: 0 }

/** What readings in one place come to where so much is asked; of places that are noted in more or less detail the worse. Null where nothing was read. */
export function figureCame(
  all: readonly FigureSeries[],
  worth: number,
  speaking: Speaking,
  here: Here,
): { came: Came; tally: Tally<never> } | null {
  let worst: { came: Came; tally: Tally<never> } | null = null
  const isEarlier = ({ before, spot }: FigureSeries): boolean => before === true || isStale(spot, here)
  const there = all.filter(({ spot }) => isHere(spot, here))
  const earlier = there.filter(isEarlier).map((series) => figureTally(series, worth, speaking))
  for (const series of there) {
    if (isEarlier(series)) continue
    const tally = figureTally(series, worth, speaking)
    const outcome = came(tally, added(earlier), AT_ONCE)
    if (outcome !== null && (worst === null || CAME.indexOf(outcome) < CAME.indexOf(worst.came)))
      worst = { came: outcome, tally }
  }
  if (worst) return worst
  const outcome = came(NOTHING_COUNTED, added(earlier), AT_ONCE)
  return outcome && { came: outcome, tally: added(earlier) }
}

const added = (tallies: readonly Tally<never>[]): Tally<never> => ({
  ...NOTHING_COUNTED,
  held: tallies.reduce((sum, { held }) => sum + held, 0),
  atOnce: tallies.reduce((sum, { atOnce }) => sum + atOnce, 0),
})

/** Of series that were all seen in one place those that were read as things are, and where there are none what was read before. */
export function atHand<S extends FigureSeries>(
  all: readonly S[],
  here: Pick<Here, 'setup' | 'farSetup'>,
): readonly S[] {
  const now = all.filter(({ before, spot }) => !before && !isOtherSetup(spot, here))
  return now.length > 0 ? now : all
}

/** The most that a series is relied on for: what was not reached is cleared, or it was always reached. Null where no reading counts against anything. */
export function reliedOn(series: FigureSeries, speaking: Speaking): number | null {
  const { counts } = ladderBy(series, speaking)
  if (counts.length === 0) return null
  let most = counts[0]?.[0] ?? null
  for (const [figure] of ladderOf(series).counts) {
    if (most !== null && figure <= most) continue
    const { atOnce, triesSince } = figureTally(series, figure, speaking)
    if (triesSince < TRIES_TO_CLEAR * atOnce) break
    most = figure
  }
  return most
}
