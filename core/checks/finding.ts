import { z } from 'zod'
import type { Lack } from '../link/chain'
import { LINK_MODES } from '../standards/link-modes'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import { commonPractice, type Source } from '../standards/source'
import type { Remedy } from './remedies'

/** Worst first. A note never makes a verdict worse. */
export const GRADES = ['blocked', 'tight', 'clear', 'note'] as const
export type Grade = (typeof GRADES)[number]
export type Verdict = Exclude<Grade, 'note'>

/** How bad a verdict is, to compare two by: the higher the worse. */
export const severity: Readonly<Record<Verdict, number>> = { clear: 0, tight: 1, blocked: 2 }

/** The element of a path that a finding is about. `id` is `device/port`, or the id of the cable, run or need. */
export type Part = { kind: 'port' | 'lead' | 'run' | 'need'; id: string; label: string }

export type Unit = 'm' | 'bit/s' | 'W' | 'V'

export const metresField = z.number()
export const wattsFigure = z.number()
/** A moment as a plan keeps it; inside Hallway it was checked where it came in. */
export const momentFigure = z.string()

/** A lack as a finding keeps it: the figures, without the laid lead they came from. */
export const lackSchema = z.strictObject({
  why: z.enum(['grade', 'reach', 'chain', 'unfed', 'failed', 'doubted'] satisfies Lack<unknown>['why'][]),
  mode: z.enum([...LINK_MODES, ...DISPLAYPORT_LINKS, ...HDMI_LEVELS]),
  grade: z.string(),
  reach: metresField.nullable(),
  length: metresField,
  passive: z.boolean(),
  /** It would take a supply at its far end, and has none there. */
  unfed: z.boolean(),
  /** How it failed where somebody tried it: it dropped or did not come up, how often, and when last. */
  failed: z.strictObject({ dropped: z.boolean(), times: z.int(), at: momentFigure }).nullable(),
})
export type LackFigures = z.output<typeof lackSchema>

/** The usual caution where a finding touches something that can hurt people or equipment. */
export type Caution =
  | 'hot'
  | 'two-supplies'
  | 'above-60-watts'
  | 'above-100-watts'
  | 'local-code'
  | 'earths'
  | 'height'
  | 'trip'
  | 'optical-end'
  | 'approved-supply'

/** What there is of something and what is asked of it, in one unit. */
export type Measured = { have: number; need: number; unit: Unit }

/** One thing that a check has to say of a run, or of a need that crosses it. `Why` is why it says so, as figures. */
export type FindingOf<Name extends string, Why extends { code: string }> = {
  check: Name
  grade: Grade
  part: Part
  /** The need it is about; left out where it bears on everything that crosses the run. */
  needId?: string
  have: number | null
  need: number | null
  unit: Unit | null
  reason: Why
  remedies: readonly Remedy[]
  source: Source
  caution?: Caution
}

type Figures = { have: number | null; need: number | null; unit: Unit | null }

/** What is left over (or, negative, missing) in the finding's unit; null where nothing is measured. */
export const marginOf = ({ have, need }: Figures): number | null =>
  have === null || need === null ? null : have - need

/** What is asked of a run and what there is of it, in one unit. */
export type Squeeze = { have: number; need: number; unit: 'bit/s' | 'W' }
const SQUEEZING: ReadonlySet<string> = new Set(['picture', 'rate', 'current'])

/** Where it is narrowest: the need that has the least to spare, as a share of what it asks; null where nothing measured is asked. */
export function narrowestOf(findings: Iterable<Figures & { check: string }>): Squeeze | null {
  let narrowest: Squeeze | null = null
  for (const { check, have, need, unit } of findings) {
    if (!SQUEEZING.has(check) || have === null || need === null || need <= 0) continue
    if (unit !== 'bit/s' && unit !== 'W') continue
    if (narrowest === null || have / need < narrowest.have / narrowest.need) narrowest = { have, need, unit }
  }
  return narrowest
}

/** The worst verdict among findings; clear where nothing speaks against it. */
export function worstOf(findings: Iterable<{ grade: Grade }>): Verdict {
  let worst: Verdict = 'clear'
  for (const { grade } of findings) {
    if (grade === 'blocked') return 'blocked'
    if (grade === 'tight') worst = 'tight'
  }
  return worst
}

export const craft: Source = commonPractice('the trade')
