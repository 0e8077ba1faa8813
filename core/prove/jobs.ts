import { brokeOffText } from '../observe/kinds/job'
import type { Observation } from '../observe/observation'
import { loudest } from '../placement/floor-noise'
import { levelAt } from '../placement/sound'
import type { SiteIndex } from '../plan/site-index'
import { durationText } from '../quantity/duration'
import type { Metres } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import type { Run } from '../vocabulary/run'
import { beforeAfter } from './before-after'

export type JobSeen = Extract<Observation, { measure: 'job' }>

/** A real job as it was timed over a run, in words: what it cost beside what the run gains, and what could not have been seen. */
export type JobTold = { seen: JobSeen; cost: string; gain: string | null; verdict: string[] }

const NEAREST: Metres = 0.1

const mean = (figures: readonly number[]): number => figures.reduce((sum, each) => sum + each, 0) / figures.length

/** A figure of a job: a time as people say it, anything else with its unit. */
const figureText = (figure: number, unit: string): string =>
  unit === 's' ? durationText(Math.round(figure * 10) / 10) : `${decimal(figure, 1)} ${unit}`

/**
 * What a job over a run comes to: its own figure beside that of the way it was held against ("100 GB: 5 min or 6 min"), and what the longer way gains: how far
 * the box is moved away, and how much quieter it is there by the inverse square law.
 */
export function jobTold(index: SiteIndex, run: Run, seen: JobSeen, lengthText: (metres: Metres) => string): JobTold {
  const { what, figures, brokeOff = 0, unit, against } = seen
  const broke = brokeOffText(brokeOff)
  if (figures.length === 0) return { seen, cost: `${what}: ${broke.join()}`, gain: null, verdict: [] }
  if (!against)
    return {
      seen,
      cost: [
        `${what}: ${figureText(mean(figures), unit)}`,
        figures.length === 1 ? 'once' : `the mean of ${figures.length}`,
        ...broke,
      ].join(', '),
      gain: null,
      verdict: ['Held against nothing: do it over the direct way as well, in turn.'],
    }
  const found = beforeAfter({
    names: [against.what, run.tag],
    figures: [against.figures, figures],
    unit,
    lessIsBetter: !seen.moreIsBetter,
  })
  return {
    seen,
    cost: [
      `${what}: ${figureText(mean(against.figures), unit)} over ${against.what}`,
      `${figureText(mean(figures), unit)} over ${run.tag}`,
      ...broke,
    ].join(', '),
    gain: gainOf(index, run, against.length, lengthText),
    verdict: found ? [found.verdict, found.could, ...(found.advice ? [found.advice] : [])] : [],
  }
}

function gainOf(
  index: SiteIndex,
  run: Run,
  before: Metres | undefined,
  lengthText: (metres: Metres) => string,
): string | null {
  if (before === undefined || run.route.length <= before) return null
  const further = `${lengthText(run.route.length - before)} further away`
  const loud = [run.from, run.to].flatMap(({ device }) => index.devices.get(device) ?? []).find(({ noise }) => noise)
  if (!loud?.noise) return further
  const level = (metres: Metres) =>
    levelAt(loudest(loud.noise as NonNullable<typeof loud.noise>), loud.noise?.distance ?? 1, Math.max(NEAREST, metres))
  return `${loud.name} ${further}, up to ${decimal(level(before) - level(run.route.length), 0)} dB less at the chair`
}
