import { buffer } from 'node:stream/consumers'
import { extract } from 'tar-stream'
import { fromBufferPromise } from 'yauzl'
import type { FolderFile } from '../../core/identity/class-folder'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'

/** A file of a class folder holds a word or two; the archive pads it to a page. */
const LARGEST_FILE = 8192
const MOST_FILES = 4000

const notRead = 'The archive could not be read to its end: it is damaged, or made by a program that packs otherwise.'
const tooMany = `The archive holds more than ${MOST_FILES} files; pack only the folder of the type-C class.`

/** The small files of a packed class folder, .tar or .zip. What is larger than such a file, a link or a folder is passed over unread. */
export async function readArchive(bytes: Uint8Array): Promise<Parsed<FolderFile[]>> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readZip(bytes)
  const isTar = new TextDecoder('latin1').decode(bytes.subarray(257, 262)) === 'ustar'
  if (isTar) return readTar(bytes)
  return bytes[0] === 0x1f && bytes[1] === 0x8b
    ? unreadable('This is a packed .tar.gz; unpack it to a .tar first, or make a .zip.')
    : unreadable('This is neither a .tar nor a .zip. Pack the folder as one of them, or paste its files as text.')
}

/** Goes from one entry to the next, so that what the directory claims of itself costs nothing. */
async function readZip(bytes: Uint8Array): Promise<Parsed<FolderFile[]>> {
  const found: FolderFile[] = []
  let files = 0
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes), { lazyEntries: true })
    for await (const entry of zip.eachEntry()) {
      files += 1
      if (files > MOST_FILES) return unreadable(tooMany)
      if (entry.uncompressedSize > LARGEST_FILE || entry.fileName.endsWith('/')) continue
      const content = await buffer(await zip.openReadStreamPromise(entry))
      found.push({ path: entry.fileName, text: textOf(content) })
    }
  } catch {
    return unreadable(notRead)
  }
  return parsed(found)
}

function readTar(bytes: Uint8Array): Promise<Parsed<FolderFile[]>> {
  return new Promise((answer) => {
    const found: FolderFile[] = []
    let files = 0
    const reader = extract()
    reader.on('entry', ({ name, type, size }, content, next) => {
      files += 1
      if (files > MOST_FILES) {
        answer(unreadable(tooMany))
        reader.destroy()
        return
      }
      const wanted = type === 'file' && (size ?? 0) <= LARGEST_FILE
      const pieces: Uint8Array[] = []
      if (wanted) content.on('data', (piece) => pieces.push(piece as Uint8Array))
      // an archive that ends in the middle of a file breaks that file's stream too; unheard, it would end the server
      content.on('error', () => answer(unreadable(notRead)))
      content.on('end', () => {
        if (wanted) found.push({ path: name, text: textOf(Buffer.concat(pieces)) })
        next()
      })
      content.resume()
    })
    reader.on('finish', () => answer(parsed(found)))
    reader.on('error', () => answer(unreadable(notRead)))
    reader.end(bytes)
  })
}

const textOf = (bytes: Uint8Array): string => new TextDecoder('utf-8').decode(bytes)
