import type { Cable, CableKind } from '../plan/cable'
import type { Instant } from '../plan/fields'
import { type Amps, HIGHEST_WATTS, type Volts, type Watts } from '../quantity/watts'
import { carriesUsb } from '../standards/connectors'
import type { CableGrade } from '../standards/grades'
import { BASES, type Basis } from './basis'
import { type Learnt, NOTHING_LEARNT, type SaidBy } from './learnt'
import type { Trial } from './trials'

export type Known<T> = { value: T; basis: Basis; at: Instant | null }

/** Two things said of a cable that cannot both be right; the stronger is the one believed. */
export type Conflict = {
  about: 'grade' | 'amps' | 'volts'
  believed: Known<string | number>
  overruled: Known<string | number>
}

/** What is believed of one cable: each fact with how it is known. */
export type KnownCable = {
  grade: Known<CableGrade | null>
  amps: Known<Amps>
  volts: Known<Volts>
  unmarked: boolean
  trials: readonly Trial[]
  conflicts: readonly Conflict[]
}

/** The watts a lead may carry: 60, 100, or 240 in the extended range, which stops short of 50 V x 5 A. */
export const markedWatts = ({ amps, volts }: Pick<KnownCable, 'amps' | 'volts'>): Watts =>
  Math.min(HIGHEST_WATTS, amps.value * volts.value)

/**
 * What is believed of a cable: of each fact what the strongest basis says, and where a weaker one says otherwise. Without any statement a type-C or
 * older USB lead is assumed to carry 3 A at 20 V (USB Type-C: no chip, no more), and an optical lead or a lead of another family no power.
 */
export function knownCable(cable: Cable, kind: CableKind | undefined, learnt: Learnt = NOTHING_LEARNT): KnownCable {
  const conflicts: Conflict[] = []
  const wired = cable.construction !== 'optical' && cable.ends.every((end) => carriesUsb(end.connector))
  const believe = <T extends string | number, None extends T | null>(
    about: Conflict['about'],
    listed: T | undefined,
    said: SaidBy<T>,
    assumed: None,
  ): Known<T | None> => {
    let believed: Known<T> | null = null
    for (const basis of BASES.toReversed()) {
      const found =
        said[basis] ?? (basis === 'listed' && listed !== undefined ? { value: listed, at: null } : undefined)
      if (!found) continue
      const now: Known<T> = { ...found, basis }
      if (believed === null) believed = now
      else if (believed.value !== now.value) conflicts.push({ about, believed, overruled: now })
    }
    return believed ?? { value: assumed, basis: 'assumed', at: null }
  }
  return {
    grade: believe('grade', kind?.grade as CableGrade | undefined, learnt.grade, null),
    amps: believe<Amps, Amps>('amps', kind?.amps, learnt.amps, wired ? 3 : 0),
    volts: believe<Volts, Volts>('volts', kind?.volts, learnt.volts, 20),
    unmarked: learnt.unmarked,
    trials: learnt.trials,
    conflicts,
  }
}
