import { createHash } from 'node:crypto'
import { createWriteStream, mkdtempSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { setImmediate as nextTurn } from 'node:timers/promises'
import { Busboy, type BusboyConfig, type BusboyFileStream, type BusboyInstance } from '@fastify/busboy'
import { offTheClock } from '../database/deadline'
import { isDiskFull, isSystemTrouble } from '../failure'

/** What a form may be; where a route says nothing, it is small and brings no file. */
export type FormTakes = {
  /** The longest text in one field, in letters. */
  longest?: number
  /** Fields, all together. */
  fields?: number
  /** The file it may bring, in bytes. */
  file?: number
}

/** A file as it was sent: on disk for as long as its form is read. */
export type SentFile = { path: string; name: string; size: number }

export type SentForm = { form: FormData; file: SentFile | null }
export type NotAForm = { problem: string; status: number }

/** The largest form without a file has some hundred fields: a session of two hundred cables through twelve tests. */
const MOST_FIELDS = 1500
/** `needs[3].size`: no name is longer, no list of a form has more entries, and none nests deeper. */
const LONGEST_NAME = 80
const MOST_ENTRIES = 600
const DEEPEST = 4
/** Longer than any note; a box that takes more says so. */
const LONGEST_VALUE = 20_000
const SMALL_FORM_BYTES = 256_000
const SLICE = 2048
const LONG_SLICE_MS = 5

/** How many bytes a form may be. A letter takes three of them, as a browser writes it. */
export const bytesOf = ({ longest = 0, file }: FormTakes): number =>
  Math.max(SMALL_FORM_BYTES, 3 * longest) + (file ?? 0)

/**
 * A form as it comes in, counted on the way: at the first limit it crosses the rest is left unread (see `unread-body.ts`). Its file goes to disk piece by piece. What is
 * answered lasts until `use` is done; then the file is gone.
 */
export async function withSentForm<T>(
  request: Request,
  takes: FormTakes,
  use: (sent: SentForm | NotAForm) => Promise<T>,
): Promise<T> {
  const told = Number(request.headers.get('content-length') ?? 0)
  const body = request.body?.getReader()
  if (!body) return use(notWhole)
  if (told > bytesOf(takes)) return use(tooLarge(takes))
  let folder: string | null = null
  // at once, as a file that is being read may be given up in the same breath
  const place = () => {
    folder ??= mkdtempSync(join(tmpdir(), 'hallway-sent-'))
    return join(folder, 'file')
  }
  try {
    // a slow line takes nothing from the time there is for saving
    const sent = await offTheClock(() => read(body, request.headers.get('content-type') ?? '', takes, place))
    return await use(sent)
  } finally {
    if (folder) await rm(folder, { recursive: true, force: true })
  }
}

type Body = ReadableStreamDefaultReader<Uint8Array>

async function read(body: Body, type: string, takes: FormTakes, place: () => string): Promise<SentForm | NotAForm> {
  const { longest = LONGEST_VALUE, fields = MOST_FIELDS } = takes
  const form = new FormData()
  const count = { fields: 0, bytes: 0 }
  const tooMany = refusal(`A form has at most ${fields} fields; this one has more`)
  let file: Promise<SentFile | null> = Promise.resolve(null)
  const giveUp = new AbortController()
  let fault: NotAForm | null = null
  let trouble: unknown = null
  let stop = () => {}
  const stopped = new Promise<void>((done) => {
    stop = done
  })
  const give = (why: NotAForm) => {
    fault ??= why
    stop()
  }
  const parser = parserOf(type, {
    // a letter is up to four bytes
    fieldSize: 4 * longest + 4,
    fieldNameSize: LONGEST_NAME + 1,
    fields: fields + 1,
    files: takes.file === undefined ? 0 : 1,
    fileSize: takes.file ?? 0,
    parts: fields + 2,
    headerPairs: 20,
  })
  if (!parser) return notWhole
  const ended = new Promise<void>((done) => parser.once('finish', done))
  parser.on('error', () => give(notWhole))
  parser.on('field', (name, value, nameCut, valueCut) => {
    const why = faultOf(name ?? '', value, longest, nameCut || valueCut)
    count.fields += 1
    if (count.fields > fields) give(tooMany)
    else if (typeof name !== 'string') give(notWhole)
    else if (why) give(refusal(why))
    else form.append(name, value)
  })
  parser.on('file', (name, stream, fileName) => {
    stream.on('limit', () => give(tooLarge(takes)))
    file = keep(stream, fileName ?? '', place(), giveUp.signal).then((found) => {
      if (found) form.append(name, found.sum)
      return found?.file ?? null
    })
    file.catch((error) => {
      if (isDiskFull(error)) give(diskFull)
      else if (isSystemTrouble(error)) trouble = error
      give(notWhole)
    })
  })
  for (const limit of ['fieldsLimit', 'partsLimit'] as const) parser.on(limit, () => give(tooMany))
  parser.on('filesLimit', () =>
    give(
      refusal(takes.file === undefined ? 'This form takes no file' : 'A form brings one file; this one brings more'),
    ),
  )
  const most = bytesOf(takes)
  try {
    for (;;) {
      const { done, value } = await body.read()
      if (done) break
      count.bytes += value.byteLength
      if (count.bytes > most) give(tooLarge(takes))
      if (fault) break
      // little by little, so that what is refused is noticed before much of it is read
      for (let from = 0; from < value.byteLength && !fault; from += SLICE) {
        const begun = performance.now()
        if (!parser.write(value.subarray(from, from + SLICE)))
          await Promise.race([new Promise((drained) => parser.once('drain', drained)), stopped])
        // what is made to be slow to read lets others have their turn
        if (performance.now() - begun > LONG_SLICE_MS) await nextTurn()
      }
      if (fault) break
    }
  } catch {
    give(lineBroke)
  }
  if (!fault) {
    parser.end()
    await Promise.race([ended, stopped])
  }
  if (!fault) await Promise.race([file.catch(() => {}), stopped])
  if (!fault) return { form, file: await file }
  parser.destroy()
  giveUp.abort()
  // whatever was written of it is given up before its folder is
  await file.catch(() => {})
  if (trouble) throw trouble
  return fault
}

/** Null where what is sent is no form at all. */
function parserOf(type: string, limits: BusboyConfig['limits']): BusboyInstance | null {
  try {
    return new Busboy({ headers: { 'content-type': type }, limits })
  } catch {
    return null
  }
}

/** Writes a file as it comes, and names what it holds. Null where none was chosen. */
async function keep(
  stream: BusboyFileStream,
  name: string,
  path: string,
  signal: AbortSignal,
): Promise<{ file: SentFile; sum: string } | null> {
  const hash = createHash('sha256')
  let size = 0
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk)
      size += chunk.length
      done(null, chunk)
    },
  })
  await pipeline(stream, counted, createWriteStream(path, { mode: 0o600 }), { signal })
  return size === 0 ? null : { file: { path, name, size }, sum: hash.digest('hex') }
}

function faultOf(name: string, value: string, longest: number, cut: boolean): string | null {
  if (name.length > LONGEST_NAME) return 'A field of the form has a name longer than any that Hallway makes'
  if (cut || value.length > longest) return 'A field of the form is longer than it can be'
  const steps = name.split(/[.[]/)
  if (steps.length > 2 * DEEPEST) return 'A field of the form nests deeper than any that Hallway makes'
  const entries = steps.flatMap((step) => (step.endsWith(']') ? [step.slice(0, -1)] : []))
  return entries.some((entry) => entry !== '' && !(Number(entry) <= MOST_ENTRIES))
    ? `A list of the form has more than ${MOST_ENTRIES} entries`
    : null
}

const refusal = (what: string, status = 400): NotAForm => ({ problem: `${what}. Nothing was saved.`, status })
const notWhole = refusal('What was sent is not a whole form')
const lineBroke = refusal('The line broke before all of it had come')
const diskFull = refusal('The disk of the server is full', 507)
const tooLarge = (takes: FormTakes): NotAForm =>
  refusal(`That is more than Hallway takes here (${sizeWords(takes.file ?? bytesOf(takes))})`, 413)
const sizeWords = (bytes: number): string =>
  bytes >= 2_000_000 ? `${Math.floor(bytes / 1e6)} MB` : `${Math.floor(bytes / 1000)} kB`
