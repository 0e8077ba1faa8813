import type { Readable } from 'node:stream'
import type { Knex } from 'knex'
import { ZipFile } from 'yazl'
import { FILE_TYPES, PLAN_NAME } from '../../core/files/file-types'
import type { Plan } from '../../core/plan/plan'
import { planText } from '../../core/plan/write'
import { documentOf, documentsOf } from '../handover/documents'
import { seriesFiles } from '../series/series-file'
import { fileOf, filesNamed } from './files'

/**
 * A site as an archive (ZIP): its plan file, and beside it the files that it names, what was made for its handovers, and the readings of its instruments.
 */
export async function siteArchive(knex: Knex, siteId: string, plan: Plan): Promise<Readable> {
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from(planText(plan)), PLAN_NAME)
  for (const id of filesNamed(plan)) {
    const file = await fileOf(knex, siteId, id)
    // pictures are packed as they are
    if (file) zip.addBuffer(file.bytes, `files/${id}.${FILE_TYPES[file.type]}`, { compress: false })
  }
  for (const { id: handover } of plan.handovers)
    for (const { name } of await documentsOf(knex, { siteId, handover })) {
      const document = await documentOf(knex, { siteId, handover }, name)
      if (document) zip.addBuffer(document.bytes, `handovers/${handover}/${name}`)
    }
  for (const { id, lines } of await seriesFiles(knex, siteId)) zip.addReadStream(lines(), `series/${id}.jsonl`)
  zip.end()
  return zip.outputStream as Readable
}
