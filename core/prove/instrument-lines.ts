import { z } from 'zod'
import { fitLine } from '../quantity/line-fit'
import { decimal } from '../quantity/parsed'
import { spreadOf } from '../quantity/statistics'
import { instantField } from '../vocabulary/fields'

const figure = (most: number) => z.number().min(0).max(most).optional()

/** One line of an instrument: whatever it measured at a moment, or that something dropped. The open format of docs/instruments.md. */
export const instrumentLineSchema = z.object({
  at: instantField.optional(),
  write: figure(1e6).describe('MB/s'),
  read: figure(1e6).describe('MB/s'),
  watts: figure(240),
  volts: figure(50).describe('Lost there and back, at `amps`'),
  amps: figure(10),
  celsius: figure(200),
  drop: z.literal(true).optional(),
  event: z.enum(['began', 'came', 'went', 'changed']).optional().describe('As `./hallway probe --watch` tells it'),
  simulated: z.literal(true).optional(),
})
export type InstrumentLine = z.output<typeof instrumentLineSchema>

/** Longer lines are no reading. */
const LONGEST_LINE = 4096

/** A line of an instrument; null where it is none: rubbish is counted, and nothing is guessed. */
export function parseInstrumentLine(text: string): InstrumentLine | null {
  if (text.length > LONGEST_LINE) return null
  try {
    const read = instrumentLineSchema.safeParse(JSON.parse(text))
    return read.success ? read.data : null
  } catch {
    return null
  }
}

/** Whether a line tells that the link went. */
export const isDrop = ({ drop, event }: InstrumentLine): boolean => drop === true || event === 'went'

const MEASURES = ['write', 'read', 'watts', 'celsius'] as const
type Measure = (typeof MEASURES)[number]
/** The tests of a run that take each figure. */
const testOf: Record<Measure, string> = { write: 'write', read: 'read', watts: 'watts', celsius: 'warmth' }

/** Readings that are held at once; of more every second one is let go, so that a flood costs nothing. */
const MOST_HELD = 20_000

/** What an instrument has told so far. */
export type Gathered = {
  held: Record<Measure, number[]>
  /** Volts lost at each current. */
  swept: [amps: number, volts: number][]
  drops: number
  rubbish: number
  simulated: boolean
}

export const nothingGathered = (): Gathered => ({
  held: { write: [], read: [], watts: [], celsius: [] },
  swept: [],
  drops: 0,
  rubbish: 0,
  simulated: false,
})

/** Adds a line to what was gathered. */
export function gather(gathered: Gathered, line: InstrumentLine): void {
  for (const measure of MEASURES) {
    const value = line[measure]
    if (value === undefined) continue
    const list = gathered.held[measure]
    list.push(value)
    if (list.length > MOST_HELD) gathered.held[measure] = list.filter((_, at) => at % 2 === 0)
  }
  if (line.volts !== undefined && line.amps !== undefined && gathered.swept.length < 500)
    gathered.swept.push([line.amps, line.volts])
  if (isDrop(line)) gathered.drops += 1
  gathered.simulated ||= line.simulated === true
}

/** What to write down of a run: the test it belongs to, the figure as somebody would type it, and how the readings lay. */
export type ToWrite = { test: string; value: string; note: string }

/** One figure for each thing that was measured: the middle of all readings, the warmest of a plug, of volts lost all points where there are several. */
export function toWrite({ held, swept }: Gathered): ToWrite[] {
  const found = MEASURES.flatMap((measure): ToWrite[] => {
    const spread = spreadOf(held[measure])
    if (!spread) return []
    const value = measure === 'celsius' ? spread.most : spread.median
    return [
      {
        test: testOf[measure],
        value: decimal(value, 1),
        note: `${spread.count} readings: ${decimal(spread.least, 1)} to ${decimal(spread.most, 1)}, middle ${decimal(spread.median, 1)}`,
      },
    ]
  })
  if (fitLine(swept))
    found.push({
      test: 'volts lost',
      value: swept
        .slice(0, 200)
        .map(([amps, volts]) => `${decimal(amps, 3)} ${decimal(volts, 4)}`)
        .join(', '),
      note: `${swept.length} readings swept over currents`,
    })
  return found
}
