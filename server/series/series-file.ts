import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import type { Knex } from 'knex'
import { z } from 'zod'
import { briefOf, CHUNK_SAMPLES, COLUMNS, packChunk, type Sample, unpackChunk } from '../../core/series/chunk'
import { idField, instantField } from '../../core/vocabulary/fields'
import { columnTime } from '../sites/entity-rows'
import { appendChunk, MOST_SAMPLES, MOST_SERIES, type Series, samplesOf, seriesIn } from './series'

/** A series in an archive: a line that says what it is, then a line for each chunk. */
const headSchema = z.strictObject({
  format: z.literal('hallway-series'),
  version: z.literal(1),
  id: idField,
  run: idField,
  instrument: z.string().min(1).max(120),
  by: z.string().max(120),
  simulated: z.boolean(),
  began: instantField,
  heard: instantField,
  ended: instantField.nullable(),
  written: z.boolean(),
  rubbish: z.number().int().min(0).max(4e9),
})
type Head = z.output<typeof headSchema>

const figures = z.array(z.number().nullable()).max(CHUNK_SAMPLES)
const chunkSchema = z.strictObject({
  at: z.number().int().min(0).max(8e15),
  steps: z.array(z.number().int().min(-8e15).max(8e15)).max(CHUNK_SAMPLES - 1),
  drops: z.array(z.number().int().min(0)).max(CHUNK_SAMPLES),
  columns: z.partialRecord(z.enum(COLUMNS), figures),
})

/** A series as it travels. */
export type SeriesFile = { head: Head; chunks(): AsyncIterable<Sample[]> }

/** All series of a site, as lines of text, each read as it is asked for. */
export async function seriesFiles(knex: Knex, siteId: string): Promise<{ id: string; lines: () => Readable }[]> {
  return (await seriesIn(knex, siteId)).map((series) => ({
    id: series.id,
    lines: () => Readable.from(linesOf(knex, siteId, series)),
  }))
}

async function* linesOf(knex: Knex, siteId: string, { latest: _, samples: __, ...series }: Series) {
  const head: Head = { format: 'hallway-series', version: 1, ...series }
  yield `${JSON.stringify(head)}\n`
  for await (const samples of samplesOf(knex, siteId, series.id)) yield `${packChunk(samples)}\n`
}

/** A series as it came in an archive; null where it is none that Hallway would have written. */
export async function readSeriesFile(open: () => Promise<Readable>): Promise<SeriesFile | null> {
  let head: Head | null = null
  for await (const line of createInterface({ input: await open() })) {
    head = headOf(line)
    break
  }
  if (head === null) return null
  return {
    head,
    async *chunks() {
      let number = 0
      for await (const line of createInterface({ input: await open() })) {
        number += 1
        if (number === 1) continue
        const read = chunkSchema.safeParse(parsedLine(line))
        // what is behind a damaged line is left out, as it would stand in the wrong place
        if (!read.success) return
        yield unpackChunk(JSON.stringify(read.data))
      }
    },
  }
}

const headOf = (line: string): Head | null => {
  const read = headSchema.safeParse(parsedLine(line))
  return read.success ? read.data : null
}

function parsedLine(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return null
  }
}

/** Keeps a series that came with a site. False where the site keeps as much as it may. */
export async function bringSeries(trx: Knex, siteId: string, { head, chunks }: SeriesFile): Promise<boolean> {
  const [known] = await trx('series').where({ site_id: siteId }).count({ all: '*' }).sum({ samples: 'samples' })
  let left = MOST_SAMPLES - Number(known?.samples ?? 0)
  if (Number(known?.all ?? 0) >= MOST_SERIES) return false
  const { id, run, instrument, by, simulated, began, heard, ended, written, rubbish } = head
  await trx('series').insert({
    site_id: siteId,
    id,
    run,
    instrument,
    by_name: by,
    simulated,
    began: columnTime(began),
    heard: columnTime(heard),
    ended: columnTime(ended ?? heard),
    written,
    rubbish,
  })
  let number = 0
  let samples = 0
  let latest: Sample | undefined
  for await (const chunk of chunks()) {
    left -= chunk.length
    if (left < 0) return false
    await appendChunk(trx, { site_id: siteId, series: id, number }, chunk, briefOf(chunk))
    number += 1
    samples += chunk.length
    latest = chunk.at(-1)
  }
  await trx('series')
    .where({ site_id: siteId, id })
    .update({ samples, ...(latest ? { latest: JSON.stringify(latest) } : {}) })
  return true
}
