import { type Amps, HIGHEST_WATTS, type Volts, type Watts } from '../quantity/watts'
import { carriesUsb } from '../standards/connectors'
import type { CableGrade } from '../standards/grades'
import { type LeadShape, leadShape } from '../standards/reach'
import type { Cable, CableKind } from '../vocabulary/cable'
import type { Instant } from '../vocabulary/fields'
import { BASES, type Basis } from './basis'
import { type CopySeries, type FigureSeries, isCopies, isWatts } from './figures'
import { type Learnt, NOTHING_LEARNT, type RanHot, type Said, type SaidBy } from './learnt'
import type { LinkSeries } from './links'
import type { PictureSeries } from './pictures'
import type { Spot } from './spot'

export type Known<T> = { value: T; basis: Basis; at: Instant | null }

/** Two things said of a cable that cannot both be right; the stronger is the one believed. */
export type Conflict = {
  about: 'grade' | 'amps' | 'volts'
  believed: Known<string | number>
  overruled: Known<string | number>
}

/** What is believed of one cable: each fact with how it is known, and the bounds that were measured. */
export type KnownCable = {
  grade: Known<CableGrade | null>
  amps: Known<Amps>
  volts: Known<Volts>
  unmarked: boolean
  /** What came up where and for how long; a copy of so many MB/s came up as well. */
  links: readonly LinkSeries[]
  copies: readonly CopySeries[]
  pictures: readonly PictureSeries[]
  watts: readonly FigureSeries<'watts'>[]
  /** Ohms there and back, where somebody measured the volts it lost. */
  ohms: Said<number> | null
  hot: RanHot | null
  conflicts: readonly Conflict[]
}

/** The spots that something was tried in, of a cable or a run. */
export const spotsSeen = (
  seen: Pick<KnownCable, 'links' | 'copies' | 'pictures' | 'watts'> | Pick<Learnt, 'links' | 'pictures' | 'figures'>,
): Spot[] =>
  [...seen.links, ...seen.pictures, ...('figures' in seen ? seen.figures : [...seen.copies, ...seen.watts])].map(
    ({ spot }) => spot,
  )

/** Something of it was tried. */
export const wasTried = ({ links, pictures }: Pick<KnownCable, 'links' | 'pictures'>): boolean =>
  links.length > 0 || pictures.length > 0

/** The watts a lead may carry: 60, 100, or 240 in the extended range, which stops short of 50 V x 5 A. */
export const markedWatts = ({ amps, volts }: Pick<KnownCable, 'amps' | 'volts'>): Watts =>
  Math.min(HIGHEST_WATTS, amps.value * volts.value)

/**
 * What is believed of a cable: of each fact what the strongest basis says, and where a weaker one says otherwise. `ofKind` is what was said of its kind.
 *
 * Without any statement a type-C or older USB lead is assumed to carry 3 A at 20 V (USB Type-C: no chip, no more), and an optical lead or a lead of another
 * family no power. A chip that was asked for and is not there comes to the same, whatever is printed; 50 V is believed of a lead with a chip only
 * where the chip says so as well. Watts that really arrived outrank all of it.
 */
export function knownCable(
  cable: Cable,
  kind: CableKind | undefined,
  learnt: Learnt = NOTHING_LEARNT,
  ofKind: Learnt = NOTHING_LEARNT,
): KnownCable {
  const conflicts: Conflict[] = []
  const wired = cable.construction !== 'optical' && cable.ends.every((end) => carriesUsb(end.connector))
  const believe = <T extends string | number, None extends T | null>(
    about: Conflict['about'],
    listed: T | undefined,
    said: SaidBy<T>,
    saidOfKind: SaidBy<T>,
    assumed: None,
  ): Known<T | None> => {
    let believed: Known<T> | null = null
    for (const basis of BASES.toReversed()) {
      const found =
        said[basis] ??
        saidOfKind[basis] ??
        (basis === 'listed' && listed !== undefined ? { value: listed, at: null } : undefined)
      if (!found) continue
      const now: Known<T> = { ...found, basis }
      if (believed === null) believed = now
      else if (believed.value !== now.value) conflicts.push({ about, believed, overruled: now })
    }
    return believed ?? { value: assumed, basis: 'assumed', at: null }
  }
  const { amps, volts } = withChip(learnt, wired ? 3 : 0)
  return {
    grade: believe('grade', kind?.grade as CableGrade | undefined, learnt.grade, ofKind.grade, null),
    amps: believe<Amps, Amps>('amps', kind?.amps, amps, ofKind.amps, wired ? 3 : 0),
    volts: believe<Volts, Volts>('volts', kind?.volts, volts, ofKind.volts, 20),
    unmarked: learnt.unmarked,
    links: linksOver(learnt.links, leadShape(cable.ends)),
    copies: learnt.figures.filter(isCopies),
    pictures: learnt.pictures,
    watts: learnt.figures.filter(isWatts),
    ohms: learnt.ohms,
    hot: learnt.hot,
    conflicts,
  }
}

/** What is said of current and voltage, with what follows from a chip that was asked. */
function withChip({ amps, volts, chip }: Learnt, without: Amps): Pick<Learnt, 'amps' | 'volts'> {
  if (chip === null) return { amps, volts }
  const { at, none } = chip
  return {
    amps: none ? { ...amps, chip: { value: without, at } } : amps,
    volts: none || volts.chip === undefined ? { ...volts, chip: { value: 20, at } } : volts,
  }
}

/** What was tried of links over leads with such ends: with an older plug a copy went over one lane. */
export const linksOver = (links: readonly LinkSeries[], shape: LeadShape): readonly LinkSeries[] =>
  shape === 'c-c' || !links.some(({ copied }) => copied)
    ? links
    : links.map((series) =>
        series.copied ? { ...series, tried: series.copied.oneLane, cameUp: series.copied.oneLane } : series,
      )
