import { z } from 'zod'
import type { TryName } from '../vocabulary/search'
import { accepted } from './kinds/accepted'
import { addedDelay } from './kinds/added-delay'
import { type AttemptObservation, attempt } from './kinds/attempt'
import { battery } from './kinds/battery'
import { read, write } from './kinds/copy'
import { frames } from './kinds/frames'
import { headsetLink } from './kinds/headset-link'
import { job } from './kinds/job'
import type { ObservationKind } from './kinds/kind'
import { laid } from './kinds/laid'
import { picture } from './kinds/picture'
import { type Retraction, retraction } from './kinds/retraction'
import { setRight } from './kinds/set-right'
import { sight } from './kinds/sight'
import { type Statement, statement } from './kinds/statement'
import { type SymptomObservation, symptom } from './kinds/symptom'
import { type TrialObservation, trial } from './kinds/trial'
import { voltsLost } from './kinds/volts-lost'
import { warmth } from './kinds/warmth'
import { watts } from './kinds/watts'
import type { Learning } from './learnt'

export type { AttemptObservation, Retraction, Statement, SymptomObservation, TrialObservation }

/** A figure read on the bench or on a run as it lies. */
const readingSchema = z.discriminatedUnion('measure', [
  write.schema,
  read.schema,
  watts.schema,
  voltsLost.schema,
  warmth.schema,
  picture.schema,
  battery.schema,
  addedDelay.schema,
  frames.schema,
  headsetLink.schema,
  job.schema,
  sight.schema,
])
export type Reading = z.output<typeof readingSchema>

export const observationSchema = z.discriminatedUnion('kind', [
  statement.schema,
  trial.schema,
  readingSchema,
  symptom.schema,
  attempt.schema,
  laid.schema,
  accepted.schema,
  setRight.schema,
  retraction.schema,
])
export type Observation = z.output<typeof observationSchema>

/** Every kind of observation; of a reading, what was measured is its kind. */
export const observationKinds = {
  statement,
  trial,
  write,
  read,
  watts,
  'volts lost': voltsLost,
  warmth,
  picture,
  battery,
  'added delay': addedDelay,
  frames,
  'headset link': headsetLink,
  job,
  sight,
  symptom,
  try: attempt,
  laid,
  accepted,
  'set right': setRight,
  retraction,
}
export type ObservationName = keyof typeof observationKinds

export const nameOfKind = (observation: Observation): ObservationName =>
  observation.kind === 'reading' ? observation.measure : observation.kind

/** The kind of an observation, with what it takes told by it. */
const kindOf = (observation: Observation): ObservationKind<z.ZodObject> =>
  observationKinds[nameOfKind(observation)] as unknown as ObservationKind<z.ZodObject>

export const teach = (learning: Learning, observation: Observation): void =>
  kindOf(observation).teach(learning, observation)

/** What was done in a search that changes nothing for another, and may set a run right. */
const IN_ITS_PLACE: ReadonlySet<TryName> = new Set([
  'reseat',
  'restart',
  'drivers',
  'firmware',
  'turn round',
  'settings',
  'power cycle',
])

/** After it what was seen begins anew: somebody set it right, or a try of a search took the fault away. */
export const setsRight = (observation: Observation): boolean =>
  observation.kind === 'set right' ||
  (observation.kind === 'try' && observation.outcome === 'gone' && IN_ITS_PLACE.has(observation.what))

/** What an observation says, in a few words: "USB4 40 Gb/s, 5 A", "tried USB4 40 Gb/s: USB4 20 Gb/s, 60 s", "write: 412 MB/s". */
export const observationText = (observation: Observation): string => kindOf(observation).text(observation)

/** The figure that a reading read, without what it was read of: "412 MB/s", "hot, 63 °C", "held". */
export const figureText = (reading: Reading): string =>
  observationText({ ...reading, limit: undefined }).replace(/^[^:]*: /, '')

/** Who says so. */
export const sayerOf = (observation: Observation): string => kindOf(observation).saidBy(observation)

/** What it does not show, as people take it to. */
export const cannotTeach = (observation: Observation): string => kindOf(observation).cannot

/** An observation without what the moment of writing it down adds: its id, its instant, who wrote it, and its subject. */
export type Unwritten<T extends Observation = Observation> = T extends Observation
  ? Omit<T, 'id' | 'at' | 'by' | 'subject'>
  : never

/** What was tried of a lead: a link or a figure. */
export type Tried = TrialObservation | Reading
export const isTried = (observation: Observation): observation is Tried =>
  observation.kind === 'trial' || observation.kind === 'reading'
