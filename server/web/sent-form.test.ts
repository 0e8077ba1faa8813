import { existsSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { bytesOf, type FormTakes, type NotAForm, type SentForm, withSentForm } from './sent-form'

/** A body that comes in pieces, and tells how much of it was asked for. */
function inPieces(bytes: Uint8Array | (() => Uint8Array | null), size = 997) {
  const told = { pieces: 0 }
  let at = 0
  const cut = (whole: Uint8Array) => {
    const piece = whole.slice(at, at + size)
    at += size
    return piece.length > 0 ? piece : null
  }
  const next = typeof bytes === 'function' ? bytes : () => cut(bytes)
  const body = new ReadableStream<Uint8Array>(
    {
      pull(controller) {
        const piece = next()
        told.pieces += 1
        if (piece === null) controller.close()
        else controller.enqueue(piece)
      },
    },
    { highWaterMark: 0 },
  )
  return { body, told }
}

const requestOf = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request('http://hallway/', { method: 'POST', body, headers, duplex: 'half' } as RequestInit)

/** What a browser would send of a form, in pieces. */
async function piecesOf(form: FormData | URLSearchParams, size?: number) {
  const whole = new Request('http://hallway/', { method: 'POST', body: form })
  const bytes = new Uint8Array(await whole.arrayBuffer())
  return requestOf(inPieces(bytes, size).body, { 'content-type': whole.headers.get('content-type') ?? '' })
}

type Seen = { sent: SentForm | NotAForm; text: string | null; path: string | null }
const read = (request: Request, takes: FormTakes = {}): Promise<Seen> =>
  withSentForm(request, takes, async (sent) => {
    const file = 'file' in sent ? sent.file : null
    return { sent, text: file && readFileSync(file.path, 'utf8'), path: file?.path ?? null }
  })
const refusal = async (request: Request, takes?: FormTakes) => {
  const { sent } = await read(request, takes)
  if (!('problem' in sent)) throw new Error('it was taken')
  return sent
}

const word = fc.string({ unit: 'grapheme', maxLength: 40 }).filter((text) => text.isWellFormed())

describe('a form as it was sent', () => {
  it('is read as it was filled in, however it is packed and wherever it is cut', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.stringMatching(/^[a-z]{1,12}$/), word), { maxLength: 12 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 300 }),
        async (fields, packed, size) => {
          const form = packed ? new FormData() : new URLSearchParams()
          for (const [name, value] of fields) form.append(name, value)
          const { sent } = await read(await piecesOf(form, size))
          if ('problem' in sent) {
            // a form of no parts at all is not a form to every parser
            expect(fields).toEqual([])
            return
          }
          // a browser packs the end of a line as two letters
          const line = (text: string) => (packed ? text.replace(/\r\n|\r|\n/g, '\r\n') : text)
          expect([...sent.form]).toEqual(fields.map(([name, value]) => [name, line(value)]))
        },
      ),
      { numRuns: cases(60) },
    )
  })
  it('brings a file to disk, named in the form by what it holds; the file is gone afterwards', async () => {
    const form = new FormData()
    form.set('intent', 'read')
    form.set('file', new File(['tag,length\nC-1,2'], 'cables.csv'))
    form.set('after', 'the file')
    const { sent, text, path } = await read(await piecesOf(form, 7), { file: 100 })
    expect(text).toBe('tag,length\nC-1,2')
    expect(sent).toMatchObject({ file: { name: 'cables.csv', size: 16 } })
    expect('form' in sent && [...sent.form.keys()]).toEqual(['intent', 'after', 'file'])
    expect('form' in sent && sent.form.get('file')).toMatch(/^[0-9a-f]{64}$/)
    expect(path && existsSync(path)).toBe(false)
  })
  it('brings none where none was chosen', async () => {
    const form = new FormData()
    form.set('file', new File([], ''))
    const { sent } = await read(await piecesOf(form), { file: 100 })
    expect(sent).toMatchObject({ file: null })
  })
})

describe('a form is refused at the first limit it crosses', () => {
  const encoded = { 'content-type': 'application/x-www-form-urlencoded' }
  const letters = (count: number) => new URLSearchParams({ note: 'x'.repeat(count) })
  it('at exactly its length it is taken, one letter more is not', async () => {
    expect((await read(await piecesOf(letters(50)), { longest: 50 })).sent).toMatchObject({ file: null })
    expect(await refusal(await piecesOf(letters(51)), { longest: 50 })).toMatchObject({ status: 400 })
  })
  it('so many fields, and not one more', async () => {
    const fields = (count: number) =>
      new URLSearchParams(Array.from({ length: count }, (_, at): [string, string] => [`f${at}`, '']))
    expect((await read(await piecesOf(fields(9)), { fields: 9 })).sent).toMatchObject({ file: null })
    expect(await refusal(await piecesOf(fields(10)), { fields: 9 })).toMatchObject({
      problem: 'A form has at most 9 fields; this one has more. Nothing was saved.',
    })
  })
  it('a file of so many bytes, and not one more; none where none is taken, and no second one', async () => {
    const withFiles = (...sizes: number[]) => {
      const form = new FormData()
      for (const size of sizes) form.append('file', new File(['x'.repeat(size)], 'x'))
      return piecesOf(form)
    }
    expect((await read(await withFiles(100), { file: 100 })).sent).toMatchObject({ file: { size: 100 } })
    expect(await refusal(await withFiles(101), { file: 100 })).toMatchObject({ status: 413 })
    expect(await refusal(await withFiles(1), {})).toMatchObject({ status: 400 })
    expect(await refusal(await withFiles(1, 1), { file: 100 })).toMatchObject({ status: 400 })
  })
  it.each([
    ['a list with a far entry', 'leads[2000]'],
    ['a form that nests', `a${'[0]'.repeat(20)}`],
    ['a name longer than any', 'n'.repeat(5000)],
  ])('%s', async (_what, name) => {
    expect(await refusal(await piecesOf(new URLSearchParams({ [name]: 'x' })))).toMatchObject({ status: 400 })
    const form = new FormData()
    form.set(name, 'x')
    expect(await refusal(await piecesOf(form))).toMatchObject({ status: 400 })
  })
  it.each([
    ['cut short', 'multipart/form-data; boundary=x', '--x\r\nContent-Disposition: form-data; name="a"\r\n\r\nhal'],
    ['no form', 'multipart/form-data; boundary=x', 'nothing'],
    ['without a boundary', 'multipart/form-data', 'nothing'],
    ['JSON', 'application/json', '{}'],
    [
      'a field without a name',
      'multipart/form-data; boundary=x',
      '--x\r\nContent-Disposition: form-data\r\n\r\na\r\n--x--',
    ],
  ])('one that is %s', async (_what, type, body) => {
    const { sent } = await read(requestOf(body, { 'content-type': type }), { file: 100 })
    if ('problem' in sent) expect(sent.status).toBe(400)
    else expect([...sent.form]).toEqual([])
  })
  it('and not a piece more of it is read: a body without end', async () => {
    const piece = new TextEncoder().encode('a=&'.repeat(20_000))
    const { body, told } = inPieces(() => piece)
    expect(await refusal(requestOf(body, encoded))).toMatchObject({ status: 400 })
    expect(told.pieces).toBe(1)
    const large = new TextEncoder().encode(`a=${'x'.repeat(60_000)}&`)
    const { body: other, told: later } = inPieces(() => large)
    expect(await refusal(requestOf(other, encoded), { longest: 60_000 })).toMatchObject({ status: 413 })
    expect(later.pieces).toBe(Math.ceil(bytesOf({}) / large.length))
  })
  it('before any of it is read where it says itself that it is too much', async () => {
    const { body, told } = inPieces(() => null)
    const request = requestOf(body, { ...encoded, 'content-length': String(bytesOf({}) + 1) })
    expect(await refusal(request)).toMatchObject({ status: 413 })
    expect(told.pieces).toBeLessThanOrEqual(1)
  })
})
