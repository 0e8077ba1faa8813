import PDFDocument from 'pdfkit'
import type { Block, Card, Table, Title } from '../../core/handover/block'
import { type Drawing, inkColour, type Shape } from '../../core/handover/drawing'
import { barsOf } from '../../core/tags/label'
import { modulesOf } from '../tags/tag-sheets'
import { bookFonts, fontName, Letters, type Weight } from './letters'

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
  #pages = 0
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
    for (const [name, bytes] of fonts) this.#pdf.registerFont(name, bytes)
    this.#root = this.#pdf.struct('Document')
    this.#pdf.addStructure(this.#root)
  }

  async print(): Promise<Buffer> {
    const chunks: Buffer[] = []
    this.#pdf.on('data', (chunk: Buffer) => chunks.push(chunk))
    const ended = new Promise<void>((done, fail) => {
      this.#pdf.on('end', done)
      this.#pdf.on('error', fail)
    })
    this.#front()
    for (const block of this.#book.blocks) this.#block(block)
    this.#replaced()
    this.#tableOfContents()
    this.#root.end()
    this.#pdf.end()
    await ended
    return Buffer.concat(chunks)
  }

  #page(): void {
    this.#pdf.addPage()
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
    this.#room(this.#height(text, { ...how, width: this.#width }))
    into.add(this.#pdf.struct(tag, {}, () => this.#text(text, this.#left, this.#pdf.y, { ...how, width: this.#width })))
  }

  #list(items: readonly string[]): void {
    const list = this.#pdf.struct('L')
    this.#root.add(list)
    for (const item of items) {
      const width = this.#width - 14
      this.#room(this.#height(item, { width }))
      const { y } = this.#pdf
      const entry = this.#pdf.struct('LI')
      list.add(entry)
      entry.add(this.#pdf.struct('Lbl', {}, () => this.#text('•', this.#left, y, { width: 12 })))
      entry.add(this.#pdf.struct('LBody', {}, () => this.#text(item, this.#left + 14, y, { width })))
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
    const head = (): void => this.#row(table, 'TH', heads, widths)
    this.#room(44)
    head()
    for (const row of rows) {
      const height = Math.max(...row.map((cell, at) => this.#cellHeight(cell, widths[at] ?? 40)))
      if (this.#pdf.y + height > this.#bottom) {
        this.#page()
        head()
      }
      this.#row(table, 'TD', row, widths)
    }
    table.end()
    this.#space(GAP + 2)
  }

  #cellHeight = (text: string, width: number): number => this.#height(text, { size: SMALL, width: width - 6 }) + 5

  #row(table: Structure, tag: 'TH' | 'TD', cells: readonly string[], widths: readonly number[]): void {
    const row = this.#pdf.struct('TR')
    table.add(row)
    const top = this.#pdf.y
    let x = this.#left
    let deepest = top
    const weight: Weight = tag === 'TH' ? 700 : 400
    for (const [at, cell] of cells.entries()) {
      const width = widths[at] ?? 40
      row.add(this.#pdf.struct(tag, {}, () => this.#text(cell, x, top + 2, { size: SMALL, weight, width: width - 6 })))
      deepest = Math.max(deepest, this.#pdf.y)
      x += width
    }
    row.end()
    const y = Math.min(deepest + 3, this.#bottom)
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
        const wide = this.#lineWidth(shape.text, how)
        const x = left + shape.x - (shape.anchor === 'start' ? 0 : shape.anchor === 'middle' ? wide / 2 : wide)
        // a drawing says where the line stands, paper where it begins
        this.#text(shape.text, x, top + shape.y - shape.size * ASCENT, how)
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
      const tall = Math.min(this.#height(line, { size: SMALL, width: room }), left, 31)
      const at = down
      card.add(this.#pdf.struct('P', {}, () => this.#text(line, x + 8, at, { size: SMALL, width: room, most: tall })))
      down += tall + 2
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
    for (const [down, row] of modules.entries())
      for (const [from, to] of barsOf(row)) this.#pdf.rect(x + from * cell, y + down * cell, (to - from) * cell, cell)
    this.#pdf.fill('#000')
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
    return this.#pdf.font(font).fontSize(size).fillColor(colour)
  }

  #lineWidth(text: string, how: How): number {
    return this.#letters
      .stretches(text, how.weight ?? 400)
      .reduce((sum, stretch) => sum + this.#font(stretch.font, how).widthOfString(stretch.text), 0)
  }

  #height(text: string, how: How): number {
    const { size = TEXT, weight = 400, width = this.#width } = how
    if (text === '') return size
    if (this.#isShort(text, how)) return size * LINE
    const [first] = this.#letters.stretches(text, weight)
    return this.#font(first?.font ?? fontName('latin', weight), how).heightOfString(text, { width })
  }

  /** It stands on one line for certain: it need not be tried. */
  #isShort(text: string, { size = TEXT, weight = 400, width = this.#width }: How): boolean {
    return (
      text.length * size < 8 * width && this.#letters.width(text, weight) * size < 0.97 * width && !text.includes('\n')
    )
  }

  #text(text: string, x: number, y: number, how: How): void {
    const { weight = 400, width, align, goTo, line, most } = how
    const stretches = this.#letters.stretches(text, weight)
    const short = line || (!align && this.#isShort(text, how))
    for (const [at, stretch] of stretches.entries()) {
      const options = {
        ...(short ? { lineBreak: false } : { width }),
        ...(align ? { align } : {}),
        ...(goTo ? { goTo } : {}),
        ...(most ? { height: most, ellipsis: true } : {}),
        continued: at < stretches.length - 1,
      }
      const pdf = this.#font(stretch.font, how)
      if (at === 0) pdf.text(stretch.text, x, y, options)
      else pdf.text(stretch.text, options)
    }
    // a single line is not followed by the next by itself
    if (short) this.#pdf.y = y + (how.size ?? TEXT) * LINE
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
