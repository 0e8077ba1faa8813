import { readFileSync } from 'node:fs'
import QRCode from 'qrcode'
import { abilitiesOf } from '../../core/link/abilities'
import type { SiteIndex } from '../../core/plan/site-index'
import type { LengthUnit } from '../../core/quantity/length'
import { drawLabel, drawSheet, type Label, type LabelSize, labelsOf, sheetsOf } from '../../core/tags/label'
import { shortCode } from '../../core/tags/short-code'
import type { Cable } from '../../core/vocabulary/cable'
import { drawPdf, fontFile, fontFiles } from '../paper/pdf'

/** Tags that are asked for: which cables with what stands on them, on which labels, and the address that their codes open. */
export type TagRequest = { tagged: readonly Tagged[]; site: string; address: string; size: LabelSize }
type Tagged = {
  cable: Cable
  code: string
  /** The device it came with. */
  owner: string | null
}

/** What stands on the tag of each cable. */
export const taggedOf = (index: SiteIndex, cables: readonly Cable[], unit: LengthUnit): Tagged[] =>
  cables.map((cable) => ({
    cable,
    code: shortCode(abilitiesOf(index, cable), unit),
    owner: cable.suppliedWith ? (index.devices.get(cable.suppliedWith)?.name ?? null) : null,
  }))

/** The labels of cables: both ends each, with the code that opens the cable's page. */
export const labelsFor = ({ tagged, site, address }: TagRequest): Label[] =>
  tagged.flatMap(({ cable, code, owner }) =>
    labelsOf(cable, { code, owner }, modulesOf(`${address}/sites/${site}/cables/${encodeURIComponent(cable.id)}`)),
  )

/** The dark squares of a code that says a text, row by row. Which mask breaks up its squares best is tried out, unless one is given. */
export function modulesOf(text: string, mask?: QRCode.QRCodeMaskPattern): boolean[][] {
  // as bytes throughout: to look for stretches that fit more closely takes longer than drawing
  const { modules } = QRCode.create([{ data: new TextEncoder().encode(text), mode: 'byte' }], {
    errorCorrectionLevel: 'M',
    ...(mask === undefined ? {} : { maskPattern: mask }),
  })
  return Array.from({ length: modules.size }, (_, row) =>
    Array.from({ length: modules.size }, (__, column) => modules.get(row, column) === 1),
  )
}

/** One sheet as SVG with its fonts inside; null where there is no such sheet. */
export function svgSheet(request: TagRequest, number: number): string | null {
  const { size } = request
  const labels = sheetsOf(labelsFor(request), size)[number - 1]
  if (!labels) return null
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
export async function pdfSheets(request: TagRequest): Promise<Buffer> {
  const { size } = request
  const { sheet, width, height } = size
  const points = (millimetres: number): number => millimetres * POINTS_PER_MILLIMETRE
  const sheets = sheetsOf(labelsFor(request), size)
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
  return drawPdf({
    pageSize: { width: points(sheet.width), height: points(sheet.height) },
    pageMargins: 0,
    info: { title: 'Cable tags' },
    content,
  })
}
