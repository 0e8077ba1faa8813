import type { Readable } from 'node:stream'
import type { Knex } from 'knex'
import { ZipFile } from 'yazl'
import { documentOf, documentsOf } from './documents'

/** All that was made for a handover as one archive (ZIP), a file at a time; null where nothing was made. */
export async function packArchive(knex: Knex, of: { siteId: string; handover: string }): Promise<Readable | null> {
  const documents = await documentsOf(knex, of)
  if (documents.length === 0) return null
  const zip = new ZipFile()
  for (const { name } of documents) {
    const document = await documentOf(knex, of, name)
    // a PDF is packed as it is
    if (document) zip.addBuffer(document.bytes, name, { compress: !name.endsWith('.pdf') })
  }
  zip.end()
  return zip.outputStream as Readable
}
