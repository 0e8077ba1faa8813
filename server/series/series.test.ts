import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import fc from 'fast-check'
import type { Knex } from 'knex'
import { afterAll, describe, expect, it } from 'vitest'
import type { InstrumentLine } from '../../core/series/instrument-lines'
import { toWrite } from '../../core/series/instrument-lines'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { cases } from '../../tests/support/laws'
import { backUp, restore } from '../backup/backup'
import { migrate } from '../database/migrate'
import { openArchive } from '../files/read-archive'
import { siteArchive } from '../files/write-archive'
import { importPlan } from '../sites/sites'
import {
  appendBatch,
  type Batch,
  briefsOf,
  endSeries,
  gatherSeries,
  MOST_SAMPLES,
  markWritten,
  putAway,
  samplesOf,
  seriesIn,
  seriesOf,
  sweepSeries,
} from './series'

const folder = mkdtempSync(join(tmpdir(), 'hallway-series-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const NOW = new Date('2026-11-29T12:00:00Z')
const batch = (from: number, lines: readonly InstrumentLine[], series = 's-1'): Batch => ({
  series,
  run: 'r-06',
  instrument: 'meter',
  by: 'a test',
  from,
  lines,
  rubbish: 0,
})
const watts = (count: number, first = 0): InstrumentLine[] =>
  Array.from({ length: count }, (_, at) => ({
    at: new Date(1e12 + (first + at) * 1000).toISOString(),
    watts: (first + at) % 240,
  }))

const allOf = async (knex: Knex, site: string, series = 's-1') => {
  const found: (number | undefined)[] = []
  for await (const samples of samplesOf(knex, site, series)) found.push(...samples.map((each) => each.watts))
  return found
}
const withSite = (work: (knex: Knex, site: string) => Promise<void>) =>
  withEmptyDatabase(async (knex) => {
    await migrate(knex)
    await work(knex, await importPlan(knex, { by: 'a test' }, demo))
  })

describe('readings of an instrument', () => {
  it('are kept once and in order, however they are cut, sent twice or sent ahead', () =>
    withSite(async (knex, site) => {
      let number = 0
      const cut = fc.array(
        fc.record({ size: fc.integer({ min: 0, max: 2500 }), again: fc.boolean(), ahead: fc.boolean() }),
        {
          minLength: 1,
          maxLength: 5,
        },
      )
      await fc.assert(
        fc.asyncProperty(cut, async (cuts) => {
          number += 1
          const series = `s-${number}`
          let sent = 0
          for (const { size, again, ahead } of cuts) {
            const part = batch(sent, watts(size, sent), series)
            if (ahead) {
              const early = await appendBatch(knex, site, { ...part, from: sent + 7 }, NOW)
              expect(early).toEqual({ outcome: 'gap', samples: sent })
            }
            expect(await appendBatch(knex, site, part, NOW)).toEqual({
              outcome: 'kept',
              samples: sent + size,
              fresh: size,
            })
            sent += size
            if (again)
              expect(await appendBatch(knex, site, part, NOW)).toEqual({ outcome: 'kept', samples: sent, fresh: 0 })
          }
          expect(await allOf(knex, site, series)).toEqual(watts(sent).map((line) => line.watts))
          const briefs = await briefsOf(knex, site, series)
          expect(briefs.reduce((sum, { columns }) => sum + (columns.watts?.count ?? 0), 0)).toBe(sent)
        }),
        { numRuns: cases(12) },
      )
    }))
  it('of several at once do not come between each other', () =>
    withSite(async (knex, site) => {
      const names = Array.from({ length: 8 }, (_, at) => `s-${at}`)
      for (let round = 0; round < 4; round += 1)
        await Promise.all(
          names.map((name) => appendBatch(knex, site, batch(round * 100, watts(100, round * 100), name), NOW)),
        )
      for (const name of names) expect(await allOf(knex, site, name)).toEqual(watts(400).map((line) => line.watts))
      expect(await seriesIn(knex, site, 'r-06')).toHaveLength(8)
      expect(await seriesIn(knex, site, 'r-01')).toEqual([])
    }))
  it('end once, belong to one run, and are no more than a site may keep', () =>
    withSite(async (knex, site) => {
      await appendBatch(knex, site, batch(0, watts(10)), NOW)
      expect(await appendBatch(knex, site, { ...batch(10, watts(1)), run: 'r-01' }, NOW)).toEqual({ outcome: 'other' })
      await endSeries(knex, site, 's-1', NOW)
      expect(await appendBatch(knex, site, batch(10, watts(1)), NOW)).toEqual({ outcome: 'over', samples: 10 })
      await knex('series').where({ id: 's-1' }).update({ samples: MOST_SAMPLES })
      expect(await appendBatch(knex, site, batch(0, watts(1), 's-2'), NOW)).toEqual({ outcome: 'full' })
    }))
  it('come to one figure each, however many there are', () =>
    withSite(async (knex, site) => {
      await appendBatch(knex, site, batch(0, watts(5000)), NOW)
      const series = await seriesOf(knex, site, 's-1')
      if (!series) throw new Error('it was kept')
      const [found] = toWrite(await gatherSeries(knex, site, series))
      expect(found).toMatchObject({ test: 'watts', spread: { count: 5000, least: 0, most: 239 } })
    }))
  it('travel in the archive and in the backup, and go with what puts them away', () =>
    withSite(async (knex, site) => {
      await appendBatch(knex, site, batch(0, watts(4000)), NOW)
      await appendBatch(knex, site, batch(0, [{ drop: true, simulated: true }], 's-2'), NOW)
      const file = join(folder, 'site.zip')
      await pipeline(await siteArchive(knex, site, demo), createWriteStream(file))
      const opened = await openArchive(file)
      if (!opened.ok) throw new Error(opened.problem)
      const again = await importPlan(knex, { by: 'a test' }, demo, opened.value)
      expect(opened.value.leftOut()).toBe(0)
      opened.value.close()
      expect(again).not.toBe(site)
      expect(await allOf(knex, again)).toEqual(await allOf(knex, site))
      expect(await seriesOf(knex, again, 's-2')).toMatchObject({ simulated: true, samples: 1, latest: { drop: true } })
      const backup = join(folder, 'series.gz')
      await backUp(knex, backup)
      await withEmptyDatabase(async (other) => {
        await migrate(other)
        await restore(other, backup)
        expect(await allOf(other, site)).toEqual(await allOf(knex, site))
      })
      expect(await putAway(knex, site, 's-1')).toBe(1)
      expect(await allOf(knex, site)).toEqual([])
      expect(await knex('series_chunks').where({ site_id: site, series: 's-1' })).toEqual([])
    }))
  it('that nobody wrote down go after a month, and no others', () =>
    withSite(async (knex, site) => {
      await appendBatch(knex, site, batch(0, watts(1)), NOW)
      await appendBatch(knex, site, batch(0, watts(1), 's-2'), NOW)
      await markWritten(knex, site, 's-2')
      const days = (count: number) => new Date(NOW.getTime() + count * 86_400_000)
      expect(await sweepSeries(knex, days(29))).toBe(0)
      expect(await sweepSeries(knex, days(31))).toBe(1)
      expect((await seriesIn(knex, site)).map(({ id }) => id)).toEqual(['s-2'])
    }))
})
