import type { Instant } from '../plan/fields'
import type { Observation, Reading, Statement, TrialObservation } from '../plan/observation'
import type { BitsPerSecond } from '../quantity/rate'
import type { Amps, Volts } from '../quantity/watts'
import type { CableGrade } from '../standards/grades'
import type { LinkMode } from '../standards/link-modes'
import type { Basis } from './basis'
import { type Trial, trialFrom, withoutRepeats } from './trials'

export type Said<T> = { value: T; at: Instant }
/** What each basis says of one thing, the latest it said; a basis that was asked and had nothing is left out. */
export type SaidBy<T> = { [B in Basis]?: Said<T> }

/** How fast a copy went over a lead: what the lead does where it was the limit, otherwise the least it does. */
export type Copied = { rate: BitsPerSecond; atLeast: boolean; at: Instant }

/** One mode tried on one controller: how often, how often it held, and when last. */
export type Tally = { mode: LinkMode; controller: string | null; passed: number; tried: number; last: Instant }

/** What was learnt of one cable from all that was observed of it: enough for every computation, whatever the number of observations. */
export type Learnt = {
  grade: SaidBy<CableGrade>
  amps: SaidBy<Amps>
  volts: SaidBy<Volts>
  /** Its mark was looked for, and there is none. */
  unmarked: boolean
  trials: readonly Trial[]
  tallies: readonly Tally[]
  copied: { write?: Copied; read?: Copied }
  /** When its plug was last felt to be hot. */
  hot: Instant | null
  /** The last time somebody tried something. */
  last: TrialObservation | Reading | null
}

export const NOTHING_LEARNT: Learnt = {
  grade: {},
  amps: {},
  volts: {},
  unmarked: false,
  trials: [],
  tallies: [],
  copied: {},
  hot: null,
  last: null,
}

/** Folds what counts of one cable, oldest first. Each kind of observation has its own part of the answer. */
export function learn(counted: readonly Observation[]): Learnt {
  if (counted.length === 0) return NOTHING_LEARNT
  const learnt = {
    ...NOTHING_LEARNT,
    grade: {} as SaidBy<CableGrade>,
    amps: {} as SaidBy<Amps>,
    volts: {} as SaidBy<Volts>,
    copied: {} as Learnt['copied'],
  }
  const trials: Trial[] = []
  for (const observation of counted) {
    switch (observation.kind) {
      case 'statement':
        hear(learnt.grade, observation, observation.grade)
        hear(learnt.amps, observation, observation.amps)
        hear(learnt.volts, observation, observation.volts)
        if (observation.basis === 'claimed' && observation.grade !== undefined)
          learnt.unmarked = observation.grade === null
        break
      case 'trial':
        trials.push(trialFrom(observation))
        learnt.last = observation
        break
      case 'reading':
        read(learnt, observation)
        learnt.last = observation
        break
      case 'symptom':
      case 'retraction':
        break
    }
  }
  return { ...learnt, trials: withoutRepeats(trials), tallies: talliesOf(trials) }
}

function hear<T>(said: SaidBy<T>, { basis, at }: Statement, value: T | null | undefined): void {
  if (value === null) delete said[basis]
  else if (value !== undefined) said[basis] = { value, at }
}

function read(learnt: { -readonly [Name in keyof Learnt]: Learnt[Name] }, reading: Reading): void {
  const { at } = reading
  switch (reading.measure) {
    case 'watts':
      // watts that arrived have passed, whatever kept them from being more: above 60 W takes 5 A, above 100 W more than 20 V
      if (reading.watts > 60) learnt.amps.measured = { value: 5, at }
      if (reading.watts > 100) learnt.volts.measured = { value: 50, at }
      break
    case 'write':
    case 'read':
      learnt.copied[reading.measure] = bound(learnt.copied[reading.measure], {
        rate: reading.rate,
        atLeast: reading.limit !== 'lead',
        at,
      })
      break
    case 'warmth':
      if (reading.felt === 'hot') learnt.hot = at
      break
    case 'volts lost':
    case 'picture':
      break
  }
}

/** A lower bound never makes less of what is known; where the lead was the limit, the later figure counts. */
const bound = (before: Copied | undefined, now: Copied): Copied =>
  before && now.atLeast && now.rate <= before.rate ? before : now

function talliesOf(trials: readonly Trial[]): Tally[] {
  const tallies = new Map<string, Tally>()
  for (const { tried: mode, cameUp, controller = null, at } of trials) {
    const key = `${mode} ${controller}`
    const tally = tallies.get(key) ?? { mode, controller, passed: 0, tried: 0, last: at }
    tally.tried += 1
    tally.passed += Number(cameUp === mode)
    if (at > tally.last) tally.last = at
    tallies.set(key, tally)
  }
  return [...tallies.values()]
}
