import { z } from 'zod'
import { durationText } from '../../quantity/duration'
import { LINK_MODES, linkModeFacts } from '../../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../../standards/soak'
import { instantField } from '../../vocabulary/fields'
import { restsField } from '../../vocabulary/rests'
import { basisNames, IN_PLACE_SECONDS } from '../basis'
import { everyObservation } from '../every'
import { noteLink } from '../learnt'
import { kindOf } from './kind'

const schema = z.strictObject({
  ...everyObservation,
  kind: z.literal('trial'),
  basis: z.enum(['measured', 'soaked']),
  tried: z.enum(LINK_MODES),
  cameUp: z.enum(LINK_MODES).nullable(),
  seconds: z.number().int().min(0).max(10_000_000).optional().describe('How long it was watched'),
  drops: z.array(instantField).max(500).optional().describe('When it dropped, where each was noted'),
  rests: restsField,
})
export type TrialObservation = z.output<typeof schema>

/** What came up, in a few words: "USB 10 Gb/s (Gen 2), 60 s", "dropped, 75 s". */
export function cameUpText({
  basis,
  cameUp,
  seconds,
  drops,
}: Pick<TrialObservation, 'basis' | 'cameUp' | 'seconds' | 'drops'>): string {
  const watched = seconds ? `, ${durationText(seconds)}` : ''
  if (cameUp === null) return basis === 'soaked' ? `dropped${timesText(drops)}${watched}` : 'nothing came up'
  return `${linkModeFacts[cameUp].name}${watched}`
}

const timesText = (drops: readonly string[] | undefined): string =>
  drops && drops.length > 1 ? ` ${drops.length} times` : ''

/** What came up when a mode was tried, on a cable or a whole run. Null: nothing came up, or the link dropped. */
export const trial = kindOf({
  schema,
  teach(learning, seen) {
    const { at, basis, tried, cameUp, seconds } = seen
    const watched = seconds ?? (basis === 'soaked' ? SHORTEST_SOAK_SECONDS : undefined)
    const dropped = cameUp === null && basis === 'soaked'
    noteLink(learning, seen, { tried, cameUp, ...(dropped ? { dropped } : {}) }, watched)
    learning.last = { at, words: cameUpText(seen) }
  },
  cannot: 'It speaks of that socket. A look of less than 60 s proves nothing beyond the book.',
  text: (seen) => `tried ${linkModeFacts[seen.tried].name}: ${cameUpText(seen)}`,
  saidBy: ({ basis, subject, cameUp, seconds = 0 }) =>
    'run' in subject && cameUp !== null && seconds >= IN_PLACE_SECONDS ? 'proved in its place' : basisNames[basis],
})
