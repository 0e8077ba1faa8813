import type { OrderSheet } from '../../core/order/sheet'
import { drawPdf } from '../paper/pdf'

/** An order on paper: who it goes to, what is wanted in the supplier's own words and numbers, and what it comes to. */
export const orderPdf = ({ title, to, heads, rows, foot }: OrderSheet): Promise<Buffer> =>
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
