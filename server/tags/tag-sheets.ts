import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import pdfmake from 'pdfmake'
import QRCode from 'qrcode'
import { abilitiesOf } from '../../core/link/abilities'
import type { Cable } from '../../core/plan/cable'
import type { SiteIndex } from '../../core/plan/site-index'
import type { LengthUnit } from '../../core/quantity/length'
import {
  drawLabel,
  drawSheet,
  LABEL_FONTS,
  type Label,
  type LabelSize,
  labelsOf,
  sheetsOf,
} from '../../core/tags/label'
import { shortCode } from '../../core/tags/short-code'

const require = createRequire(import.meta.url)

/** The fonts of the tags, as files: they go into every sheet, so that it prints alike everywhere. */
const fontFiles = {
  [LABEL_FONTS.text]: { family: '@fontsource/overpass/files/overpass-latin', weights: [400, 700] },
  [LABEL_FONTS.mono]: { family: '@fontsource/overpass-mono/files/overpass-mono-latin', weights: [400, 700] },
}
/** The smaller woff2 for the web; woff for paper, as pdfmake embeds a woff2 in a way that readers show nothing of. */
const fontFile = (family: string, weight: number, format: 'woff' | 'woff2'): string =>
  require.resolve(`${family}-${weight}-normal.${format}`)

/** The labels of cables: both ends each, with the code that opens the cable's page at `address`. */
export function labelsFor(index: SiteIndex, cables: readonly Cable[], address: string, unit: LengthUnit): Label[] {
  return cables.flatMap((cable) => {
    const code = shortCode(abilitiesOf(index, cable), unit)
    return labelsOf(
      cable,
      code,
      modulesOf(`${address}/sites/${index.plan.site.id}/cables/${encodeURIComponent(cable.id)}`),
    )
  })
}

function modulesOf(text: string): boolean[][] {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  return Array.from({ length: modules.size }, (_, row) =>
    Array.from({ length: modules.size }, (__, column) => modules.get(row, column) === 1),
  )
}

/** One sheet as SVG with its fonts inside. */
export function svgSheet(labels: readonly Label[], size: LabelSize): string {
  const faces = Object.entries(fontFiles).flatMap(([name, { family, weights }]) =>
    weights.map((weight) => {
      const data = readFileSync(fontFile(family, weight, 'woff2')).toString('base64')
      return `@font-face{font-family:"${name}";font-weight:${weight};src:url(data:font/woff2;base64,${data}) format("woff2")}`
    }),
  )
  return drawSheet(labels, size, faces.join(''))
}

const POINTS_PER_MILLIMETRE = 72 / 25.4

/** All sheets as one PDF with its fonts inside. */
export async function pdfSheets(labels: readonly Label[], size: LabelSize): Promise<Buffer> {
  // a sheet is made of what Hallway itself draws: nothing is fetched, and no file but its fonts is read
  const fonts = new Set(
    Object.values(fontFiles).flatMap(({ family, weights }) =>
      weights.map((weight) => fontFile(family, weight, 'woff')),
    ),
  )
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path) => fonts.has(path))
  pdfmake.setFonts(
    Object.fromEntries(
      Object.entries(fontFiles).map(([name, { family }]) => [
        name,
        { normal: fontFile(family, 400, 'woff'), bold: fontFile(family, 700, 'woff') },
      ]),
    ),
  )
  const { sheet, width, height } = size
  const points = (millimetres: number): number => millimetres * POINTS_PER_MILLIMETRE
  const sheets = sheetsOf(labels, size)
  const content = sheets.flatMap((each, page) =>
    each.map((label, at) => ({
      svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">${drawLabel(label, size)}</svg>`,
      width: points(width),
      height: points(height),
      absolutePosition: {
        x: points(sheet.left + (at % sheet.columns) * (width + sheet.gapX)),
        y: points(sheet.top + Math.floor(at / sheet.columns) * (height + sheet.gapY)),
      },
      ...(page > 0 && at === 0 ? { pageBreak: 'before' as const } : {}),
    })),
  )
  return pdfmake
    .createPdf({
      pageSize: { width: points(sheet.width), height: points(sheet.height) },
      pageMargins: 0,
      defaultStyle: { font: LABEL_FONTS.text },
      info: { title: 'Cable tags' },
      content,
    })
    .getBuffer()
}
