import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { forAll } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('job'),
  what: forAll(z.string().trim().min(1).max(120)).describe('The job: "build the project", "copy the rushes"'),
  figures: z.array(z.number().min(0).max(1e9)).min(1).max(60).describe('One figure a repeat'),
  unit: forAll(z.string().trim().min(1).max(20)).default('s'),
  moreIsBetter: z.literal(true).optional().describe('Frames or MB/s, not seconds'),
  against: z
    .strictObject({
      what: forAll(z.string().trim().min(1).max(80)).describe('The other side: "supplied lead, 0.8 m"'),
      figures: z.array(z.number().min(0).max(1e9)).min(1).max(60),
      length: z.number().min(0).max(1000).optional().describe('How long that way is, in metres'),
    })
    .optional()
    .describe('What it was held against, in turn'),
  cached: z.boolean().optional().describe('Its files had been read before'),
})

/** A real job, done once or more, as people time it. */
export const job = kindOf({
  schema,
  teach(learning, { at, what }) {
    learning.last = { at, words: what }
  },
  cannot: 'One run of a job proves little. Do it three times each way, in turn, with fresh files.',
  text: ({ what, figures, unit, against, cached, limit }) =>
    readingWords(
      what,
      `${listed(figures)} ${unit}${against ? `; ${against.what}: ${listed(against.figures)} ${unit}` : ''}${cached ? ', files read before' : ''}`,
      limit,
    ),
  saidBy: () => basisNames.measured,
})

const listed = (figures: readonly number[]): string => figures.map((figure) => decimal(figure, 2)).join(', ')
