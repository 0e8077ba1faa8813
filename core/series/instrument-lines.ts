import { z } from 'zod'
import { fitLine } from '../quantity/line-fit'
import { decimal } from '../quantity/parsed'
import { spreadOf } from '../quantity/statistics'
import { LINK_MODES } from '../standards/link-modes'
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
  percent: figure(100).describe('How full the battery is'),
  delay: figure(1000).describe('ms that the path adds to sound'),
  headset: figure(1e5).describe('Mb/s by the headset’s own link test'),
  mode: z.enum(LINK_MODES).optional().describe('The link that came up'),
  picture: z.boolean().optional().describe('The picture shows'),
  drop: z.literal(true).optional(),
  event: z.enum(['began', 'came', 'went', 'changed']).optional().describe('As `./hallway probe --watch` tells it'),
  simulated: z.literal(true).optional(),
})
export type InstrumentLine = z.output<typeof instrumentLineSchema>

/** Longer lines are no reading. */
const LONGEST_LINE = 4096
/** What a server that sends events writes before each; its other lines say nothing of what was measured. */
const EVENT_DATA = /^data: ?/
const EVENT_OTHER = /^(?:event|id|retry)?:/

/** Whether there is nothing to read in a line: it is empty, or belongs to the frame of server-sent events. */
export const isFrame = (text: string): boolean => text.trim() === '' || EVENT_OTHER.test(text)

/** A line of an instrument, bare or as a server-sent event; null where it is none: rubbish is counted, and nothing is guessed. */
export function parseInstrumentLine(text: string): InstrumentLine | null {
  if (text.length > LONGEST_LINE) return null
  try {
    const read = instrumentLineSchema.safeParse(JSON.parse(text.replace(EVENT_DATA, '')))
    return read.success ? read.data : null
  } catch {
    return null
  }
}

/** Whether a line tells that the link went. */
export const isDrop = ({ drop, event }: InstrumentLine): boolean => drop === true || event === 'went'

/** Figures of which one middle is written down. */
const MEASURES = ['write', 'read', 'watts', 'celsius', 'delay', 'headset'] as const
type Measure = (typeof MEASURES)[number]
/** The tests of a run that take each figure. */
const testOf = {
  write: 'write',
  read: 'read',
  watts: 'watts',
  celsius: 'warmth',
  delay: 'added delay',
  headset: 'headset link',
} as const satisfies Record<Measure, string>

/** Readings that are held at once; of more every second one is let go, and from then on one in two is held, so that a flood costs nothing. */
const MOST_HELD = 20_000
/** Points of a line, and of a battery's course. */
const MOST_POINTS = 500

/** Readings of one figure, evenly spread over all that came. */
type Held = { points: [hours: number, value: number][]; came: number; every: number; least: number; most: number }
const noneHeld = (): Held => ({ points: [], came: 0, every: 1, least: Number.POSITIVE_INFINITY, most: 0 })

/** What an instrument has told so far. */
export type Gathered = {
  held: Record<Measure, Held>
  /** Volts lost at each current. */
  swept: [amps: number, volts: number][]
  /** Percent of a battery at each hour, evenly spread. */
  battery: { points: [hours: number, percent: number][]; came: number; every: number }
  /** The first instant that was told, from which hours count. */
  since: number | null
  modes: Set<NonNullable<InstrumentLine['mode']>>
  /** When it dropped (ms). */
  drops: number[]
  rubbish: number
  simulated: boolean
}

export const nothingGathered = (): Gathered => ({
  held: {
    write: noneHeld(),
    read: noneHeld(),
    watts: noneHeld(),
    celsius: noneHeld(),
    delay: noneHeld(),
    headset: noneHeld(),
  },
  swept: [],
  battery: { points: [], came: 0, every: 1 },
  since: null,
  modes: new Set(),
  drops: [],
  rubbish: 0,
  simulated: false,
})

/** Holds one in so many of what comes; where they become too many, half of them go. */
function holdEvenly<T>(into: { came: number; every: number }, list: T[], value: T, most: number): T[] {
  const held = into.came % into.every === 0
  into.came += 1
  if (!held) return list
  list.push(value)
  if (list.length <= most) return list
  into.every *= 2
  return list.filter((_, position) => position % 2 === 0)
}

/** Adds a line to what was gathered, with the instant it came at (ms) where it says none. */
export function gather(gathered: Gathered, line: InstrumentLine, came: number): void {
  const at = line.at === undefined ? came : Date.parse(line.at)
  gathered.since ??= at
  const hours = Math.max(0, at - gathered.since) / 3_600_000
  for (const measure of MEASURES) {
    const value = line[measure]
    if (value === undefined) continue
    const held = gathered.held[measure]
    held.least = Math.min(held.least, value)
    held.most = Math.max(held.most, value)
    held.points = holdEvenly(held, held.points, [hours, value], MOST_HELD)
  }
  if (line.volts !== undefined && line.amps !== undefined && gathered.swept.length < MOST_POINTS)
    gathered.swept.push([line.amps, line.volts])
  if (line.percent !== undefined) {
    const { battery } = gathered
    battery.points = holdEvenly(battery, battery.points, [hours, line.percent], MOST_POINTS / 4)
  }
  if (line.mode !== undefined) gathered.modes.add(line.mode)
  if (isDrop(line) && gathered.drops.length < MOST_POINTS) gathered.drops.push(at)
  gathered.simulated ||= line.simulated === true
}

/** How readings lay, for the observation that is kept of them: in the unit of the line, the slope by the hour. */
export const readingSpreadSchema = z.strictObject({
  count: z.number().int().min(1),
  least: z.number(),
  middle: z.number(),
  most: z.number(),
  slope: z.number().optional().describe('What an hour adds, by the line of least squares'),
  drops: z.array(instantField).max(500).optional().describe('When the link went meanwhile'),
})
export type ReadingSpread = z.output<typeof readingSpreadSchema>

/** What to write down of a run: the test it belongs to, the figure as somebody would type it, and how the readings lay. */
export type ToWrite = { test: string; value: string; note: string; spread?: ReadingSpread }

const pairs = (points: readonly [number, number][]): string =>
  points
    .slice(0, 200)
    .map(([at, value]) => `${decimal(at, 4)} ${decimal(value, 4)}`)
    .join(', ')

/**
 * One figure for each thing that was measured: the middle of all readings, the warmest of a plug; of volts lost and of a battery all points where there are
 * several; of a link the one mode that it kept.
 */
export function toWrite({ held, swept, battery, modes, drops }: Gathered): ToWrite[] {
  const dropped = drops.length > 0 ? { drops: drops.map((at) => new Date(at).toISOString()) } : {}
  const found = MEASURES.flatMap((measure): ToWrite[] => {
    const { points, came, least, most } = held[measure]
    const spread = spreadOf(points.map(([, value]) => value))
    if (!spread) return []
    const slope = fitLine(points)?.slope
    const value = measure === 'celsius' ? most : spread.median
    return [
      {
        test: testOf[measure],
        value: measure === 'headset' ? `${decimal(value, 1)} Mb/s` : decimal(value, 1),
        note: `${came} readings: ${decimal(least, 1)} to ${decimal(most, 1)}, middle ${decimal(spread.median, 1)}`,
        spread: {
          count: came,
          least,
          middle: spread.median,
          most,
          ...(slope === undefined || !Number.isFinite(slope) ? {} : { slope }),
          ...dropped,
        },
      },
    ]
  })
  if (fitLine(swept))
    found.push({ test: 'volts lost', value: pairs(swept), note: `${swept.length} readings swept over currents` })
  if (fitLine(battery.points))
    found.push({ test: 'battery', value: pairs(battery.points), note: `${battery.came} readings of the battery` })
  const [mode] = modes
  if (mode && modes.size === 1) found.push({ test: 'link', value: mode, note: 'it kept this mode' })
  return found
}
