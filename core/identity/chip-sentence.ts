import { formatLength, type LengthUnit } from '../quantity/length'
import { gradeFacts } from '../standards/grades'
import type { ChipFacts } from './e-marker'

/** What a chip says of its cable, as a sentence: "A passive cable, USB4 40 Gb/s, 5 A, up to 50 V, up to 1 m long." */
export function chipSentence(
  { product, construction, grade, amps, volts, length }: ChipFacts,
  unit: LengthUnit = 'm',
): string {
  if (construction === null) return `It says it is ${product === 'not a cable' ? product : `a ${product}`}.`
  const { above = 0, upTo = null } = length ?? {}
  const long =
    length === null
      ? null
      : upTo === null
        ? `more than ${formatLength(above, unit)} long`
        : `${above > 0 ? `over ${formatLength(above, unit)} and ` : ''}up to ${formatLength(upTo, unit)} long`
  const parts = [
    `${construction === 'passive' ? 'A' : 'An'} ${construction} cable`,
    grade && gradeFacts[grade].name,
    amps === null ? 'says nothing of its current' : amps === 0 ? 'no power' : `${amps} A`,
    volts === 50 && 'up to 50 V',
    long,
  ]
  return `${parts.filter(Boolean).join(', ')}.`
}
