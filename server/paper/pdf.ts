import { createRequire } from 'node:module'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { LABEL_FONTS } from '../../core/tags/label'

const require = createRequire(import.meta.url)

/** The fonts of all that is printed, as files: they go into every sheet, so that it prints alike everywhere. */
export const fontFiles = {
  [LABEL_FONTS.text]: { family: '@fontsource/overpass/files/overpass-latin', weights: [400, 700] },
  [LABEL_FONTS.mono]: { family: '@fontsource/overpass-mono/files/overpass-mono-latin', weights: [400, 700] },
}
/** The smaller woff2 for the web; woff for paper, as pdfmake embeds a woff2 in a way that readers show nothing of. */
export const fontFile = (family: string, weight: number, format: 'woff' | 'woff2'): string =>
  require.resolve(`${family}-${weight}-normal.${format}`)

/** A document as a PDF with its fonts inside. It is made of what Hallway itself says: nothing is fetched, and no file but its fonts is read. */
export async function drawPdf(document: TDocumentDefinitions): Promise<Buffer> {
  const { default: pdfmake } = await import('pdfmake')
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
  return pdfmake.createPdf({ defaultStyle: { font: LABEL_FONTS.text }, ...document }).getBuffer()
}
