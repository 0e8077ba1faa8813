import { z } from 'zod'
import { forAll } from './fields'

/** Facts that are named with something that was proved; those beyond are told by their digest. */
export const MOST_FACTS = 24
/** A longer fact is told by its digest. */
export const LONGEST_FACT = 400

/**
 * What something that was proved rests on, as named facts: the ends, what their ports say, the leads, what is asked, what is beside it, what is installed.
 * Worked out when it is written down, so that it still says so when the plan has changed.
 */
export const restsSchema = z
  .record(
    forAll(z.string().regex(/^[a-z][a-z0-9 ._-]{0,79}$/i, 'a fact is named in 1 to 80 plain letters')),
    forAll(z.string().max(LONGEST_FACT)),
  )
  .refine((facts) => Object.keys(facts).length <= MOST_FACTS, `it rests on at most ${MOST_FACTS} named facts`)
export type Rests = z.output<typeof restsSchema>

/** The field of what was proved. Left out: it was written down before Hallway noted what it rests on. */
export const restsField = restsSchema.optional().describe('What it rests on, as named facts')

/** Two of one text are one. */
export const restsText = (rests: Rests): string =>
  JSON.stringify(Object.entries(rests).sort(([one], [other]) => (one < other ? -1 : 1)))
