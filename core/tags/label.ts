import { svgText } from '../files/svg-text'
import { connectorNames, type End } from '../standards/connectors'
import type { Cable } from '../vocabulary/cable'

/** A size of label in millimetres, and how many lie on a sheet; a roll has one a sheet. */
export type LabelSize = {
  id: string
  name: string
  width: number
  height: number
  sheet: {
    width: number
    height: number
    columns: number
    rows: number
    left: number
    top: number
    gapX: number
    gapY: number
  }
}

const A4 = { width: 210, height: 297 }
const LETTER = { width: 215.9, height: 279.4 }

/** Sizes that label sheets and rolls are commonly sold in (common practice). */
export const LABEL_SIZES: readonly LabelSize[] = [
  {
    id: 'a4-24',
    name: 'A4, 24 a sheet (70 x 37 mm)',
    width: 70,
    height: 37,
    sheet: { ...A4, columns: 3, rows: 8, left: 0, top: 0.5, gapX: 0, gapY: 0 },
  },
  {
    id: 'a4-65',
    name: 'A4, 65 a sheet (38.1 x 21.2 mm)',
    width: 38.1,
    height: 21.2,
    sheet: { ...A4, columns: 5, rows: 13, left: 4.75, top: 10.7, gapX: 2.5, gapY: 0 },
  },
  {
    id: 'letter-30',
    name: 'Letter, 30 a sheet (2 5/8 x 1 in)',
    width: 66.7,
    height: 25.4,
    sheet: { ...LETTER, columns: 3, rows: 10, left: 4.75, top: 12.7, gapX: 3.2, gapY: 0 },
  },
  {
    id: 'roll-54x25',
    name: 'Roll, one a label (54 x 25 mm)',
    width: 54,
    height: 25,
    sheet: { width: 54, height: 25, columns: 1, rows: 1, left: 0, top: 0, gapX: 0, gapY: 0 },
  },
  {
    id: 'roll-62x29',
    name: 'Roll, one a label (62 x 29 mm)',
    width: 62,
    height: 29,
    sheet: { width: 62, height: 29, columns: 1, rows: 1, left: 0, top: 0, gapX: 0, gapY: 0 },
  },
]

/** Cables whose tags are printed in one go: more is a roll of labels that nobody sticks on in one sitting. */
export const MOST_TAGGED = 200

/** What is printed at one end of a cable. */
export type Label = {
  tag: string
  code: string
  /** The device it came with: whoever looks for that device's lead finds it. */
  owner: string | null
  /** "host end, type-C" on a lead that carries one way only; which end it is on any other. */
  end: string
  /** Which way the arrow of a one-way lead points from here: along the lead, or back out of the plug. */
  arrow: 'into the lead' | 'out of the lead' | null
  /** Dark squares of the code that opens the cable's page, row by row. */
  modules: readonly (readonly boolean[])[]
}

/** The two labels of a cable, one for each end. */
export function labelsOf(
  cable: Cable,
  { code, owner = null }: { code: string; owner?: string | null },
  modules: Label['modules'],
): [Label, Label] {
  const name = (end: End): string => connectorNames[end.connector]
  const [first, second] = cable.ends
  const shared = { tag: cable.tag, code, owner, modules }
  return [
    {
      ...shared,
      end: cable.oneWay ? `host end, ${name(first)}` : `end 1, ${name(first)}`,
      arrow: cable.oneWay ? 'into the lead' : null,
    },
    {
      ...shared,
      end: cable.oneWay ? `device end, ${name(second)}` : `end 2, ${name(second)}`,
      arrow: cable.oneWay ? 'out of the lead' : null,
    },
  ]
}

const round = (value: number): number => Number(value.toFixed(3))

/** Names the fonts have where labels are drawn; whoever draws them brings them along. */
export const LABEL_FONTS = { text: 'Overpass', mono: 'Overpass Mono' } as const
/** Letters of these fonts are about this wide, in ems: enough to keep a line within its label. */
const MONO_WIDTH = 0.62
const TEXT_WIDTH = 0.55

/** One label as SVG without its frame, drawn in millimetres from the corner at (x, y). */
export function drawLabel(label: Label, { width, height }: Pick<LabelSize, 'width' | 'height'>, x = 0, y = 0): string {
  const margin = Math.min(2.5, height * 0.1)
  const square = Math.min(height - 2 * margin, width * 0.4)
  const left = margin + square + margin
  const room = width - left - margin
  const lines: (readonly [text: string, font: string, weight: number, size: number, wide: number])[] = [
    [label.tag, LABEL_FONTS.mono, 700, height * 0.26, MONO_WIDTH],
    [label.code, LABEL_FONTS.mono, 400, height * 0.15, MONO_WIDTH],
    [label.end, LABEL_FONTS.text, 400, height * 0.12, TEXT_WIDTH],
    ...(label.owner ? [[`of ${label.owner}`, LABEL_FONTS.text, 700, height * 0.12, TEXT_WIDTH] as const] : []),
  ]
  let down = margin
  const texts = lines.map(([text, font, weight, wished, wide]) => {
    const size = Math.min(wished, room / (wide * Math.max(1, text.length)))
    down += size
    const at = `x="${round(x + left)}" y="${round(y + down)}"`
    down += wished * 0.35
    return `<text ${at} font-family="${font}" font-weight="${weight}" font-size="${round(size)}" fill="#000">${svgText(text)}</text>`
  })
  const arrow = label.arrow
    ? drawArrow(label.arrow, x + left, y + height - margin - height * 0.12, room, height * 0.12)
    : ''
  return `${drawModules(label.modules, x + margin, y + (height - square) / 2, square)}${texts.join('')}${arrow}`
}

/** Neighbours in a row are drawn as one bar: a third of the shapes, and no hairlines between squares on paper. */
function drawModules(modules: Label['modules'], x: number, y: number, size: number): string {
  const cell = size / modules.length
  const bars = modules.flatMap((row, down) =>
    barsOf(row).map(([from, to]) => {
      const width = round((to - from) * cell)
      return `M${round(x + from * cell)} ${round(y + down * cell)}h${width}v${round(cell)}h-${width}z`
    }),
  )
  return `<path d="${bars.join('')}" fill="#000"/>`
}

/** Where dark squares of a row stand side by side: first, and one past the last. */
export function barsOf(row: readonly boolean[]): [number, number][] {
  const bars: [number, number][] = []
  for (const [at, dark] of row.entries()) {
    const bar = bars.at(-1)
    if (!dark) continue
    if (bar && bar[1] === at) bar[1] = at + 1
    else bars.push([at, at + 1])
  }
  return bars
}

/** A plug at the left, the lead going right; the arrow says which way it carries. */
function drawArrow(arrow: NonNullable<Label['arrow']>, x: number, y: number, width: number, height: number): string {
  const length = Math.min(width, height * 5)
  const [start, end] = arrow === 'into the lead' ? [x, x + length] : [x + length, x]
  const back = (end - start) / Math.abs(end - start)
  const head = height * 0.8 * back
  const middle = y + height / 2
  return `<path d="M${round(start)} ${round(middle)}H${round(end)}M${round(end - head)} ${round(y)}L${round(end)} ${round(middle)}L${round(end - head)} ${round(y + height)}" fill="none" stroke="#000" stroke-width="${round(height * 0.18)}"/>`
}

/** Labels dealt to sheets, as many as it takes. */
export function sheetsOf(labels: readonly Label[], { sheet }: LabelSize): Label[][] {
  const each = sheet.columns * sheet.rows
  const sheets: Label[][] = []
  for (let at = 0; at < labels.length; at += each) sheets.push(labels.slice(at, at + each))
  return sheets
}

/** One sheet as SVG in millimetres; `style` brings the fonts. */
export function drawSheet(labels: readonly Label[], size: LabelSize, style = ''): string {
  const { sheet, width, height } = size
  const drawn = labels.map((label, at) => {
    const x = sheet.left + (at % sheet.columns) * (width + sheet.gapX)
    const y = sheet.top + Math.floor(at / sheet.columns) * (height + sheet.gapY)
    return drawLabel(label, size, x, y)
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${sheet.width}mm" height="${sheet.height}mm" viewBox="0 0 ${sheet.width} ${sheet.height}">${style ? `<style>${style}</style>` : ''}${drawn.join('')}</svg>`
}
