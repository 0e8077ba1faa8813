import { z } from 'zod'
import { formatBytesPerSecond } from '../../quantity/rate'
import { slowestModeFor } from '../../standards/link-modes'
import { rateField } from '../../vocabulary/fields'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure, noteLink } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const everyCopy = {
  ...everyReading,
  rate: rateField,
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it went on'),
}
const schemas = {
  write: z.strictObject({ ...everyCopy, measure: z.literal('write') }),
  read: z.strictObject({ ...everyCopy, measure: z.literal('read') }),
}

/** How fast files were copied over it: the least it does, and where the lead was the limit the most. Either way its pairs carried that much. */
const copied = <Way extends 'write' | 'read'>(way: Way) =>
  kindOf({
    schema: schemas[way],
    teach(learning, seen) {
      const { at, rate, seconds } = seen
      noteFigure(learning, seen, way, { rate, seconds })
      // its pairs carried that much: whatever carries it at least came up
      const [mode, oneLane] = [slowestModeFor(rate, 'any'), slowestModeFor(rate, 'one lane')]
      if (mode !== null)
        noteLink(learning, seen, { tried: mode, cameUp: mode, copied: { oneLane: oneLane ?? mode } }, seconds)
      learning.last = { at, words: formatBytesPerSecond(rate) }
    },
    cannot: 'A disk or a bridge that is slower than the lead hides what the lead could do.',
    text: ({ rate, limit }) => readingWords(way, formatBytesPerSecond(rate), limit),
    saidBy: () => basisNames.measured,
  })

export const write = copied('write')
export const read = copied('read')
