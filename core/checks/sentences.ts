import { formatLength, type LengthUnit } from '../quantity/length'
import type { About } from './check'
import { everyCheck, type Finding, type Reason } from './checks'

type Say = (figures: never, about: About) => string

const sayings: ReadonlyMap<string, Say> = new Map(
  everyCheck.flatMap(({ reasons }) => Object.entries(reasons).map(([code, { say }]): [string, Say] => [code, say])),
)

/** "The 3 m lead carries 20 Gb/s at most ...": why a finding says what it says, as one or two sentences. */
export function sentence({ reason, part, grade, have, need }: SaidOf, unit: LengthUnit = 'm'): string {
  const say = sayings.get(reason.code)
  if (!say) throw new Error(`no check says "${reason.code}"`)
  return say(reason as never, {
    label: part.label,
    grade,
    have: have ?? 0,
    need: need ?? 0,
    unit,
    metres: (length) => formatLength(length, unit),
  })
}

type SaidOf = Pick<Finding, 'part' | 'grade' | 'have' | 'need'> & { reason: Reason }
