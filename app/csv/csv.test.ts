import { parse } from 'csv-parse/sync'
import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { assessAnew } from '../../core/checks/assess'
import { bookOf } from '../../core/handover/book'
import { packTables } from '../../core/handover/tables'
import { handoverSchema } from '../../core/vocabulary/handover'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { csvFile, readCsv, writeCsv } from './csv'

const bytes = (text: string) => new TextEncoder().encode(text)
const problem = (data: Uint8Array) => {
  const read = readCsv(data)
  return read.ok ? '' : read.problem
}

describe('a table from a file', () => {
  it.each([
    ['commas', 'tag,length\nC-1,"2,5 m"\n'],
    ['semicolons', 'tag;length\r\nC-1;2,5 m\r\n'],
    ['tabs, with blank lines', '\ntag\tlength\n\nC-1\t2,5 m\n\n'],
    ['a byte order mark', '\ufefftag,length\nC-1,"2,5 m"'],
  ])('%s', (_, text) => {
    expect(readCsv(bytes(text))).toMatchObject({
      ok: true,
      value: { headers: ['tag', 'length'], rows: [['C-1', '2,5 m']], encoding: 'UTF-8' },
    })
  })
  it('what is none is refused with what it looks like', () => {
    expect(problem(Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1, 2, 3]))).toMatch(/binary data/)
    expect(problem(bytes('tag,length\n'))).toMatch(/no row below/)
    expect(problem(bytes(`tag\n${'x'.repeat(30_000)}\n`))).toMatch(/30,000 characters/)
    expect(problem(bytes(`tag\n${'C\n'.repeat(20_001)}`))).toMatch(/more than 20,000 rows/)
    expect(problem(bytes(`${'a,'.repeat(80)}\n1,2\n`))).toMatch(/81 columns/)
    expect(problem(bytes('tag,note\nC-1,"never closed\nC-2,x\n'))).toMatch(/quotation mark/)
  })
})

describe('a table to a file', () => {
  it('reads back, and no cell is taken for a formula', async () => {
    const rows = [
      ['tag', 'note'],
      ['C-1', 'blue; "thick", wet'],
    ]
    expect(readCsv(bytes(writeCsv(rows)))).toMatchObject({ value: { headers: rows[0], rows: [rows[1]] } })
    expect(writeCsv([['=HYPERLINK("x")']])).toBe('"\'=HYPERLINK(""x"")"\r\n')
    const file = csvFile('../quay 3', rows)
    expect(file.headers.get('Content-Disposition')).toBe('attachment; filename=".._quay_3.csv"')
  })
})

it('any cell comes back as it was, and no line of one begins as a formula does', () => {
  const piece = fc.constantFrom('=', '+', '-', '@', '\t', "'", '"', ',', '\n', '\r\n', '\r', 'a', '1', ' ', 'é')
  const cell = fc.array(piece, { maxLength: 8 }).map((pieces) => `x${pieces.join('')}`)
  const risky = fc.array(piece, { minLength: 1, maxLength: 8 }).map((pieces) => `${pieces.join('')}x`)
  fc.assert(
    fc.property(fc.tuple(cell, risky), fc.tuple(risky, cell), (first, second) => {
      const rows = [['name', 'note'], first, second]
      const text = writeCsv(rows)
      const back = readCsv(new TextEncoder().encode(text))
      expect(back.ok && back.value.rows).toEqual([first, second])
      const lines = Papa.parse<string[]>(text, { delimiter: ',' })
        .data.flat()
        .flatMap((each) => each.split(/\r\n|\r|\n/))
      expect(lines.filter((line) => /^[=+\-@\t]/.test(line))).toEqual([])
    }),
    { numRuns: cases(500) },
  )
})

it('every table of a handover is read alike by a second reader', () => {
  const handed = { id: 'h-1', name: 'Hall', client: 'x', at: '2026-11-01T10:00:00.000Z', log: 'a-log', place: 1 }
  const of = bookOf(assessAnew(demo), handoverSchema.parse(handed))
  for (const { rows } of packTables) expect(parse(writeCsv(rows(of)))).toEqual(rows(of))
})
