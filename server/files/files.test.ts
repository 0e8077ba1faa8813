import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import sharp from 'sharp'
import { expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import { planText } from '../../core/plan/write'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { backUp, restore } from '../backup/backup'
import { migrate } from '../database/migrate'
import { importPlan } from '../sites/sites'
import { fileId, fileOf, keepFile } from './files'
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
    const id = await importPlan(knex, { by: 'a test' }, plan, [drawing, photo, photo, other])
    expect(await knex('files').where({ site_id: id })).toHaveLength(3)
    expect(await keepFile(knex, id, photo)).toBe(fileId(photo.bytes))

    const bytes = new Uint8Array(await buffer(await siteArchive(knex, id, plan)))
    const opened = await openArchive(bytes)
    if (!opened.ok) throw new Error(opened.problem)
    // what no floor and no place names stays behind
    expect(opened.value).toMatchObject({ plan: planText(plan), leftOut: 0 })
    expect(opened.value.files.map((file) => fileId(file.bytes)).sort()).toEqual(
      [fileId(drawing.bytes), fileId(photo.bytes)].sort(),
    )
    expect((await fileOf(knex, id, fileId(photo.bytes)))?.bytes.equals(Buffer.from(photo.bytes))).toBe(true)
    expect(await fileOf(knex, 'another', fileId(photo.bytes))).toBeNull()

    // and a backup carries them, byte by byte
    const folder = mkdtempSync(join(tmpdir(), 'hallway-files-'))
    await backUp(knex, join(folder, 'backup.gz'))
    await withEmptyDatabase(async (other) => {
      await migrate(other)
      await restore(other, join(folder, 'backup.gz'))
      expect((await fileOf(other, id, fileId(drawing.bytes)))?.bytes.equals(Buffer.from(drawing.bytes))).toBe(true)
      expect(await other('files').where({ site_id: id })).toHaveLength(3)
    })
    rmSync(folder, { recursive: true })
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
  const opened = await openArchive(new Uint8Array(await buffer(zip.outputStream as never)))
  expect(opened).toMatchObject({ ok: true, value: { plan: '{}', leftOut: 3 } })
  expect(opened.ok && opened.value.files).toHaveLength(1)
  expect(await openArchive(new TextEncoder().encode('PK nothing'))).toMatchObject({ ok: false })
  const empty = new ZipFile()
  empty.addBuffer(Buffer.from('x'), 'other.txt')
  empty.end()
  expect(await openArchive(new Uint8Array(await buffer(empty.outputStream as never)))).toMatchObject({
    ok: false,
    problem: expect.stringContaining('no plan.json'),
  })
})
