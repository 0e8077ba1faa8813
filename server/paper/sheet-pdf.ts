import type { Sheet } from '../../core/vocabulary/sheet'
import { drawPdf } from './pdf'

/** A sheet on paper: who it is for, its table, and what it comes to. */
export const sheetPdf = ({ title, to, heads, rows, foot }: Sheet): Promise<Buffer> =>
  drawPdf({
    pageSize: 'A4',
    pageMargins: 48,
    info: { title },
    content: [
      { text: title, fontSize: 18, bold: true, margin: [0, 0, 0, 6] },
      ...to.map((line) => ({ text: line })),
      {
        margin: [0, 14, 0, 10],
        table: {
          headerRows: 1,
          widths: heads.map((_, at) => (at === 1 ? '*' : 'auto')),
          body: [heads.map((head) => ({ text: head, bold: true })), ...rows.map((row) => [...row])],
        },
        layout: 'lightHorizontalLines',
      },
      ...foot.map((line) => ({ text: line })),
    ],
  })
