import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { forAll } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z
  .strictObject({
    ...everyReading,
    measure: z.literal('job'),
    what: forAll(z.string().trim().min(1).max(120)).describe('The job: "build the project", "copy the rushes"'),
    figures: z.array(z.number().min(0).max(1e9)).max(60).describe('One figure a repeat that got through'),
    brokeOff: z.number().int().min(1).max(60).optional().describe('How many repeats broke off'),
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
  .refine(({ figures, brokeOff = 0 }) => figures.length + brokeOff > 0, 'a job got through or broke off')

/** A real job, done once or more, as people time it; a repeat that broke off has no figure. */
export const job = kindOf({
  schema,
  teach(learning, seen) {
    const { at, what, figures, brokeOff = 0 } = seen
    for (const _ of figures) noteFigure(learning, seen, 'job', { what, done: true })
    for (let times = 0; times < brokeOff; times += 1) noteFigure(learning, seen, 'job', { what, done: false })
    learning.last = { at, words: what }
  },
  cannot: 'One run of a job proves little. Do it three times each way, in turn, with fresh files.',
  text: ({ what, figures, brokeOff = 0, unit, against, cached, limit }) =>
    readingWords(
      what,
      `${[...(figures.length > 0 ? [`${listed(figures)} ${unit}`] : []), ...brokeOffText(brokeOff)].join(', ')}${against ? `; ${against.what}: ${listed(against.figures)} ${unit}` : ''}${cached ? ', files read before' : ''}`,
      limit,
    ),
  saidBy: () => basisNames.measured,
})

/** How often it broke off, in words; nothing where it never did. */
export const brokeOffText = (times: number): string[] =>
  times === 0 ? [] : [times === 1 ? 'broke off once' : `broke off ${times} times`]

const listed = (figures: readonly number[]): string => figures.map((figure) => decimal(figure, 2)).join(', ')
