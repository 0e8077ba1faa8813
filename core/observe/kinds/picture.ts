import { z } from 'zod'
import { formatPictureMode } from '../../picture/mode-text'
import { streamRate } from '../../picture/timing'
import { pictureModeSchema } from '../../vocabulary/need'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { spotOf } from '../spot'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('picture'),
  mode: pictureModeSchema,
  held: z.boolean().describe('It was selectable, and stayed'),
})

const words = (held: boolean): string => (held ? 'held' : 'did not hold')

/** A picture that held, or did not: so many bits a second went over its pairs, or would not. */
export const picture = kindOf({
  schema,
  teach(learning, seen) {
    const { at, mode, held } = seen
    learning.pictures.push({ mode, rate: streamRate(mode), held, at, spot: spotOf(seen) })
    learning.last = { at, words: words(held) }
  },
  cannot: 'One that held says nothing of larger ones, and one that did not nothing of smaller ones.',
  text: ({ mode, held, limit }) => readingWords(`picture ${formatPictureMode(mode)}`, words(held), limit),
  saidBy: () => basisNames.measured,
})
