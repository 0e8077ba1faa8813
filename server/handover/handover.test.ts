import { createWriteStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { setTimeout as wait } from 'node:timers/promises'
import fc from 'fast-check'
import type { Knex } from 'knex'
import { afterAll, describe, expect, it } from 'vitest'
import { handOver } from '../../core/change/changes/handovers'
import { UNDO_DAYS } from '../../core/change/undo-ends'
import type { Plan } from '../../core/plan/plan'
import { readPlanText } from '../../core/plan/read'
import { planText } from '../../core/plan/write'
import { handoverSchema } from '../../core/vocabulary/handover'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { cases } from '../../tests/support/laws'
import { edited, many } from '../../tests/support/made-up-walk'
import { printedBy } from '../../tests/support/reference-program'
import { backUp, restore } from '../backup/backup'
import { DATABASE_URL_VARIABLE } from '../database/connection'
import { migrate } from '../database/migrate'
import { openArchive } from '../files/read-archive'
import { siteArchive } from '../files/write-archive'
import { beginJob, type Job, jobAbout, stopJob, sweepJobs } from '../jobs/jobs'
import { changeSite } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { undoChange } from '../sites/history'
import { planAt } from '../sites/plan-at'
import { importPlan } from '../sites/sites'
import { ahead, leafOf, sinceThen } from './answers'
import { DOCUMENT_NAME, documentFrom } from './brought'
import { BOOK, documentOf, documentsOf, KEPT_PLAN, keepDocuments, sweepDocuments } from './documents'
import { CUT_OFF, makePack } from './make-pack'
import { packArchive } from './pack-archive'
import { newPages } from './pages'

const folder = mkdtempSync(join(tmpdir(), 'hallway-handover-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const hand = { by: 'a test' }
const csv = (rows: readonly (readonly string[])[]): string => rows.map((row) => row.join(';')).join('\n')

/** A site of its own, which whatever works over a connection of its own reaches as well. */
const withSite = (work: (knex: Knex, site: string) => Promise<void>) =>
  withEmptyDatabase(async (knex, url) => {
    await migrate(knex)
    const before = process.env[DATABASE_URL_VARIABLE]
    process.env[DATABASE_URL_VARIABLE] = url
    try {
      await work(knex, await importPlan(knex, hand, { ...demo, handovers: [] }))
    } finally {
      process.env[DATABASE_URL_VARIABLE] = before
    }
  })

const heldOf = async (knex: Knex, site: string) => {
  const held = await currentCopy(knex, site)
  if (!held) throw new Error('there is a site')
  return held
}

/** Hands the site over as it stands; answers the id of the handover and of its change. */
async function handed(knex: Knex, site: string, id = 'h-1') {
  const { identity } = await heldOf(knex, site)
  const outcome = await changeSite(knex, site, { ...hand, id: `change-${id}` }, ({ place }) =>
    handOver(
      handoverSchema.parse({
        id,
        name: 'Hall',
        client: 'x',
        at: '2026-11-01T10:00:00.000Z',
        log: identity,
        place,
        sections: ['runs'],
      }),
    ),
  )
  expect(outcome.outcome).toBe('saved')
  return { siteId: site, handover: id }
}
const rename = (knex: Knex, site: string, name: string) =>
  changeSite(knex, site, hand, ({ plan, place }) => ({
    what: { name: 'change device', about: [name] },
    edits: [
      {
        list: 'devices',
        id: plan.devices[0]?.id ?? '',
        base: place,
        value: { ...(plan.devices[0] as Plan['devices'][number]), name },
      },
    ],
  }))

describe('the plan at a place of the log', () => {
  it('is the plan as it was then, whatever was changed since, and nothing of another log or of a place that is not there', () =>
    withEmptyDatabase(async (knex) => {
      await migrate(knex)
      let number = 0
      await fc.assert(
        fc.asyncProperty(many, async (changes) => {
          number += 1
          const site = await importPlan(knex, hand, { ...demo, site: { ...demo.site, id: `walk-${number}` } })
          const were = new Map<number, string>()
          const note = async () => {
            const { copy } = await heldOf(knex, site)
            were.set(copy.place, planText(copy.plan))
          }
          await note()
          for (const choices of changes) {
            await changeSite(knex, site, hand, (copy) => ({
              what: { name: 'change run', about: ['x'] },
              edits: edited(copy, choices),
            }))
            await note()
          }
          const { identity, copy } = await heldOf(knex, site)
          for (const [place, text] of were) {
            const plan = await planAt(knex, site, identity, place)
            expect(plan && planText(plan)).toBe(text)
          }
          expect(await planAt(knex, site, 'another', 1)).toBeNull()
          expect(await planAt(knex, site, identity, copy.place + 1)).toBeNull()
          expect(await planAt(knex, site, identity, 0)).toBeNull()
        }),
        { numRuns: cases(12) },
      )
    }))
})

describe('what is made', () => {
  it('is kept with the handover, and what is changed later changes nothing of it, nor is it made of anything else again', () =>
    withSite(async (knex, site) => {
      const of = await handed(knex, site)
      const pages = newPages()
      await rename(knex, site, 'Renamed before it was made')
      expect(await makePack({ ...of, siteId: site, address: 'http://x', pages }, csv)).toBeNull()
      expect(pages[0]).toBeGreaterThan(3)
      const names = (await documentsOf(knex, of)).map(({ name }) => name)
      expect(names).toEqual(expect.arrayContaining(['book.pdf', 'plan.json', 'tables/runs.csv', 'drawings/ground.svg']))
      const kept = (await documentOf(knex, of, KEPT_PLAN))?.bytes.toString('utf8') ?? ''
      const read = readPlanText(kept)
      expect(read.ok && read.plan.devices[0]?.name).toBe(demo.devices[0]?.name)
      const book = (await documentOf(knex, of, BOOK))?.bytes ?? Buffer.from('')
      // the log may be gone by then
      await knex('changes').where({ site_id: site, place: 2 }).update({ name: 'undo' })
      await knex('sites').where({ id: site }).update({ identity: 'another-log' })
      expect(await makePack({ ...of, siteId: site, address: 'http://x', pages }, csv)).toBeNull()
      expect((await documentOf(knex, of, KEPT_PLAN))?.bytes.toString('utf8')).toBe(kept)
      expect((await documentOf(knex, of, BOOK))?.bytes.equals(book)).toBe(true)
    }))
  it('cannot be made where the log has been cut off and no plan was kept; one that was undone is not there', () =>
    withSite(async (knex, site) => {
      const of = await handed(knex, site)
      const request = { ...of, siteId: site, address: 'http://x', pages: newPages() }
      await knex('sites').where({ id: site }).update({ identity: 'another-log' })
      expect(await makePack(request, csv)).toBe(CUT_OFF)
      expect(await sinceThen({ siteId: site, handover: 'h-1' })).toEqual({ ok: false, problem: CUT_OFF })
      expect(await makePack({ ...request, handover: 'none' }, csv)).toMatch(/not there any more/)
    }))
  it('comes as one archive, travels with the archive of the site and with a backup, byte for byte', () =>
    withSite(async (knex, site) => {
      const of = await handed(knex, site)
      const made = [
        { name: 'plan.json', type: 'application/json', bytes: Buffer.from(planText(demo)) },
        { name: 'book.pdf', type: 'application/pdf', bytes: Buffer.alloc(2_500_001, 7) },
        { name: 'tables/runs.csv', type: 'text/csv; charset=utf-8', bytes: Buffer.from('a;b') },
      ]
      await keepDocuments(knex, of, made, '2026-11-01T10:00:00.000Z')
      const archive = await packArchive(knex, of)
      const pack = join(folder, 'pack.zip')
      writeFileSync(pack, archive ? await buffer(archive) : '')
      expect(printedBy('unzip', 'unzip', ['-t', pack])).toContain('No errors detected')
      const path = join(folder, 'site.zip')
      const { plan } = (await heldOf(knex, site)).copy
      await pipeline(await siteArchive(knex, site, plan), createWriteStream(path))
      const opened = await openArchive(path)
      if (!opened.ok) throw new Error(opened.problem)
      const again = readPlanText(opened.value.plan)
      if (!again.ok) throw new Error('the plan reads back')
      const other = await importPlan(knex, hand, again.plan, opened.value)
      opened.value.close()
      for (const { name, bytes } of made)
        expect((await documentOf(knex, { siteId: other, handover: 'h-1' }, name))?.bytes.equals(bytes)).toBe(true)
      const file = join(folder, 'backup.gz')
      await backUp(knex, file)
      await withEmptyDatabase(async (fresh) => {
        await migrate(fresh)
        await restore(fresh, file)
        for (const { name, bytes } of made) expect((await documentOf(fresh, of, name))?.bytes.equals(bytes)).toBe(true)
        expect((await documentsOf(fresh, of)).map(({ name }) => name)).toHaveLength(3)
      })
    }))
  it('goes with a handover that was undone, once no undo brings it back', () =>
    withSite(async (knex, site) => {
      const of = await handed(knex, site)
      await keepDocuments(
        knex,
        of,
        [{ name: 'book.pdf', type: 'application/pdf', bytes: Buffer.from('x') }],
        new Date().toISOString(),
      )
      const later = new Date(Date.now() + (UNDO_DAYS + 2) * 86_400_000)
      expect(await sweepDocuments(knex, later)).toBe(0)
      expect((await undoChange(knex, site, hand, 'change-h-1')).outcome).toBe('saved')
      expect(await sweepDocuments(knex)).toBe(0)
      expect(await sweepDocuments(knex, later)).toBe(1)
    }))
  it('is taken from an archive by the names that Hallway gives, and by no other', () => {
    for (const good of ['handovers/h-1/book.pdf', 'handovers/h-1/plan.json', 'handovers/h-1/drawings/g.svg'])
      expect(documentFrom(good, Buffer.from(''))).not.toBeNull()
    for (const bad of [
      'handovers/h-1/x.html',
      'handovers/../book.pdf',
      'handovers/h-1/tables/../x.csv',
      'handovers/h-1/tables/a/b.csv',
      'x/handovers/h-1/book.pdf',
    ])
      expect(DOCUMENT_NAME.test(bad)).toBe(false)
  })
})

describe('what pages ask of it', () => {
  it('is answered from what was handed over: what has changed, the book a leaf at a time, and what a change would break', () =>
    withSite(async (knex, site) => {
      const of = await handed(knex, site)
      await rename(knex, site, 'Another name')
      const since = await sinceThen({ siteId: site, handover: 'h-1' })
      expect(since.ok && since.value.since.map(({ name }) => name)).toEqual(['devices'])
      const asked = { ...of, siteId: site }
      const leaf = await leafOf({ ...asked, part: null, from: 0 })
      expect(leaf.ok && leaf.value.blocks[0]).toMatchObject({ sort: 'section', id: 'runs' })
      expect(leaf.ok && leaf.value.next).toBeNull()
      const beyond = await leafOf({ ...asked, part: 'runs', from: 100_000 })
      expect(beyond.ok && beyond.value.blocks).toEqual([])
      const answer = await ahead({ ...asked, growth: { what: 'power', watts: 1 } })
      expect(answer.ok && answer.value.fallen).toEqual([])
      expect((await heldOf(knex, site)).copy.place).toBe(3)
    }))
})

describe('a long job', () => {
  const until = async (knex: Knex, is: (job: Job | null) => boolean): Promise<Job | null> => {
    for (let tries = 0; tries < 1000; tries += 1) {
      const job = await jobAbout(knex, 'saltmarsh', 'h-1')
      if (is(job)) return job
      await wait(50)
    }
    throw new Error('it did not come to that')
  }
  const about = { siteId: 'saltmarsh', about: 'h-1', by: 'Marit' }
  it('tells how far it is, is one however often it is asked for, and ends in words', () =>
    withSite(async (knex) => {
      let release = () => {}
      const gate = new Promise<void>((done) => {
        release = done
      })
      const first = await beginJob(knex, about, async ({ pages }) => {
        pages(12)
        await gate
        return 'It went wrong.'
      })
      const all = await Promise.all(Array.from({ length: 20 }, () => beginJob(knex, about, async () => null)))
      expect(new Set(all.map(({ id }) => id))).toEqual(new Set([first.id]))
      expect(await until(knex, (job) => job?.pages === 12)).toMatchObject({ state: 'works', by: 'Marit' })
      release()
      expect(await until(knex, (job) => job?.state !== 'works')).toMatchObject({
        state: 'failed',
        problem: 'It went wrong.',
      })
      await beginJob(knex, about, async () => null)
      expect(await until(knex, (job) => job?.state === 'done')).toMatchObject({ problem: null })
      expect(await sweepJobs(knex)).toBe(0)
      expect(await sweepJobs(knex, new Date(Date.now() + 31 * 86_400_000))).toBe(2)
    }))
  it('is stopped by whoever asks, from any process, and one whose process is gone is lost', () =>
    withSite(async (knex) => {
      await beginJob(
        knex,
        about,
        ({ stopped }) => new Promise((done) => stopped.addEventListener('abort', () => done(null))),
      )
      expect(await stopJob(knex, 'saltmarsh', 'h-1')).toBe(1)
      await until(knex, (job) => job?.state === 'stopped')
      expect(await stopJob(knex, 'saltmarsh', 'h-1')).toBe(0)
      const long = '2026-01-01 00:00:00'
      await knex('jobs').insert({
        id: 'j-old',
        site_id: 'saltmarsh',
        about: 'h-2',
        state: 'works',
        by_name: 'x',
        began: long,
        beat: long,
      })
      expect(await jobAbout(knex, 'saltmarsh', 'h-2')).toMatchObject({ state: 'lost' })
      const thrown = await beginJob(knex, { ...about, about: 'h-1' }, () => Promise.reject(new Error('a fault')))
      expect(thrown.state).toBe('works')
      expect(await until(knex, (job) => job?.state === 'failed')).toMatchObject({
        problem: expect.stringContaining('Try again'),
      })
    }))
})
