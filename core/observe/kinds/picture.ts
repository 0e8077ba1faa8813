import { z } from 'zod'
import { formatPictureMode } from '../../picture/mode-text'
import { streamRate } from '../../picture/timing'
import { durationText } from '../../quantity/duration'
import { instantField } from '../../vocabulary/fields'
import { pictureModeSchema } from '../../vocabulary/need'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { notePicture } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('picture'),
  mode: pictureModeSchema,
  held: z.boolean().describe('It was selectable, and stayed'),
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it was watched'),
  drops: z.array(instantField).max(500).optional().describe('When it went black, where each was noted'),
})

const words = ({ held, seconds }: Pick<z.output<typeof schema>, 'held' | 'seconds'>): string =>
  `${held ? 'held' : 'did not hold'}${seconds ? `, ${durationText(seconds)}` : ''}`

/** A picture that held, or did not: so many bits a second went over its pairs, or would not. */
export const picture = kindOf({
  schema,
  teach(learning, seen) {
    const { at, mode, held, seconds } = seen
    // what stayed black from the first was watched for no time
    const dropped = !held && (seconds ?? 0) > 0
    notePicture(learning, seen, { mode, rate: streamRate(mode), held, ...(dropped ? { dropped } : {}) }, seconds)
    learning.last = { at, words: words(seen) }
  },
  cannot: 'One that held says nothing of larger ones, and one that did not nothing of smaller ones.',
  text: (seen) => readingWords(`picture ${formatPictureMode(seen.mode)}`, words(seen), seen.limit),
  saidBy: () => basisNames.measured,
})
