import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import readCode from 'jsqr'
import { getDocument, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs'
import sharp from 'sharp'
import { afterAll, describe, expect, it } from 'vitest'
import { assessAnew } from '../../core/checks/assess'
import type { Block } from '../../core/handover/block'
import { blocksOf, bookOf, PAGE_MARGIN, paperSizes, titleOf } from '../../core/handover/book'
import { sections } from '../../core/handover/sections'
import type { Plan } from '../../core/plan/plan'
import { handoverSchema, SECTIONS, type SectionName } from '../../core/vocabulary/handover'
import { demo } from '../../tests/support/demo-plan'
import { printedBy } from '../../tests/support/reference-program'
import { benchSite } from '../command/bench-site'
import { bookPdf } from './book-pdf'

const folder = mkdtempSync(join(tmpdir(), 'hallway-book-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Asked = { plan?: Plan; paper?: 'a4' | 'letter'; parts?: readonly SectionName[]; name?: string; blocks?: Block[] }

async function made({
  plan = demo,
  paper = 'a4',
  parts = SECTIONS,
  name = 'Bridge hall',
  blocks,
}: Asked = {}): Promise<Buffer> {
  const handover = handoverSchema.parse({
    id: 'h-1',
    name,
    client: 'the school',
    at: '2026-11-01T10:00:00.000Z',
    log: 'a-log',
    place: 7,
    paper,
    sections: parts,
  })
  const of = bookOf(assessAnew(plan), handover)
  return bookPdf({
    title: titleOf(of),
    blocks: blocks ?? blocksOf(of),
    size: paperSizes[paper],
    margin: PAGE_MARGIN,
    address: 'https://hallway.example',
    imageOf: () => null,
  })
}

async function read<T>(pdf: Buffer, look: (document: PDFDocumentProxy) => Promise<T>): Promise<T> {
  const task = getDocument({ data: new Uint8Array(pdf), verbosity: 0 })
  try {
    return await look(await task.promise)
  } finally {
    await task.destroy()
  }
}

const written = (pdf: Buffer, name: string): string => {
  const path = join(folder, name)
  writeFileSync(path, pdf)
  return path
}

describe('a book on paper', () => {
  const whole = made()
  it('is read back by another library: its pages, outline, language, links and tags', async () => {
    await read(await whole, async (document) => {
      const outline = await document.getOutline()
      expect(outline.map(({ title }) => title)).toEqual(SECTIONS.map((name) => sections[name].title))
      const page = await document.getPage(1)
      expect(page.view.slice(2)).toEqual([paperSizes.a4.width, paperSizes.a4.height])
      const { info } = await document.getMetadata()
      expect(info).toMatchObject({ Title: 'Bridge hall', Language: 'en' })
      const links = await (await document.getPage(2)).getAnnotations()
      expect(links.filter(({ subtype }) => subtype === 'Link')).toHaveLength(SECTIONS.length)
      const tags = new Set<string>()
      for (let at = 1; at <= document.numPages; at += 1)
        collect(await (await document.getPage(at)).getStructTree(), tags)
      for (const tag of ['H1', 'H2', 'H3', 'P', 'L', 'LI', 'Table', 'TR', 'TH', 'TD', 'Figure', 'Link'])
        expect(tags).toContain(tag)
    })
  })
  it("is sound, tagged and real text by Debian's own tools", async () => {
    const path = written(await whole, 'book.pdf')
    expect(printedBy('qpdf', 'qpdf', ['--check', path])).toContain('No syntax or stream encoding errors')
    const info = printedBy('pdfinfo', 'poppler-utils', [path])
    expect(info).toMatch(/Tagged:\s+yes/)
    const text = printedBy('pdftotext', 'poppler-utils', ['-layout', path, '-'])
    for (const { tag } of demo.runs) expect(text).toContain(tag)
    expect(text).toContain('What to plug where'.slice(0, 4))
    expect(text).toContain('Belongs to licensed people')
    const fonts = printedBy('pdffonts', 'poppler-utils', [path]).split('\n').slice(2).filter(Boolean)
    expect(fonts.length).toBeGreaterThan(1)
    // embedded, each of them
    for (const font of fonts) expect(font).toMatch(/\byes\b/)
  })
  it('names in its contents the page on which each part begins', async () => {
    const path = written(await whole, 'contents.pdf')
    const page = (at: number) =>
      printedBy('pdftotext', 'poppler-utils', ['-layout', '-f', String(at), '-l', String(at), path, '-'])
    const contents = page(2)
    for (const name of SECTIONS) {
      const [, at] = new RegExp(`${sections[name].title}\\s+(\\d+)`).exec(contents) ?? []
      expect(page(Number(at))).toContain(sections[name].title)
      expect(page(Number(at))).toContain(`page ${at}`)
    }
  })
  it('has codes that a reader of such codes reads', async () => {
    const path = written(await made({ parts: ['cards'] }), 'cards.pdf')
    printedBy('pdftoppm', 'poppler-utils', [
      '-r',
      '220',
      '-f',
      '3',
      '-l',
      '3',
      '-x',
      '630',
      '-y',
      '240',
      '-W',
      '275',
      '-H',
      '265',
      '-png',
      path,
      join(folder, 'card'),
    ])
    const png = readFileSync(join(folder, 'card-3.png'))
    const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const code = readCode(new Uint8ClampedArray(data), info.width, info.height)
    expect(code?.data).toBe('https://hallway.example/sites/saltmarsh/runs/r-01')
  })
  it('is on the paper that was chosen', async () => {
    await read(await made({ paper: 'letter', parts: ['tags'] }), async (document) => {
      expect((await document.getPage(1)).view.slice(2)).toEqual([612, 792])
    })
  })
  it('says which letters it has not, and where; names of any length stay on the page', async () => {
    const names = ['Zażółć gęślą jaźń', 'Пульт у окна', 'شاشة الجسر', 'bridge 🚢', 'W'.repeat(200), 'a b '.repeat(50)]
    const blocks: Block[] = [
      { sort: 'section', id: 'names', text: 'Names' },
      { sort: 'table', heads: ['Name', 'Other'], shares: [1, 1], rows: names.map((name) => [name, 'x']) },
      ...names.map((text, at): Block => ({ sort: 'heading', id: `h-${at}`, text })),
      { sort: 'cards', cards: names.map((title) => ({ title, lines: [title, title], path: '/x' })) },
    ]
    const path = written(await made({ blocks }), 'names.pdf')
    const text = printedBy('pdftotext', 'poppler-utils', ['-layout', path, '-'])
    expect(text).toContain('Zażółć gęślą jaźń')
    expect(text).toContain('Пульт у окна')
    expect(text).toContain('Letters that are not printed')
    expect(text).toContain('bridge ?')
    // what is not printed is no fault of the file
    expect(printedBy('qpdf', 'qpdf', ['--check', path])).toContain('No syntax')
    // every letter of a long name lies on the sheet
    const boxes = printedBy('pdftotext', 'poppler-utils', ['-bbox', path, '-'])
    for (const [, right] of boxes.matchAll(/xMax="([\d.]+)"/g))
      expect(Number(right)).toBeLessThanOrEqual(paperSizes.a4.width)
  })
  it('of nothing at all is a book that says so', async () => {
    const empty: Plan = {
      ...demo,
      floors: [],
      places: [],
      pathways: [],
      runs: [],
      needs: [],
      cables: [],
      devices: [],
      upgrades: [],
      searches: [],
      soaks: [],
      sessions: [],
      observations: [],
      orders: [],
      orderLines: [],
      handovers: [],
    }
    await read(await made({ plan: empty }), async (document) =>
      expect(document.numPages).toBeGreaterThan(SECTIONS.length),
    )
  })
  it('grows by its runs, and not faster', async () => {
    const pages = async (runs: number) =>
      read(await made({ plan: benchSite(runs, runs * 2) }), async ({ numPages }) => numPages)
    const [few, twice, four] = [await pages(40), await pages(80), await pages(160)]
    expect(four - twice).toBeLessThanOrEqual(2.4 * (twice - few))
  })
})

/** Every tag below one. */
function collect(node: unknown, into: Set<string>): void {
  const { role, children = [] } = (node ?? {}) as { role?: string; children?: unknown[] }
  if (role) into.add(role)
  for (const child of children) collect(child, into)
}
