import { z } from 'zod'
import { decimal } from '../../quantity/parsed'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

export const WARMTHS = ['cool', 'warm', 'hot'] as const
export type Warmth = (typeof WARMTHS)[number]

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('warmth'),
  felt: z.enum(WARMTHS),
  celsius: z.number().min(-40).max(200).optional(),
})

const words = ({ felt, celsius }: Pick<z.output<typeof schema>, 'felt' | 'celsius'>): string =>
  celsius === undefined ? felt : `${felt}, ${decimal(celsius, 0)} °C`

/** How warm a plug or a box in the lead got. One that got hot is never used again until somebody takes that back. */
export const warmth = kindOf({
  schema,
  teach(learning, seen) {
    const { at, felt, celsius, circumstances } = seen
    const strangeSupply = circumstances?.strangeSupply === true
    if (felt === 'hot') learning.hot = { at, strangeSupply: strangeSupply && learning.hot?.strangeSupply !== false }
    noteFigure(learning, seen, 'warmth', { felt, celsius })
    learning.last = { at, words: words(seen) }
  },
  cannot: 'A plug that stayed cool once may get hot on a stronger charger.',
  text: (seen) => readingWords('warmth', words(seen), seen.limit),
  saidBy: () => basisNames.measured,
})
