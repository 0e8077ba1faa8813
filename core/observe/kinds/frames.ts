import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const count = z.number().int().min(0).max(1e12)
const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('frames'),
  asked: count.describe('Frames that should have come'),
  came: count.describe('Frames that came'),
  gap: z.number().min(0).max(1e7).optional().describe('The longest gap in ms'),
  reaction: z.number().min(0).max(1e5).optional().describe('From hand to screen, in ms'),
})

/** Frames that a camera or a capture box was asked for, and those that came. */
export const frames = kindOf({
  schema,
  teach(learning, seen) {
    const { asked, came, gap, reaction } = seen
    const lost = Math.max(0, asked - came)
    noteFigure(learning, seen, 'frames', { asked, came, gap, reaction })
    learning.last = { at: seen.at, words: lost === 0 ? 'every frame came' : `${lost} frames lost` }
  },
  cannot: 'A slow computer loses frames as well. Try the same devices on the lead that came with them first.',
  text: ({ asked, came, gap, reaction, limit }) =>
    readingWords(
      'frames',
      [
        `${came} of ${asked}`,
        gap !== undefined && `longest gap ${decimal(gap, 0)} ms`,
        reaction !== undefined && `hand to screen ${decimal(reaction, 0)} ms`,
      ]
        .filter(Boolean)
        .join(', '),
      limit,
    ),
  saidBy: () => basisNames.measured,
})
