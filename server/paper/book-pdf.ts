import PDFDocument from 'pdfkit'
import type { Block, Card, Table, Title } from '../../core/handover/block'
import { type Drawing, inkColour, type Shape } from '../../core/handover/drawing'
import { barsOf } from '../../core/tags/label'
import { modulesOf } from '../tags/tag-sheets'
import { bookFonts, Letters, type Line, type Weight } from './letters'

/** What a book on paper is made from. */
export type BookToPrint = {
  title: Title
  blocks: Iterable<Block>
  size: { width: number; height: number }
  margin: number
  /** The address that the codes on cards open. */
  address: string
  /** A kept file as pixels that a PDF can hold; null where it is gone. */
  imageOf(file: string): Buffer | null
  /** Told with every page. */
  progress?(pages: number): void
}

/** Any mask is read; trying all eight for each of thousands of codes takes longer than drawing them. */
const MASK = 3
const TEXT = 9.5
const SMALL = 8
const GAP = 6
/** Between two cells of a row. */
const CELL_GAP = 6
const INK = inkColour('ink')
const QUIET = inkColour('quiet')
const CAUTION = '#8a4b00'

/**
 * A book as an accessible PDF: tagged headings, tables and figures with their words, an outline, its language, real text with its fonts inside. Light paper,
 * dark ink, whatever the screen is.
 */
export async function bookPdf(book: BookToPrint): Promise<Buffer> {
  return new Printer(book, await bookFonts()).print()
}

type Pdf = InstanceType<typeof PDFDocument>
type Structure = ReturnType<Pdf['struct']>

class Printer {
  readonly #book: BookToPrint
  readonly #pdf: Pdf
  readonly #letters: Letters
  readonly #root: Structure
  readonly #contents: { id: string; text: string; page: number }[] = []
  readonly #left: number
  readonly #width: number
  readonly #bottom: number
  #flush = () => {}
  #pages = 0
  /** What is filled with now; nothing where that is not known. */
  #colour = ''
  #ending = false
  #section: Pdf['outline'] | null = null

  constructor(book: BookToPrint, fonts: ReadonlyMap<string, Buffer>) {
    const { size, margin, title } = book
    this.#letters = new Letters(fonts)
    this.#book = book
    this.#left = margin
    this.#width = size.width - 2 * margin
    this.#bottom = size.height - margin
    this.#pdf = new PDFDocument({
      size: [size.width, size.height],
      margin,
      autoFirstPage: false,
      pdfVersion: '1.7',
      tagged: true,
      lang: 'en',
      displayTitle: true,
      info: { Title: title.title, Subject: `Handed over to ${title.client}` },
    })
    this.#gatherContent()
    for (const [name, bytes] of fonts) this.#pdf.registerFont(name, bytes)
    this.#root = this.#pdf.struct('Document')
    this.#pdf.addStructure(this.#root)
  }

  /** Passes on what a page shows in one piece, when the page is done, and not operator by operator. */
  #gatherContent(): void {
    const pdf = this.#pdf
    const write = pdf.addContent.bind(pdf)
    let gathered: string[] = []
    pdf.addContent = (operator: string) => {
      gathered.push(operator)
      return pdf
    }
    this.#flush = () => {
      if (gathered.length > 0) write(gathered.join('\n'))
      gathered = []
    }
  }

  async print(): Promise<Buffer> {
    // what it wrote before anything was asked of it
    const chunks: Uint8Array[] = [this.#pdf.read()]
    const ended = new Promise<void>((done, fail) => {
      // what it writes is kept as it comes: hundreds of thousands of small pieces, each through the queues of a stream, take longer than drawing them
      this.#pdf.push = (chunk: Uint8Array | null) => {
        if (chunk === null) done()
        else chunks.push(chunk)
        return true
      }
      this.#pdf.on('error', fail)
    })
    this.#front()
    for (const block of this.#book.blocks) this.#block(block)
    this.#replaced()
    this.#tableOfContents()
    this.#flush()
    this.#root.end()
    this.#pdf.end()
    await ended
    return Buffer.concat(chunks)
  }

  #page(): void {
    this.#flush()
    this.#pdf.addPage()
    this.#colour = ''
    this.#pages += 1
    this.#foot()
    this.#pdf.y = this.#book.margin
    this.#book.progress?.(this.#pages)
  }

  /** What every page says of itself, beside what is read. */
  #foot(): void {
    const { page } = this.#pdf
    const { bottom } = page.margins
    page.margins.bottom = 0
    this.#pdf.markContent('Artifact', { type: 'Pagination' })
    const words = `${this.#book.title.title.slice(0, 90)}, page ${this.#number()}`
    this.#text(words, this.#left, this.#bottom + 14, { size: SMALL, colour: QUIET, line: true })
    this.#pdf.endMarkedContent()
    page.margins.bottom = bottom
  }

  /** What a page is numbered: the contents are drawn last and come second. */
  #number(): number {
    if (this.#ending) return 2
    return this.#pages === 1 ? 1 : this.#pages + 1
  }

  #front(): void {
    const { title, client, about } = this.#book.title
    this.#page()
    this.#pdf.y = this.#book.margin + 90
    this.#words('H1', title, { size: 26, weight: 700 })
    this.#space(10)
    this.#words('P', `For ${client}`, { size: 14 })
    this.#space(16)
    for (const line of about) {
      this.#words('P', line, {})
      this.#space(3)
    }
  }

  /**
   * Where each part begins is known at the end. The page is then put behind the title: no other page has to be kept back until then, which is what most of the
   * room would go for in a large book.
   */
  #tableOfContents(): void {
    this.#ending = true
    this.#page()
    this.#words('H2', 'Contents', { size: 16, weight: 700 })
    this.#space(8)
    for (const { id, text, page } of this.#contents) {
      const y = this.#pdf.y
      this.#root.add(
        this.#pdf.struct('Link', { alt: `${text}, page ${page}` }, () => {
          this.#text(text, this.#left, y, { width: this.#width - 60, goTo: id })
          this.#text(String(page), this.#left + this.#width - 50, y, { width: 50, align: 'right' })
        }),
      )
      this.#pdf.y = y + 18
    }
    const { Kids } = (this.#pdf as unknown as { _root: { data: { Pages: { data: { Kids: object[] } } } } })._root.data
      .Pages.data
    const last = Kids.pop()
    if (last) Kids.splice(1, 0, last)
  }

  #block(block: Block): void {
    switch (block.sort) {
      case 'section': {
        this.#page()
        this.#contents.push({ id: block.id, text: block.text, page: this.#number() })
        this.#section = this.#pdf.outline.addItem(block.text)
        this.#pdf.addNamedDestination(block.id)
        this.#words('H2', block.text, { size: 18, weight: 700 })
        this.#space(10)
        return
      }
      case 'heading':
        this.#room(70)
        this.#space(8)
        this.#section?.addItem(block.text)
        this.#pdf.addNamedDestination(block.id, 'XYZ', this.#left, this.#pdf.y, null)
        this.#words('H3', block.text, { size: 12, weight: 700 })
        this.#space(4)
        return
      case 'words':
        this.#words('P', block.text, block.quiet ? { colour: QUIET } : {})
        this.#space(GAP)
        return
      case 'caution':
        this.#words('P', `Caution: ${block.text}`, { colour: CAUTION, weight: 700 })
        this.#space(GAP)
        return
      case 'list':
        this.#list(block.items)
        return
      case 'table':
        this.#table(block)
        return
      case 'drawing':
        this.#drawing(block.drawing, block.alt)
        return
      case 'cards':
        this.#cards(block.cards)
        return
      case 'page':
        this.#pdf.y = this.#bottom
    }
  }

  #space(points: number): void {
    this.#pdf.y += points
  }

  /** Begins a page where there is less room than that. */
  #room(height: number): void {
    if (this.#pdf.y + height > this.#bottom) this.#page()
  }

  #words(tag: string, text: string, how: How, into = this.#root): void {
    const laid = this.#lay(text, how)
    this.#room(laid.height)
    into.add(this.#pdf.struct(tag, {}, () => this.#put(laid, this.#left, this.#pdf.y)))
  }

  #list(items: readonly string[]): void {
    const list = this.#pdf.struct('L')
    this.#root.add(list)
    for (const item of items) {
      const laid = this.#lay(item, { width: this.#width - 14 })
      this.#room(laid.height)
      const { y } = this.#pdf
      const entry = this.#pdf.struct('LI')
      list.add(entry)
      entry.add(this.#pdf.struct('Lbl', {}, () => this.#text('•', this.#left, y, { width: 12 })))
      entry.add(this.#pdf.struct('LBody', {}, () => this.#put(laid, this.#left + 14, y)))
      entry.end()
      this.#space(2)
    }
    list.end()
    this.#space(GAP)
  }

  #table({ heads, shares, rows }: Table): void {
    const whole = shares.reduce((sum, share) => sum + share, 0)
    const widths = shares.map((share) => (share / whole) * this.#width)
    const table = this.#pdf.struct('Table')
    this.#root.add(table)
    const laidOut = (tag: 'TH' | 'TD', cells: readonly string[]): Laid[] =>
      cells.map((cell, at) =>
        this.#lay(cell, { size: SMALL, weight: tag === 'TH' ? 700 : 400, width: (widths[at] ?? 40) - CELL_GAP }),
      )
    const head = laidOut('TH', heads)
    this.#room(44)
    this.#row(table, 'TH', head, widths)
    for (const row of rows) {
      const cells = laidOut('TD', row)
      if (this.#pdf.y + heightOf(cells) > this.#bottom) {
        this.#page()
        this.#row(table, 'TH', head, widths)
      }
      this.#row(table, 'TD', cells, widths)
    }
    table.end()
    this.#space(GAP + 2)
  }

  #row(table: Structure, tag: 'TH' | 'TD', cells: readonly Laid[], widths: readonly number[]): void {
    const row = this.#pdf.struct('TR')
    table.add(row)
    const top = this.#pdf.y
    let x = this.#left
    for (const [at, cell] of cells.entries()) {
      row.add(this.#pdf.struct(tag, {}, () => this.#put(cell, x, top + 2)))
      x += widths[at] ?? 40
    }
    row.end()
    const y = Math.min(top + heightOf(cells), this.#bottom)
    this.#pdf.markContent('Artifact', { type: 'Layout' })
    this.#pdf
      .moveTo(this.#left, y)
      .lineTo(this.#left + this.#width, y)
      .lineWidth(tag === 'TH' ? 1 : 0.4)
      .strokeColor(tag === 'TH' ? INK : '#b8bec4')
      .stroke()
    this.#pdf.endMarkedContent()
    this.#pdf.y = y
  }

  #drawing({ height, shapes }: Drawing, alt: string): void {
    this.#room(height + GAP)
    const top = this.#pdf.y
    this.#root.add(
      this.#pdf.struct('Figure', { alt }, () => {
        for (const shape of shapes) this.#shape(shape, this.#left, top)
      }),
    )
    this.#pdf.y = top + height
    this.#space(GAP)
  }

  #shape(shape: Shape, left: number, top: number): void {
    const pdf = this.#pdf
    if (shape.sort !== 'text') this.#colour = ''
    switch (shape.sort) {
      case 'line': {
        const [first, ...rest] = shape.points
        if (!first) return
        pdf.moveTo(left + first[0], top + first[1])
        for (const [x, y] of rest) pdf.lineTo(left + x, top + y)
        if (shape.dashed) pdf.dash(4, { space: 3 })
        pdf.lineWidth(shape.width).strokeColor(inkColour(shape.ink)).stroke()
        if (shape.dashed) pdf.undash()
        return
      }
      case 'box':
        pdf.rect(left + shape.x, top + shape.y, shape.width, shape.height)
        if (shape.filled) pdf.fill(inkColour(shape.ink))
        else pdf.lineWidth(0.6).stroke(inkColour(shape.ink))
        return
      case 'dot':
        pdf.circle(left + shape.x, top + shape.y, shape.radius).fill(inkColour(shape.ink))
        return
      case 'text': {
        const how: How = { size: shape.size, colour: inkColour(shape.ink), line: true }
        const laid = this.#lay(shape.text, how)
        const wide = (laid.lines[0]?.width ?? 0) * shape.size
        const x = left + shape.x - (shape.anchor === 'start' ? 0 : shape.anchor === 'middle' ? wide / 2 : wide)
        // a drawing says where the line stands, paper where it begins
        this.#put(laid, x, top + shape.y - shape.size * ASCENT)
        return
      }
      case 'image': {
        const bytes = this.#book.imageOf(shape.file)
        if (!bytes) return
        pdf.opacity(0.5)
        pdf.image(bytes, left + shape.x, top + shape.y, { width: shape.width, height: shape.height })
        pdf.opacity(1)
      }
    }
  }

  #cards(cards: readonly Card[]): void {
    const gap = 10
    const width = (this.#width - gap) / 2
    const height = 112
    let column = 0
    for (const card of cards) {
      if (column === 0) this.#room(height + gap)
      const x = this.#left + column * (width + gap)
      this.#card(card, x, this.#pdf.y, width, height)
      column = 1 - column
      if (column === 0) this.#space(height + gap)
    }
    if (column === 1) this.#space(height + gap)
  }

  #card({ title, lines, path }: Card, x: number, y: number, width: number, height: number): void {
    const address = `${this.#book.address}${path}`
    const code = 66
    const room = width - code - 26
    this.#pdf.markContent('Artifact', { type: 'Layout' })
    this.#pdf.rect(x, y, width, height).lineWidth(0.6).stroke(QUIET)
    this.#pdf.endMarkedContent()
    const card = this.#pdf.struct('Sect')
    this.#root.add(card)
    card.add(
      this.#pdf.struct('P', {}, () =>
        this.#text(title, x + 8, y + 8, { size: 13, weight: 700, width: room, most: 17 }),
      ),
    )
    let down = y + 27
    for (const line of lines) {
      const left = y + height - 6 - down
      if (left < SMALL) break
      const laid = this.#lay(line, { size: SMALL, width: room, most: Math.min(left, 31) })
      const at = down
      card.add(this.#pdf.struct('P', {}, () => this.#put(laid, x + 8, at)))
      down += laid.height + 2
    }
    card.add(
      this.#pdf.struct('Figure', { alt: `Code that opens ${address}` }, () =>
        this.#code(address, x + width - code - 8, y + 8, code),
      ),
    )
    card.end()
    this.#pdf.y = y
  }

  #code(text: string, x: number, y: number, size: number): void {
    const modules = modulesOf(text, MASK)
    const cell = size / modules.length
    const bars = modules.flatMap((row, down) =>
      [...barsOf(row)].map(([from, to]) =>
        [x + from * cell, y + down * cell, (to - from) * cell, cell].map((each) => each.toFixed(2)).join(' '),
      ),
    )
    // hundreds of bars a code: written at once
    this.#pdf.addContent(bars.map((bar) => `${bar} re`).join('\n'))
    this.#pdf.fill('#000')
    this.#colour = ''
  }

  /** What could not be printed is said, with where it stands. */
  #replaced(): void {
    const { texts, more } = this.#letters.replaced()
    if (texts.length === 0) return
    this.#page()
    this.#words('H2', 'Letters that are not printed', { size: 16, weight: 700 })
    this.#space(6)
    this.#words(
      'P',
      `The fonts of this book lack some letters. Each is printed as a question mark. The plan file and the tables have them. They are missing in ${texts.length + more} ${texts.length + more === 1 ? 'text' : 'texts'}, such as:`,
      {},
    )
    this.#list(texts)
  }

  #font(font: string, { size = TEXT, colour = INK }: How): Pdf {
    if (this.#colour !== colour) this.#pdf.fillColor(colour)
    this.#colour = colour
    return this.#pdf.font(font).fontSize(size)
  }

  /** A text on its lines. It is laid out once, whether its height is asked for first or it is drawn at once. */
  #lay(text: string, how: How): Laid {
    const { size = TEXT, weight = 400, width = this.#width, line, most } = how
    const lines = this.#letters.lines(text, weight, {
      width: line ? Number.POSITIVE_INFINITY : width / size,
      most: most === undefined ? Number.POSITIVE_INFINITY : Math.max(1, Math.floor(most / (size * LINE))),
    })
    return { lines, how, height: lines.length * size * LINE }
  }

  /** Draws what is laid out, and goes on below it. */
  #put({ lines, how, height }: Laid, x: number, y: number): void {
    const { size = TEXT, width = this.#width, align, goTo } = how
    for (const [at, line] of lines.entries()) {
      const left = align === 'right' ? x + width - line.width * size : x
      for (const [part, { font, text }] of line.stretches.entries()) {
        const pdf = this.#font(font, how)
        // its width is known, so it is not measured again
        const measured = { textWidth: line.width * size, wordCount: 1 }
        const options = { lineBreak: false, ...measured, ...(goTo ? { goTo } : {}) }
        if (part === 0) pdf.text(text, left, y + at * size * LINE, options)
        else pdf.text(text, options)
      }
    }
    this.#pdf.y = y + height
  }

  #text(text: string, x: number, y: number, how: How): void {
    this.#put(this.#lay(text, how), x, y)
  }
}

/** From one line to the next, in ems, as the font has it. */
const LINE = 1.266
/** How high the letters stand above their line, in ems. */
const ASCENT = 0.88

type How = {
  size?: number
  weight?: Weight
  colour?: string
  width?: number
  align?: 'right'
  goTo?: string
  /** On one line, however long. */
  line?: true
  /** No higher than that: what does not fit is cut. */
  most?: number
}

/** The height of a row, with what stands above and below its letters. */
const heightOf = (cells: readonly Laid[]): number => Math.max(...cells.map(({ height }) => height)) + 5

/** A text as it stands on its lines. */
type Laid = { lines: readonly Line[]; how: How; height: number }
