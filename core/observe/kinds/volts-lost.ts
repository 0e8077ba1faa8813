import { z } from 'zod'
import { loopOhms } from '../../power/wire'
import { decimal } from '../../quantity/parsed'
import { basisNames } from '../basis'
import { everyReading } from '../every'
import { noteFigure } from '../learnt'
import { kindOf } from './kind'
import { readingWords } from './reading'

const schema = z.strictObject({
  ...everyReading,
  measure: z.literal('volts lost'),
  volts: z.number().min(0).max(50).describe('There and back'),
  amps: z.number().min(0).max(10),
})

/** The volts a lead lost at a current: its resistance, and with it what it loses at any current. */
export const voltsLost = kindOf({
  schema,
  teach(learning, seen) {
    const { at, volts, amps } = seen
    if (amps > 0) {
      const ohms = loopOhms(volts, amps)
      // of one moment the worse counts
      if (learning.ohms?.at !== at || learning.ohms.value < ohms) learning.ohms = { value: ohms, at }
    }
    noteFigure(learning, seen, 'volts lost', { volts, amps })
    learning.last = { at, words: `${decimal(volts, 2)} V at ${decimal(amps, 1)} A` }
  },
  cannot: 'It says nothing of what the lead carries as data or picture.',
  text: ({ volts, amps, limit }) =>
    readingWords('volts lost', `${decimal(volts, 2)} V at ${decimal(amps, 1)} A`, limit),
  saidBy: () => basisNames.measured,
})
