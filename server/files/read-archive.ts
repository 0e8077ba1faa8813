import { buffer } from 'node:stream/consumers'
import { fromBufferPromise } from 'yauzl'
import { type KeptImage, PLAN_NAME } from '../../core/files/file-types'
import { LARGEST_PLAN_BYTES } from '../../core/plan/read'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'
import { fileId } from './files'
import { isKept } from './image'

export type OpenedArchive = { plan: string; files: KeptImage[]; leftOut: number }

const LARGEST_FILE = 16_000_000
const MOST_FILES = 5000
/** The plan and the files of an archive. A file that Hallway would not have kept so, or whose name is not what it holds, is left out and counted. */
export async function openArchive(bytes: Uint8Array): Promise<Parsed<OpenedArchive>> {
  const files: KeptImage[] = []
  let plan: string | null = null
  let leftOut = 0
  let count = 0
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes), { lazyEntries: true })
    for await (const entry of zip.eachEntry()) {
      count += 1
      if (count > MOST_FILES) return unreadable(`The archive holds more than ${MOST_FILES} files.`)
      const { fileName, uncompressedSize } = entry
      if (fileName === PLAN_NAME && uncompressedSize <= LARGEST_PLAN_BYTES)
        plan = (await buffer(await zip.openReadStreamPromise(entry))).toString('utf8')
      else if (/^files\/[0-9a-f]{64}\.(webp|svg)$/.test(fileName) && uncompressedSize <= LARGEST_FILE) {
        const held = new Uint8Array(await buffer(await zip.openReadStreamPromise(entry)))
        const kept = fileName.includes(fileId(held)) ? await isKept(held) : null
        if (kept) files.push(kept)
        else leftOut += 1
      } else if (!fileName.endsWith('/')) leftOut += 1
    }
  } catch {
    return unreadable(
      'The archive could not be read to its end: it is damaged, or made by a program that packs otherwise.',
    )
  }
  return plan === null ? unreadable(`There is no ${PLAN_NAME} in this archive.`) : parsed({ plan, files, leftOut })
}
