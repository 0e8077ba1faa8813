import { z } from 'zod'
import type { LengthUnit } from '../quantity/length'
import type { Source } from '../standards/source'
import type { Aspect } from './aspect'
import type { Coded } from './coded'
import type { Caution, FindingOf, Grade, Measured, Part } from './finding'
import type { Remedy, RemedyCode, RemedyOf } from './remedies'
import type { Situation } from './situation'

/** What a sentence may take from its finding beside the figures of the reason. `have` and `need` are 0 where nothing is measured. */
export type About = {
  label: string
  grade: Grade
  have: number
  need: number
  unit: LengthUnit
  /** A length in the reader's unit. */
  metres(length: number): string
}

/** Why a check says something: the schema of its figures, and the sentence they make. */
export const reason = <Shape extends z.ZodRawShape>(
  shape: Shape,
  say: (figures: z.output<z.ZodObject<Shape>>, about: About) => string,
) => ({ figures: z.strictObject(shape), say })

/** Reasons by their codes. */
export type Reasons = Readonly<Record<string, { figures: z.ZodObject; say(figures: never, about: About): string }>>

/** One of some reasons, as a finding has it. */
export type ReasonOf<Each extends Reasons> = {
  [Code in keyof Each & string]: Coded<Code, Each[Code]['figures']>
}[keyof Each & string]

/** What a check found. Left out is what nothing is to be said of: nothing is measured, nothing would help, no caution; the source is that of the check. */
export type Found<Each extends Reasons, Ways extends RemedyCode = RemedyCode> = Said<ReasonOf<Each>, RemedyOf<Ways>>

type Said<Why, Way> = {
  grade: Grade
  part: Part
  reason: Why
  needId?: string
  measured?: Measured
  remedies?: readonly Way[]
  source?: Source
  caution?: Caution | undefined
}

/** One aspect of a run. Adding one is adding a file like those beside this one, and a line in `checks`. */
export type Check<Name extends string, Each extends Reasons, Ways extends RemedyCode, Of = Situation> = {
  name: Name
  /** All it may say, with the words. */
  reasons: Each
  /** What it may offer against it. */
  remedies: readonly Ways[]
  /** What it looks at beside what every situation is made of (`SITUATION`): runs and leads are ranked together, and judged again, by these. */
  reads: readonly Aspect[]
  /** Where its figures come from, unless a finding names its own. */
  source: Source
  find(of: Of): Iterable<Found<Each, Ways>>
}

const define =
  <Of>() =>
  <const Name extends string, Each extends Reasons, Ways extends RemedyCode = never>(
    definition: Check<Name, Each, Ways, Of>,
  ): Check<Name, Each, Ways, Of> =>
    definition

/** A check of a run as it is laid. */
export const check = define<Situation>()

/** A check of something else than a laid run. */
export const checkOf = define

/** What a check found, as a finding. */
export const findingOf = <Name extends string, Why extends { code: string }>(
  { name, source }: { name: Name; source: Source },
  found: Said<Why, Remedy>,
): FindingOf<Name, Why> => {
  const finding: FindingOf<Name, Why> = {
    check: name,
    grade: found.grade,
    part: found.part,
    have: found.measured?.have ?? null,
    need: found.measured?.need ?? null,
    unit: found.measured?.unit ?? null,
    reason: found.reason,
    remedies: found.remedies ?? NONE,
    source: found.source ?? source,
  }
  if (found.needId !== undefined) finding.needId = found.needId
  if (found.caution !== undefined) finding.caution = found.caution
  return finding
}
const NONE = [] as const
