import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import type { Knex } from 'knex'
import sharp from 'sharp'
import { afterAll, describe, expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import { UNDO_CHANGES, UNDO_DAYS } from '../../core/change/undo-ends'
import type { KeptImage } from '../../core/files/file-types'
import { planText } from '../../core/plan/write'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { backUp, restore } from '../backup/backup'
import { migrate } from '../database/migrate'
import { changeSite } from '../sites/change-site'
import { undoChange } from '../sites/history'
import { importPlan } from '../sites/sites'
import { fileId, fileOf, filesSize, keepFiles, sweepFiles } from './files'
import { readImage } from './image'
import { openArchive } from './read-archive'
import { siteArchive } from './write-archive'

async function picture(background: string) {
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background } })
    .png()
    .toBuffer()
  const read = await readImage(new Uint8Array(png), 'photo')
  if (!read.ok) throw new Error(read.problem)
  return read.value
}

const folder = mkdtempSync(join(tmpdir(), 'hallway-files-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
let number = 0
function written(bytes: Uint8Array): string {
  const path = join(folder, `${++number}.zip`)
  writeFileSync(path, bytes)
  return path
}
async function openedOf(bytes: Uint8Array) {
  const opened = await openArchive(written(bytes))
  if (!opened.ok) throw new Error(opened.problem)
  const names: string[] = []
  for await (const file of opened.value.files()) names.push(fileId(file.bytes))
  opened.value.close()
  return { plan: opened.value.plan, names, leftOut: opened.value.leftOut() }
}

it('a site leaves with the files it names and comes back with them; a file is kept once', async () => {
  await withEmptyDatabase(async (knex) => {
    await migrate(knex)
    const [drawing, photo, other] = [await picture('#111'), await picture('#222'), await picture('#333')]
    const [ground] = demo.floors
    if (!ground?.drawing) throw new Error('the demo has a drawing')
    const plan = {
      ...demo,
      floors: [{ ...ground, drawing: { ...ground.drawing, file: fileId(drawing.bytes) } }, ...demo.floors.slice(1)],
      places: demo.places.map((place, at) =>
        at === 0 ? { ...place, photos: [{ file: fileId(photo.bytes) }] } : place,
      ),
    }
    const id = await importPlan(knex, { by: 'a test' }, plan, { files: () => [drawing, photo, photo, other] })
    // what no floor and no place names belongs to nothing
    expect(await knex('files').where({ site_id: id })).toHaveLength(2)
    expect(await keepFiles(knex, id, [photo])).toBe(true)
    expect(await knex('files').where({ site_id: id })).toHaveLength(2)

    const opened = await openedOf(await buffer(await siteArchive(knex, id, plan)))
    expect(opened.plan).toBe(planText(plan))
    expect(opened.names.sort()).toEqual([fileId(drawing.bytes), fileId(photo.bytes)].sort())
    expect(opened.leftOut).toBe(0)
    expect((await fileOf(knex, id, fileId(photo.bytes)))?.bytes.equals(Buffer.from(photo.bytes))).toBe(true)
    expect(await fileOf(knex, 'another', fileId(photo.bytes))).toBeNull()

    // and a backup carries them, byte by byte
    await backUp(knex, join(folder, 'backup.gz'))
    await withEmptyDatabase(async (other) => {
      await migrate(other)
      await restore(other, join(folder, 'backup.gz'))
      expect((await fileOf(other, id, fileId(drawing.bytes)))?.bytes.equals(Buffer.from(drawing.bytes))).toBe(true)
      expect(await other('files').where({ site_id: id })).toHaveLength(2)
    })
  })
})

it('an archive that somebody tampered with brings only what Hallway would have kept', async () => {
  const good = await picture('#444')
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from('{}'), 'plan.json')
  zip.addBuffer(Buffer.from(good.bytes), `files/${fileId(good.bytes)}.webp`)
  zip.addBuffer(Buffer.from(good.bytes), `files/${'0'.repeat(64)}.webp`)
  const script = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>')
  zip.addBuffer(Buffer.from(script), `files/${fileId(script)}.svg`)
  zip.addBuffer(Buffer.from('x'), 'run-me.sh')
  zip.end()
  const opened = await openedOf(await buffer(zip.outputStream as never))
  expect(opened).toEqual({ plan: '{}', names: [fileId(good.bytes)], leftOut: 3 })
  expect(await openArchive(written(Buffer.from('PK nothing')))).toMatchObject({ ok: false })
  const empty = new ZipFile()
  empty.addBuffer(Buffer.from('x'), 'other.txt')
  empty.end()
  expect(await openArchive(written(await buffer(empty.outputStream as never)))).toMatchObject({
    ok: false,
    problem: expect.stringContaining('no plan.json'),
  })
})

describe('a file belongs to a change or it is gone', () => {
  const place = demo.places[0]
  if (!place) throw new Error('the demo has places')
  /** Shows the place in this picture alone, or in none. */
  const show = (knex: Knex, site: string, photo: KeptImage | null, over: { id?: string; fit?: boolean } = {}) =>
    changeSite(knex, site, { by: 'Ada', ...(over.id ? { id: over.id } : {}) }, ({ plan, place: base }) => {
      const { photos: _, ...rest } = plan.places.find(({ id }) => id === place.id) ?? place
      const value = photo ? { ...rest, photos: [{ file: fileId(photo.bytes) }] } : rest
      return {
        what: { name: 'change place', about: [place.name] },
        edits: [{ list: 'places', id: place.id, base, value: over.fit === false ? { ...value, name: '' } : value }],
        ...(photo ? { files: [photo] } : {}),
      }
    })
  const kept = async (knex: Knex, site: string) =>
    (await knex('files').where({ site_id: site }).orderBy('id').select('id')).map(({ id }) => id)
  const idOf = (outcome: Awaited<ReturnType<typeof show>>) => (outcome.outcome === 'saved' ? (outcome.id ?? '') : '')

  it('what a refused change brought is not kept; what was replaced is, for as long as undo can bring it back', async () => {
    await withEmptyDatabase(async (knex) => {
      await migrate(knex)
      const [one, two] = [await picture('#555'), await picture('#666')]
      const site = await importPlan(knex, { by: 'a test' }, demo)
      expect((await show(knex, site, one, { fit: false })).outcome).toBe('refused')
      expect(await kept(knex, site)).toEqual([])

      await show(knex, site, one)
      const replaced = await show(knex, site, two)
      expect(await kept(knex, site)).toEqual([fileId(one.bytes), fileId(two.bytes)].sort())
      expect(await sweepFiles(knex)).toBe(0)
      // undone, the first is named again, and the second is the one that may go
      await undoChange(knex, site, { by: 'Ada' }, idOf(replaced))
      const later = (days: number) => new Date(Date.now() + days * 86_400_000)
      expect(await sweepFiles(knex, later(UNDO_DAYS))).toBe(0)
      expect(await sweepFiles(knex, later(UNDO_DAYS + 2))).toBe(1)
      expect(await kept(knex, site)).toEqual([fileId(one.bytes)])
    })
  })
  it('ends with undo by the number of changes as well', async () => {
    await withEmptyDatabase(async (knex) => {
      await migrate(knex)
      const site = await importPlan(knex, { by: 'a test' }, demo)
      const first = await picture('#777')
      await show(knex, site, first)
      const dropped = idOf(await show(knex, site, null))
      const { place: droppedAt } = await knex('changes').where({ site_id: site, id: dropped }).first('place')
      const stand = (place: number) => knex('sites').where({ id: site }).update({ place })
      await stand(droppedAt + UNDO_CHANGES - 1)
      expect(await sweepFiles(knex)).toBe(0)
      await stand(droppedAt + UNDO_CHANGES + 100)
      expect(await sweepFiles(knex)).toBe(1)
      expect(await filesSize(knex, site)).toBe(0)
    })
  })
})
