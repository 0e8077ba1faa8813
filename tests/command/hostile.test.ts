import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { setTimeout as wait } from 'node:timers/promises'
import { JSDOM } from 'jsdom'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import type { Plan } from '../../core/plan/plan'
import { demo } from '../support/demo-plan'
import { type HallwayProcess, startHallway } from '../support/hallway-process'
import { printedBy } from '../support/reference-program'

// A site whose every text means harm, in all that is made of it; and files that do.

const PORT = 4379
const address = `http://127.0.0.1:${PORT}`
const site = '/sites/harm'
let hallway: HallwayProcess

const TEXTS = [
  '=HYPERLINK("http://elsewhere.example","x")',
  '<script>alert(1)</script>',
  '"><svg onload=alert(1)>',
  ']]></text><script>alert(2)</script>',
  '</style></script><img src=x onerror=alert(3)>',
  ') Tj ET BT (x) Tj << /JS (app.alert) >>',
  '\u202Edekcart si siht',
  'W'.repeat(120),
  'لوحة المفاتيح الطويلة جدا',
  '@SUM(1+1)*cmd|x',
  '+1+1',
  '-2+3',
  '%0d%0aSet-Cookie: x=1',
  '{{7*7}}#{7*7}',
  '👩🏽‍🔧 e\u0301 ｆｕｌｌ',
  '../../../etc/passwd',
]
let at = 0
const next = (): string => TEXTS[at++ % TEXTS.length] as string

/** The demo with such a text wherever somebody may write one. */
function harmful(): Plan {
  const plan = JSON.parse(JSON.stringify({ ...demo, handovers: [] })) as Plan
  plan.site = { ...plan.site, id: 'harm', name: TEXTS[2] as string, note: next() }
  for (const list of ['floors', 'places', 'pathways', 'devices', 'kinds', 'upgrades', 'suppliers', 'sessions'] as const)
    for (const entity of plan[list]) {
      // names of a list differ
      entity.name = `${next().slice(0, 100)} ${at}`
      entity.note = next()
    }
  for (const list of ['cables', 'runs', 'needs', 'orders'] as const)
    for (const entity of plan[list]) entity.note = next()
  for (const run of plan.runs) run.name = next()
  for (const offer of plan.offers) offer.words = next()
  for (const observation of plan.observations) {
    observation.note = next()
    if (observation.kind === 'symptom') observation.saw = next()
  }
  return plan
}

const ask = async (path: string, init: RequestInit = {}) => {
  const answer = await fetch(`${address}${path}`, { redirect: 'manual', ...init })
  return { status: answer.status, headers: answer.headers, bytes: Buffer.from(await answer.arrayBuffer()) }
}
const fileForm = (name: string, bytes: Uint8Array | string, more: Record<string, string> = {}): RequestInit => {
  const body = new FormData()
  for (const [field, value] of Object.entries(more)) body.set(field, value)
  body.set('file', new File([bytes as BlobPart], name))
  return { method: 'POST', body }
}
const post = (path: string, fields: Record<string, string>) =>
  ask(path, { method: 'POST', body: new URLSearchParams(fields) })

beforeAll(async () => {
  hallway = await startHallway(PORT)
  const { status, bytes } = await ask('/import', fileForm('plan.json', JSON.stringify(harmful())))
  expect(status, bytes.toString().slice(0, 3000)).toBe(302)
})
afterAll(() => hallway.stop())

/** Whether a program of tables would work something out from a cell. */
const isFormula = (cell: string): boolean => /^[=@\t\r]|^[+-](?![\d.,]+( |$))/.test(cell)

describe('texts that mean harm', () => {
  it('are only text in every table', async () => {
    for (const file of [
      'verdicts.csv',
      'drawer.csv',
      'catalogue.csv',
      'tables/devices.csv',
      'tables/places.csv',
      'tables/runs.csv',
    ]) {
      const { status, headers, bytes } = await ask(`${site}/${file}`)
      expect([200, 404], file).toContain(status)
      if (status !== 200) continue
      expect(headers.get('content-disposition') ?? '', file).not.toMatch(/[\r\n]|Set-Cookie/)
      const { data, errors } = Papa.parse<string[]>(bytes.toString('utf8').replace(/^\ufeff/, ''))
      expect(
        errors.filter(({ code }) => code !== 'UndetectableDelimiter'),
        file,
      ).toEqual([])
      expect(data.flat().filter(isFormula), file).toEqual([])
    }
  })
  it('are only text on tags, as a drawing and as PDF', async () => {
    const ids = demo.cables
      .slice(0, 12)
      .map(({ id }) => `cables=${id}`)
      .join('&')
    const drawn = await ask(`${site}/drawer/tags.svg?${ids}`)
    expect(drawn.status).toBe(200)
    const { document } = new JSDOM(drawn.bytes.toString('utf8'), { contentType: 'image/svg+xml' }).window
    expect(document.querySelector('parsererror')).toBeNull()
    expect(document.querySelectorAll('script, foreignObject, image[href^="http"], a').length).toBe(0)
    const watched = [...document.querySelectorAll('*')].flatMap((element) =>
      element.getAttributeNames().filter((name) => /^on/i.test(name)),
    )
    expect(watched).toEqual([])
    const printed = await ask(`${site}/drawer/tags.pdf?${ids}`)
    expect(printed.status).toBe(200)
    const path = join(hallway.home, 'tags.pdf')
    writeFileSync(path, printed.bytes)
    expect(printedBy('qpdf', 'qpdf', ['--check', path])).toContain('No syntax or stream encoding errors')
  })
  it('are only text in the book, its files and what has changed since', async () => {
    const made = await post(`${site}/handover`, {
      name: TEXTS[5] as string,
      client: TEXTS[3] as string,
      conditions: TEXTS[0] as string,
      section: 'runs',
    })
    expect(made.status, made.bytes.toString().slice(0, 500)).toBe(302)
    const page = new URL(made.headers.get('location') ?? '', address).pathname
    let book = await ask(`${page}/files/book.pdf`)
    for (let look = 0; look < 400 && book.status !== 200; look += 1) {
      await wait(250)
      book = await ask(`${page}/files/book.pdf`)
    }
    expect(book.status).toBe(200)
    const path = join(hallway.home, 'book.pdf')
    writeFileSync(path, book.bytes)
    expect(printedBy('qpdf', 'qpdf', ['--check', path])).toContain('No syntax or stream encoding errors')
    // what a reader of PDF would do by itself is in none
    const inside = printedBy('qpdf', 'qpdf', ['--qdf', '--object-streams=disable', path, '-'])
    expect(inside.match(/\/(JavaScript|OpenAction|Launch|EmbeddedFile)\b|\/AA\s*(<<|\d+ \d+ R)/g) ?? []).toEqual([])
    expect(printedBy('pdftotext', 'poppler-utils', ['-layout', path, '-'])).toContain('app.alert')
    const [run] = demo.runs
    await post(`${site}/runs/${run?.id}`, { intent: 'remove', base: '99' })
    const since = await ask(`${page}/since.csv`)
    expect(since.status).toBe(200)
    const { data } = Papa.parse<string[]>(since.bytes.toString('utf8').replace(/^\ufeff/, ''))
    expect(data.flat().filter(isFormula)).toEqual([])
    for (const part of ['', '/book', '/since', '/ahead']) {
      const { status, bytes } = await ask(`${page}${part}`)
      expect(status, part).toBe(200)
      expect(bytes.toString('utf8'), part).not.toMatch(/<script>alert|<svg onload|<img src=x/)
    }
    const pack = await ask(`${page}/pack.zip`)
    expect(pack.status).toBe(200)
    const zip = join(hallway.home, 'pack.zip')
    writeFileSync(zip, pack.bytes)
    const names = printedBy('unzip', 'unzip', ['-Z1', zip]).split('\n').filter(Boolean)
    expect(names.length).toBeGreaterThan(2)
    expect(names.filter((name) => name.includes('..') || name.startsWith('/') || name.includes('\\'))).toEqual([])
  })
  it('are only text on every page', async () => {
    for (const page of [
      '',
      '/survey',
      '/floors',
      '/drawer',
      '/needs',
      '/order',
      '/suppliers',
      '/install',
      '/prove',
      '/faults',
      '/history',
      '/find?q=alert',
    ])
      expect((await ask(`${site}${page}`)).bytes.toString('utf8'), page).not.toMatch(
        /<script>alert|<svg onload|<img src=x/,
      )
  })
})

describe('files that mean harm', () => {
  const zipOf = (entries: readonly (readonly [string, Uint8Array | string])[]): Promise<Buffer> => {
    const zip = new ZipFile()
    for (const [name, bytes] of entries) zip.addBuffer(Buffer.from(bytes), name)
    zip.end()
    return buffer(zip.outputStream)
  }
  /** The name of an entry as no packer would write it: of the same length, so that nothing else in the file moves. */
  const renamed = (zip: Buffer, from: string, to: string): Buffer => {
    for (let found = zip.indexOf(from); found >= 0; found = zip.indexOf(from, found + 1)) zip.write(to, found)
    return zip
  }
  const plan = JSON.stringify({ ...demo, site: { ...demo.site, id: 'brought', name: 'Brought' } })

  it('a workbook that unpacks to far more than it is, is given up in words, and the next file is read', async () => {
    const sheet = `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>${'x'.repeat(process.env.HALLWAY_NIGHT ? 500_000_000 : 200_000_000)}`
    const bomb = await zipOf([
      [
        '[Content_Types].xml',
        '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
      ],
      [
        'xl/workbook.xml',
        '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="x" sheetId="1" r:id="rId1"/></sheets></workbook>',
      ],
      [
        'xl/_rels/workbook.xml.rels',
        '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
      ],
      ['xl/worksheets/sheet1.xml', sheet],
    ])
    expect(bomb.length).toBeLessThan(2_000_000)
    const { status, bytes } = await ask(`${site}/drawer/import`, fileForm('cables.xlsx', bomb))
    expect([413, 422], bytes.toString().slice(0, 300)).toContain(status)
    const next = await ask(
      `${site}/drawer/import`,
      fileForm('cables.csv', 'tag,first,second,length\nC-901,type-c,type-c,2 m'),
    )
    expect(next.status, next.bytes.toString().slice(0, 500)).toBe(302)
  })
  it('an archive whose entries lead elsewhere writes nothing there', async () => {
    const inside = '0'.repeat(16)
    for (const elsewhere of ['../../../../evil', '/tmp/hallway-evil', 'files\\..\\..\\evil', 'files/../../evil']) {
      const padded = elsewhere.padEnd(inside.length, 'x').slice(0, Math.max(inside.length, elsewhere.length))
      const zip = renamed(
        await zipOf([
          ['plan.json', plan],
          [inside.padEnd(padded.length, '0'), 'harm'],
        ]),
        inside.padEnd(padded.length, '0'),
        padded,
      )
      const { status } = await ask('/import', fileForm('site.zip', zip))
      expect([302, 422], elsewhere).toContain(status)
    }
    expect(printedBy('find', 'findutils', ['/tmp', hallway.home, '-maxdepth', '2', '-name', '*evil*'])).toBe('')
  })
  it('a series of ten million readings at night, of one by day, or of one line without an end, is read to its end or given up', async () => {
    const head = {
      format: 'hallway-series',
      version: 1,
      id: 's-1',
      run: demo.runs[0]?.id,
      instrument: 'm',
      by: 'x',
      simulated: false,
      began: '2026-11-30T10:00:00.000Z',
      heard: '2026-11-30T11:00:00.000Z',
      ended: null,
      written: false,
      rubbish: 0,
    }
    const chunk = JSON.stringify({
      at: 1_764_496_800_000,
      steps: Array(999).fill(1),
      drops: [],
      columns: { volts: Array(1000).fill(20) },
    })
    const lines = Buffer.from(`${chunk}\n`.repeat(500))
    for (const body of [
      Buffer.concat([
        Buffer.from(`${JSON.stringify(head)}\n`),
        ...Array(process.env.HALLWAY_NIGHT ? 20 : 2).fill(lines),
      ]),
      Buffer.alloc(process.env.HALLWAY_NIGHT ? 300_000_000 : 60_000_000, 'x'),
    ]) {
      const zip = await zipOf([
        ['plan.json', plan],
        ['series/s-1.jsonl', body],
      ])
      const { status, bytes } = await ask('/import', fileForm('site.zip', zip))
      expect([302, 413, 422], bytes.toString().slice(0, 300)).toContain(status)
    }
    expect((await ask('/health')).status).toBe(200)
    expect((await ask(site)).status).toBe(200)
  })
})
