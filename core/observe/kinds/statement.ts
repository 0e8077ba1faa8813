import { z } from 'zod'
import { CABLE_GRADES, gradeFacts } from '../../standards/grades'
import { LINK_MODES, linkModeFacts } from '../../standards/link-modes'
import { ampsField, voltsField } from '../../vocabulary/cable'
import { forAll, nameField } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyObservation } from '../every'
import type { Learning, SaidBy } from '../learnt'
import { kindOf } from './kind'

/** Where a statement may come from, weakest first. */
export const STATEMENT_BASES = ['looks', 'told', 'listed', 'claimed', 'supplied', 'chip'] as const

const schema = z.strictObject({
  ...everyObservation,
  kind: z.literal('statement'),
  basis: z.enum(STATEMENT_BASES),
  from: nameField.optional().describe('Who said so: the maker, a seller, an expert'),
  grade: z.enum(CABLE_GRADES).nullable().optional(),
  amps: ampsField.nullable().optional(),
  volts: voltsField.nullable().optional(),
  counted: z
    .strictObject({
      mode: z.enum(LINK_MODES),
      held: z.number().int().min(0).max(1e6),
      tried: z.number().int().min(1).max(1e6),
    })
    .refine(({ held, tried }) => held <= tried, 'no more can have held than were tried')
    .optional()
    .describe('Of a kind: how many somebody else tried, and how many held'),
  words: z
    .array(forAll(z.string().regex(/^0x[0-9a-f]{8}$/)))
    .max(6)
    .optional()
    .describe('The words of a chip as they were read'),
})
export type Statement = z.output<typeof schema>

/** What a listing, a mark, a supplied pairing, a chip or somebody says of a cable. Null: it was looked for, and there is none. */
export const statement = kindOf({
  schema,
  teach(learning, seen) {
    hear(learning.grade, seen, seen.grade, (grade) => gradeFacts[grade].marked)
    hear(learning.amps, seen, seen.amps, (amps) => amps)
    hear(learning.volts, seen, seen.volts, (volts) => volts)
    if (seen.counted) learning.counted.push({ ...seen.counted, from: seen.from ?? null, at: seen.at })
    if (seen.basis === 'claimed' && seen.grade !== undefined) learning.unmarked = seen.grade === null
    if (seen.basis === 'chip') askedChip(learning, seen)
  },
  cannot: 'Nobody tried it: a stronger word, or anything that was measured, overrules it.',
  text: ({ basis, from, grade, amps, volts, counted }) => {
    if (basis === 'chip' && isNoChip({ grade, amps })) return 'no chip'
    const says = [
      grade === null ? 'unmarked' : grade && gradeFacts[grade].name,
      amps === undefined ? null : amps === null ? 'no power mark' : amps === 0 ? 'no power' : `${amps} A`,
      volts && `${volts} V`,
      counted && `${counted.held} of ${counted.tried} held ${linkModeFacts[counted.mode].name}`,
      from && `says ${from}`,
    ].filter(Boolean)
    return says.length > 0 ? says.join(', ') : 'says nothing of what it carries'
  },
  saidBy: ({ basis }) => basisNames[basis],
})

/** A chip was asked for, and nothing answered. */
const isNoChip = ({ grade, amps }: Pick<Statement, 'grade' | 'amps'>): boolean =>
  amps === null || (grade === null && amps === undefined)

function askedChip(learning: Learning, { at, grade, amps }: Statement): void {
  const none = isNoChip({ grade, amps })
  // of one moment the worse counts
  if (learning.chip?.at === at && learning.chip.none) return
  learning.chip = { at, none }
}

/** The latest of each basis; of one moment what promises less. */
function hear<T>(
  said: SaidBy<T>,
  { basis, at }: Statement,
  value: T | null | undefined,
  worth: (value: T) => number,
): void {
  if (value === undefined) return
  const before = said[basis]
  if (value === null) {
    delete said[basis]
    return
  }
  if (before?.at === at && worth(before.value) <= worth(value)) return
  said[basis] = { value, at }
}
