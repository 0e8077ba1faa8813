import type { InstrumentLine } from './instrument-lines'
import { isDrop } from './instrument-lines'

/** What a series keeps of each line, beside its instant and whether it dropped. */
export const COLUMNS = ['write', 'read', 'watts', 'celsius', 'volts', 'amps', 'percent', 'delay', 'headset'] as const
export type Column = (typeof COLUMNS)[number]

export const columnUnits: Record<Column, string> = {
  write: 'MB/s',
  read: 'MB/s',
  watts: 'W',
  celsius: '°C',
  volts: 'V',
  amps: 'A',
  percent: '%',
  delay: 'ms',
  headset: 'Mb/s',
}

export const columnNames: Record<Column, string> = {
  write: 'Write',
  read: 'Read',
  watts: 'Watts that arrived',
  celsius: 'Warmer plug',
  volts: 'Volts lost',
  amps: 'Current',
  percent: 'Battery',
  delay: 'Delay it adds',
  headset: 'Headset link',
}

/** One moment of a series: when (ms), what was read, and whether the link dropped. */
export type Sample = { at: number; drop: boolean } & Partial<Record<Column, number>>

/** A line as a series keeps it. */
export function sampleOf(line: InstrumentLine, came: number): Sample {
  const sample: Sample = { at: line.at === undefined ? came : Date.parse(line.at), drop: isDrop(line) }
  for (const column of COLUMNS) {
    const value = line[column]
    if (value !== undefined) sample[column] = value
  }
  return sample
}

/** Samples of one chunk: an hour of one a second. */
export const CHUNK_SAMPLES = 3600

/** How the figures of a column lay in a chunk. */
export type ColumnBrief = { count: number; least: number; most: number; sum: number }
/** What a chunk holds, in short: what a chart of a long series is drawn from. */
export type ChunkBrief = { from: number; to: number; drops: number; columns: Partial<Record<Column, ColumnBrief>> }

/**
 * A chunk as it is stored, before it is compressed: instants as the steps between them, which are nearly all alike, and one list a column. JSON, so that whoever
 * finds the database in ten years can read it.
 */
type Packed = { at: number; steps: number[]; drops: number[]; columns: Partial<Record<Column, (number | null)[]>> }

export function packChunk(samples: readonly Sample[]): string {
  const packed: Packed = { at: samples[0]?.at ?? 0, steps: [], drops: [], columns: {} }
  for (const [position, sample] of samples.entries()) {
    if (position > 0) packed.steps.push(sample.at - (samples[position - 1]?.at ?? 0))
    if (sample.drop) packed.drops.push(position)
  }
  for (const column of COLUMNS)
    if (samples.some((sample) => sample[column] !== undefined))
      packed.columns[column] = samples.map((sample) => sample[column] ?? null)
  return JSON.stringify(packed)
}

/** The samples of a chunk that `packChunk` made. */
export function unpackChunk(text: string): Sample[] {
  const { at, steps, drops, columns } = JSON.parse(text) as Packed
  const dropped = new Set(drops)
  let now = at
  return [0, ...steps].map((step, position) => {
    now += step
    const sample: Sample = { at: now, drop: dropped.has(position) }
    for (const column of COLUMNS) {
      const value = columns[column]?.[position]
      if (value !== undefined && value !== null) sample[column] = value
    }
    return sample
  })
}

export function briefOf(samples: readonly Sample[]): ChunkBrief {
  const brief: ChunkBrief = { from: samples[0]?.at ?? 0, to: samples.at(-1)?.at ?? 0, drops: 0, columns: {} }
  for (const sample of samples) {
    brief.from = Math.min(brief.from, sample.at)
    brief.to = Math.max(brief.to, sample.at)
    if (sample.drop) brief.drops += 1
    for (const column of COLUMNS) {
      const value = sample[column]
      if (value === undefined) continue
      const known = brief.columns[column]
      if (known === undefined) brief.columns[column] = { count: 1, least: value, most: value, sum: value }
      else {
        known.count += 1
        known.least = Math.min(known.least, value)
        known.most = Math.max(known.most, value)
        known.sum += value
      }
    }
  }
  return brief
}

/** One step of a chart: how a figure lay in a stretch of time. */
export type Stretch = { at: number; count: number; least: number; mean: number; most: number }

/** Longer charts show no more to the eye. */
const MOST_STRETCHES = 400

/** The course of one column, from what the chunks say of it in short; of a series that fits in a few chunks, from its samples. */
export function courseOf(column: Column, of: readonly ChunkBrief[] | readonly Sample[]): Stretch[] {
  const stretches = of.flatMap((each): Stretch[] => {
    if (!('columns' in each)) {
      const value = each[column]
      return value === undefined ? [] : [{ at: each.at, count: 1, least: value, mean: value, most: value }]
    }
    const brief = each.columns[column]
    if (!brief) return []
    const { count, least, most, sum } = brief
    return [{ at: each.from, count, least, mean: sum / count, most }]
  })
  const together = Math.ceil(stretches.length / MOST_STRETCHES)
  if (together <= 1) return stretches
  const found: Stretch[] = []
  for (let from = 0; from < stretches.length; from += together)
    found.push(joined(stretches.slice(from, from + together)))
  return found
}

function joined(stretches: readonly Stretch[]): Stretch {
  const count = stretches.reduce((sum, each) => sum + each.count, 0)
  return {
    at: stretches[0]?.at ?? 0,
    count,
    least: Math.min(...stretches.map(({ least }) => least)),
    mean: stretches.reduce((sum, each) => sum + each.mean * each.count, 0) / count,
    most: Math.max(...stretches.map(({ most }) => most)),
  }
}
