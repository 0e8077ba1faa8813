import { type Cable, type CableKind, type Evidence, isReading, isTrial, type Trial } from '../plan/cable'
import { type Amps, HIGHEST_WATTS, type Volts, type Watts } from '../quantity/watts'
import { carriesUsb } from '../standards/connectors'
import type { CableGrade } from '../standards/grades'

/** How something about a cable is known, weakest first; the stronger overrules the weaker, the later the earlier. */
export const BASES = ['assumed', 'listed', 'claimed', 'supplied', 'chip', 'measured', 'soaked'] as const
export type Basis = (typeof BASES)[number]

export const basisNames: Record<Basis, string> = {
  assumed: 'assumed: nothing says otherwise',
  listed: 'its listing',
  claimed: 'the mark on it',
  supplied: 'the device it came with',
  chip: 'its chip',
  measured: 'a measurement',
  soaked: 'a soak',
}

export type Known<T> = { value: T; basis: Basis; on: string | null }

/** Two pieces of evidence that cannot both be right; the stronger is the one believed. */
export type Conflict = {
  about: 'grade' | 'amps' | 'volts'
  believed: Known<string | number>
  overruled: Known<string | number>
}

/** What is known of one cable: each fact with how it is known. */
export type KnownCable = {
  grade: Known<CableGrade | null>
  amps: Known<Amps>
  volts: Known<Volts>
  trials: readonly Trial[]
  conflicts: readonly Conflict[]
}

/** The watts a lead may carry: 60, 100, or 240 in the extended range, which stops short of 50 V x 5 A. */
export const markedWatts = ({ amps, volts }: KnownCable): Watts => Math.min(HIGHEST_WATTS, amps.value * volts.value)

/**
 * Folds the evidence on a cable, weakest first, so that its chip overrules its mark and its mark its listing.
 * Without any statement a type-C or older USB lead is assumed to carry 3 A at 20 V (USB Type-C: no chip, no more), and
 * an optical lead or a lead of another family to carry no power.
 */
export function knownCable(cable: Cable, kind?: CableKind): KnownCable {
  const conflicts: Conflict[] = []
  const wired = cable.construction !== 'optical' && cable.ends.every((end) => carriesUsb(end.connector))
  let grade: Known<CableGrade | null> = { value: null, basis: 'assumed', on: null }
  let amps: Known<Amps> = { value: wired ? 3 : 0, basis: 'assumed', on: null }
  let volts: Known<Volts> = { value: 20, basis: 'assumed', on: null }

  const learn = <T extends string | number | null>(
    about: Conflict['about'],
    before: Known<T>,
    value: T | undefined,
    basis: Basis,
    on: string | null,
  ): Known<T> => {
    if (value === undefined) return before
    const now = { value, basis, on }
    if (before.basis !== 'assumed' && before.value !== null && before.value !== value && value !== null) {
      conflicts.push({ about, believed: { ...now, value }, overruled: { ...before, value: before.value } })
    }
    return now
  }

  if (kind) {
    grade = learn('grade', grade, kind.grade as CableGrade | null, 'listed', null)
    amps = learn('amps', amps, kind.amps, 'listed', null)
    volts = learn('volts', volts, kind.volts, 'listed', null)
  }
  const trials: Trial[] = []
  for (const evidence of weakestFirst(cable.evidence)) {
    if (isTrial(evidence)) {
      trials.push(evidence)
      continue
    }
    if (isReading(evidence)) {
      // watts that arrived have passed: more than 60 W takes 5 A, more than 100 W more than 20 V
      if (evidence.measure !== 'watts' || evidence.watts <= 60) continue
      amps = learn('amps', amps, 5, evidence.basis, evidence.on)
      if (evidence.watts > 100) volts = learn('volts', volts, 50, evidence.basis, evidence.on)
      continue
    }
    grade = learn('grade', grade, evidence.grade as CableGrade | null | undefined, evidence.basis, evidence.on)
    amps = learn('amps', amps, evidence.amps, evidence.basis, evidence.on)
    volts = learn('volts', volts, evidence.volts, evidence.basis, evidence.on)
  }
  return { grade, amps, volts, trials, conflicts }
}

function weakestFirst(evidence: readonly Evidence[]): Evidence[] {
  return [...evidence].sort(
    (one, other) =>
      BASES.indexOf(one.basis) - BASES.indexOf(other.basis) ||
      compare(one.on, other.on) ||
      compare(JSON.stringify(one), JSON.stringify(other)),
  )
}

/** The last comparison only makes the outcome independent of the order in which the evidence is listed. */
const compare = (one: string, other: string): number => (one < other ? -1 : one > other ? 1 : 0)
