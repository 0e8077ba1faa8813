import { readFileSync } from 'node:fs'
import { create, type Font } from 'fontkit'
import LineBreaker from 'linebreak'
import { decompress } from 'wawoff2'
import { fontFile } from './pdf'

/** The fonts of a book, in the order in which a letter is looked for: each covers scripts that those before it do not. */
const FAMILIES = ['latin', 'latin-ext', 'vietnamese', 'cyrillic', 'cyrillic-ext'] as const

/** A weight of the text. */
export type Weight = 400 | 700

/** A stretch of a text that one font can print. */
export type Stretch = { font: string; text: string }

/** A line of a text, and how wide it is at a size of one. */
export type Line = { stretches: readonly Stretch[]; width: number }

/** What a text must keep to: the width of a line at a size of one, and how many lines there may be. */
export type Room = { width: number; most: number }

/** What stands in place of a letter that no font has. */
const REPLACED = '?'
/** What stands where a text is cut. */
const CUT = '…'
/** Places that are named where letters were replaced. */
const MOST_TOLD = 12

export const fontName = (family: string, weight: Weight): string => `${family} ${weight}`

/** Every font of a book as it is embedded, by its name. Unpacked once: what draws would unpack a packed one anew for every letter. */
export async function bookFonts(): Promise<ReadonlyMap<string, Buffer>> {
  const fonts = new Map<string, Buffer>()
  for (const family of FAMILIES)
    for (const weight of [400, 700] as const) {
      const packed = readFileSync(fontFile(`@fontsource/overpass/files/overpass-${family}`, weight, 'woff2'))
      fonts.set(fontName(family, weight), Buffer.from(await decompress(packed)))
    }
  return fonts
}

/** Deals the letters of a text to the fonts that have them, and remembers what none has. */
export class Letters {
  readonly #fonts: readonly { family: string; font: Font; bold: Font }[]
  readonly #advances = { 400: new Map<number, number>(), 700: new Map<number, number>() }
  readonly #replaced = new Set<string>()

  constructor(fonts: ReadonlyMap<string, Buffer>) {
    this.#fonts = FAMILIES.flatMap((family) => {
      const [font, bold] = ([400, 700] as const).map((weight) => fonts.get(fontName(family, weight)))
      return font && bold ? [{ family, font: create(font) as Font, bold: create(bold) as Font }] : []
    })
  }

  /** The stretches of a text. Most texts are one. */
  stretches(text: string, weight: Weight): Stretch[] {
    if (PLAIN.test(text)) return [{ font: fontName('latin', weight), text }]
    const found: Stretch[] = []
    let lost = false
    for (const letter of text) {
      const family = this.#fonts.find(({ font }) => font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0))?.family
      lost ||= family === undefined
      const font = fontName(family ?? 'latin', weight)
      const last = found.at(-1)
      const printed = family === undefined ? (INVISIBLE.test(letter) ? '' : REPLACED) : letter
      // a space belongs to whatever it stands beside
      if (last && (last.font === font || letter === ' ')) last.text += printed
      else found.push({ font, text: printed })
    }
    if (lost) this.#replaced.add(text)
    return found
  }

  /** The lines of a text. Where there are too many, the last that may be ends in three dots. A word that is wider than a line is broken anywhere. */
  lines(text: string, weight: Weight, { width, most }: Room): Line[] {
    const lines = text
      .split('\n')
      .flatMap((line) => (this.#width(line, weight) <= width ? [line] : this.#broken(line, weight, width)))
    const kept = lines.slice(0, most)
    if (lines.length > most) kept.push(this.#shortened(kept.pop() ?? '', weight, width))
    return kept.map((line) => ({ stretches: this.stretches(line, weight), width: this.#width(line, weight) }))
  }

  #broken(text: string, weight: Weight, width: number): string[] {
    const lines: string[] = []
    let line = ''
    let wide = 0
    const add = (piece: string): void => {
      if (line !== '' && wide + this.#width(piece.trimEnd(), weight) > width) {
        lines.push(line.trimEnd())
        line = ''
        wide = 0
      }
      line += piece
      wide += this.#width(piece, weight)
    }
    for (const piece of pieces(text))
      if (this.#width(piece.trimEnd(), weight) <= width) add(piece)
      else for (const letter of piece) add(letter)
    return [...lines, line.trimEnd()]
  }

  #shortened(line: string, weight: Weight, width: number): string {
    const letters = [...line]
    while (letters.length > 0 && this.#width(`${letters.join('')}${CUT}`, weight) > width) letters.pop()
    return `${letters.join('')}${CUT}`
  }

  /** How wide a text is at a size of one, its letters side by side: pairs that stand closer only make it narrower. */
  #width(text: string, weight: Weight): number {
    let sum = 0
    for (const letter of text) sum += this.#advance(letter.codePointAt(0) ?? 0, weight)
    return sum
  }

  #advance(code: number, weight: Weight): number {
    const known = this.#advances[weight].get(code)
    if (known !== undefined) return known
    const font = this.#fonts.find((each) => each.font.hasGlyphForCodePoint(code))?.[weight === 700 ? 'bold' : 'font']
    const wide = font ? font.glyphForCodePoint(code).advanceWidth / font.unitsPerEm : 0.6
    this.#advances[weight].set(code, wide)
    return wide
  }

  /** The texts in which letters were replaced, the first of them. */
  replaced(): { texts: string[]; more: number } {
    const all = [...this.#replaced]
    return { texts: all.slice(0, MOST_TOLD), more: Math.max(0, all.length - MOST_TOLD) }
  }
}

/** A text cut wherever a line may end (Unicode's annex 14). */
function* pieces(text: string): Generator<string> {
  const breaker = new LineBreaker(text)
  let from = 0
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    yield text.slice(from, next.position)
    from = next.position
  }
}

/** The letters that the first font has. */
const PLAIN = /^[ -~\u00a0-\u00ff]*$/
/** Marks that join or turn what stands beside them, and print nothing themselves. */
const INVISIBLE = /^[\p{M}\p{Cf}]$/u
