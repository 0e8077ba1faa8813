import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import type { Knex } from 'knex'
import {
  briefOf,
  CHUNK_SAMPLES,
  type ChunkBrief,
  packChunk,
  type Sample,
  sampleOf,
  unpackChunk,
} from '../../core/series/chunk'
import { type Gathered, gather, type InstrumentLine, nothingGathered } from '../../core/series/instrument-lines'
import { inTransaction } from '../database/transaction'
import { withRoom } from '../disk'
import { columnTime } from '../sites/entity-rows'

const pack = promisify(deflateRaw)
const unpack = promisify(inflateRaw)

/** One time that an instrument was put on a run. */
export type Series = {
  id: string
  run: string
  instrument: string
  by: string
  simulated: boolean
  began: string
  /** When it last told something. */
  heard: string
  ended: string | null
  /** Its figures were written down as observations. */
  written: boolean
  samples: number
  /** Lines that were no readings. */
  rubbish: number
  latest: Partial<Sample> | null
}

/** So much a site keeps: half a year of one instrument that reads every second. */
export const MOST_SAMPLES = 16_000_000
/** Series that a site keeps at once. */
export const MOST_SERIES = 2000
/** A chunk unpacks to no more, whoever packed it. */
const MOST_UNPACKED = 4_000_000

const instant = (text: unknown): string => new Date(`${String(text).replace(' ', 'T')}Z`).toISOString()

// biome-ignore lint/suspicious/noExplicitAny: a row is whatever its table holds
const seriesOfRow = (row: Record<string, any>): Series => ({
  id: row.id,
  run: row.run,
  instrument: row.instrument,
  by: row.by_name,
  simulated: Boolean(row.simulated),
  began: instant(row.began),
  heard: instant(row.heard),
  ended: row.ended ? instant(row.ended) : null,
  written: Boolean(row.written),
  samples: row.samples,
  rubbish: row.rubbish,
  latest: row.latest ?? null,
})

export const seriesOf = async (knex: Knex, siteId: string, id: string): Promise<Series | null> => {
  const row = await knex('series').where({ site_id: siteId, id }).first()
  return row ? seriesOfRow(row) : null
}

/** The series of a site, newest first; of one run where it is named. */
export async function seriesIn(knex: Knex, siteId: string, run?: string, most = MOST_SERIES): Promise<Series[]> {
  const rows = await knex('series')
    .where({ site_id: siteId, ...(run === undefined ? {} : { run }) })
    .orderBy('began', 'desc')
    .limit(most)
  return rows.map(seriesOfRow)
}

/** What an instrument sends at once. `from` says how many readings it has sent before: what is sent twice is kept once, and nothing is left out. */
export type Batch = {
  series: string
  run: string
  instrument: string
  by: string
  from: number
  lines: readonly InstrumentLine[]
  rubbish: number
}

export type Appended =
  /** `fresh` of its lines, the last ones, were not kept before. */
  | { outcome: 'kept'; samples: number; fresh: number }
  /** Something between was lost: send again from here. */
  | { outcome: 'gap'; samples: number }
  /** It is over: somebody ended it. */
  | { outcome: 'over'; samples: number }
  | { outcome: 'full' }
  | { outcome: 'other' }

/** Keeps what an instrument sent, behind what it sent before. Lines that say no instant came now. */
export const appendBatch = (knex: Knex, siteId: string, batch: Batch, now: Date): Promise<Appended> =>
  withRoom(() => append(knex, siteId, batch, now))

const append = (knex: Knex, siteId: string, batch: Batch, now: Date): Promise<Appended> =>
  inTransaction(knex, async (trx): Promise<Appended> => {
    const key = { site_id: siteId, id: batch.series }
    if (batch.from === 0 && !(await begin(trx, siteId, batch, now))) return { outcome: 'full' }
    const row = await trx('series').where(key).forUpdate().first()
    if (!row) return { outcome: 'gap', samples: 0 }
    if (row.run !== batch.run) return { outcome: 'other' }
    if (row.ended) return { outcome: 'over', samples: row.samples }
    if (batch.from > row.samples) return { outcome: 'gap', samples: row.samples }
    const fresh = batch.lines.slice(row.samples - batch.from)
    if (fresh.length > 0) {
      const [sum] = await trx('series').where({ site_id: siteId }).sum({ all: 'samples' })
      if (Number(sum?.all ?? 0) + fresh.length > MOST_SAMPLES) return { outcome: 'full' }
    }
    const samples = fresh.map((line) => sampleOf(line, now.getTime()))
    await appendChunks(trx, siteId, batch.series, row.samples, samples)
    const latest = samples.at(-1)
    const kept = row.samples + samples.length
    await trx('series')
      .where(key)
      .update({
        samples: kept,
        heard: columnTime(now.toISOString()),
        rubbish: row.rubbish + batch.rubbish,
        ...(fresh.some((line) => line.simulated) ? { simulated: true } : {}),
        ...(latest ? { latest: JSON.stringify(latest) } : {}),
      })
    return { outcome: 'kept', samples: kept, fresh: fresh.length }
  })

/** A series begins with its first batch. False where the site keeps as many as it may. */
async function begin(trx: Knex, siteId: string, { series, run, instrument, by }: Batch, now: Date): Promise<boolean> {
  const [others] = await trx('series').where({ site_id: siteId }).whereNot({ id: series }).count({ all: '*' })
  if (Number(others?.all ?? 0) >= MOST_SERIES) return false
  const at = columnTime(now.toISOString())
  await trx('series')
    .insert({ site_id: siteId, id: series, run, instrument, by_name: by, began: at, heard: at })
    .onConflict(['site_id', 'id'])
    .ignore()
  return true
}

/** Fills the last chunk and begins others. */
async function appendChunks(
  trx: Knex,
  siteId: string,
  series: string,
  before: number,
  samples: readonly Sample[],
): Promise<void> {
  let number = Math.floor(before / CHUNK_SAMPLES)
  let held = before % CHUNK_SAMPLES
  let at = 0
  while (at < samples.length) {
    const key = { site_id: siteId, series, number }
    const known = held > 0 ? await samplesOfRow(await trx('series_chunks').where(key).first('bytes')) : []
    const chunk = [...known, ...samples.slice(at, at + CHUNK_SAMPLES - known.length)]
    await appendChunk(trx, key, chunk, briefOf(chunk))
    at += chunk.length - known.length
    held = 0
    number += 1
  }
}

/** Writes a chunk, over itself where it was shorter. */
export async function appendChunk(
  trx: Knex,
  key: { site_id: string; series: string; number: number },
  samples: readonly Sample[],
  brief: ChunkBrief,
): Promise<void> {
  const row = { samples: samples.length, brief: JSON.stringify(brief), bytes: await pack(packChunk(samples)) }
  await trx('series_chunks')
    .insert({ ...key, ...row })
    .onConflict(['site_id', 'series', 'number'])
    .merge(row)
}

const samplesOfRow = async (row: { bytes: Buffer } | undefined): Promise<Sample[]> =>
  row ? unpackChunk((await unpack(row.bytes, { maxOutputLength: MOST_UNPACKED })).toString('utf8')) : []

/** All that a series holds in short, chunk by chunk. */
export async function briefsOf(knex: Knex, siteId: string, series: string): Promise<ChunkBrief[]> {
  const rows: { brief: ChunkBrief }[] = await knex('series_chunks')
    .where({ site_id: siteId, series })
    .orderBy('number')
    .select('brief')
  return rows.map(({ brief }) => brief)
}

/** The samples of a series in order, a chunk at a time, so that one of any size takes little room. */
export async function* samplesOf(knex: Knex, siteId: string, series: string): AsyncIterable<Sample[]> {
  for (let number = 0; ; number += 1) {
    const row = await knex('series_chunks').where({ site_id: siteId, series, number }).first('bytes')
    if (!row) return
    yield await samplesOfRow(row)
  }
}

/** What a whole series comes to, read chunk by chunk. */
export async function gatherSeries(knex: Knex, siteId: string, { id, simulated }: Series): Promise<Gathered> {
  const gathered = nothingGathered()
  for await (const samples of samplesOf(knex, siteId, id))
    for (const { at, drop, ...figures } of samples) gather(gathered, { ...figures, ...(drop ? { drop } : {}) }, at)
  gathered.simulated = simulated
  return gathered
}

/** Ends a series: nothing comes behind it. */
export const endSeries = (knex: Knex, siteId: string, id: string, now: Date): Promise<number> =>
  knex('series')
    .where({ site_id: siteId, id })
    .update({ ended: columnTime(now.toISOString()) })

/** Notes that the figures of a series were written down: it stays until somebody puts it away. */
export const markWritten = (knex: Knex, siteId: string, id: string): Promise<number> =>
  knex('series').where({ site_id: siteId, id }).update({ written: true })

/** Puts a series away with all its readings. The observation of it stays. */
export const putAway = (knex: Knex, siteId: string, id: string): Promise<number> =>
  knex('series').where({ site_id: siteId, id }).delete()

const UNWRITTEN_DAYS = 30

/** Lets go of the series that nobody wrote down and no instrument added to for a month; answers how many. */
export const sweepSeries = (knex: Knex, now = new Date()): Promise<number> =>
  knex('series')
    .where({ written: false })
    .where('heard', '<', columnTime(new Date(now.getTime() - UNWRITTEN_DAYS * 86_400_000).toISOString()))
    .delete()
