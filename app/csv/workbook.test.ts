import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import writeWorkbook from 'write-excel-file/node'
import { demo } from '../../tests/support/demo-plan'
import { readTable } from './csv'
import { importContext, NOTHING_CHOSEN, readImport } from './preview'

type Cell = string | number | boolean | Date | null
const written = async (...sheets: Cell[][][]): Promise<Uint8Array> =>
  new Uint8Array(
    await writeWorkbook(
      sheets.map((data, at) => ({
        sheet: `Sheet ${at + 1}`,
        data: data.map((row) =>
          row.map((value) => (value instanceof Date ? { value, type: Date, format: 'yyyy-mm-dd' } : { value })),
        ),
      })) as never,
    ).toBuffer(),
  )

describe('a workbook, as another library writes it', () => {
  it('reads as a table: figures, days, yes and no, and cells that are empty', async () => {
    const bytes = await written([
      ['tag', 'length', 'feed', 'seen', 'note'],
      ['C-1', 2.5, true, new Date('2026-11-29T00:00:00Z'), null],
      [null, null, null, null, null],
      ['C-2', 0.8, false, null, '=not a formula'],
    ])
    expect(await readTable(bytes)).toMatchObject({
      ok: true,
      value: {
        headers: ['tag', 'length', 'feed', 'seen', 'note'],
        rows: [
          ['C-1', '2.5', 'yes', '2026-11-29', ''],
          ['C-2', '0.8', 'no', '', '=not a formula'],
        ],
      },
    })
  })
  it('takes the first sheet with anything in it, and cables come in from it', async () => {
    const bytes = await written(
      [[null]],
      [
        ['Plug A', 'Plug B', 'Len', 'Speed'],
        ['USB-C', 'usb c', 2, '40G'],
      ],
    )
    const read = await readImport(bytes, NOTHING_CHOSEN, importContext(demo, 'm'))
    expect(read).toMatchObject({ ok: true, value: { good: [{ cable: { length: 2 } }], bad: [] } })
  })
  it('that is none, is broken, or unpacks to far too much is refused in words', async () => {
    const good = await written([['tag'], ['C-1']])
    for (const bytes of [
      zipSync({ 'hello.txt': strToU8('hello') }),
      good.slice(0, good.length / 2),
      zipSync({ 'xl/worksheets/sheet1.xml': strToU8('<worksheet><sheetData><row') }),
      zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(80_000_000) }),
    ])
      expect(await readTable(bytes)).toMatchObject({ ok: false, problem: expect.stringContaining('Save the') })
  })
})
