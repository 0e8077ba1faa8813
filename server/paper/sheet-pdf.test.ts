import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, it } from 'vitest'
import { orderSheet } from '../../core/order/sheet'
import { demo } from '../../tests/support/demo-plan'
import { sheetPdf } from './sheet-pdf'

/** The words of a PDF as pdf.js reads them. */
async function wordsOf(pdf: Buffer): Promise<string> {
  const task = getDocument({ data: new Uint8Array(pdf), verbosity: 0 })
  const document = await task.promise
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, at) => {
      const { items } = await (await document.getPage(at + 1)).getTextContent()
      return items.map((item) => ('str' in item ? item.str : '')).join(' ')
    }),
  )
  await task.destroy()
  return pages.join(' ').replace(/\s+/g, ' ')
}

it('an order on paper says who it goes to, what is wanted by its number, and what it comes to', async () => {
  const [order] = demo.orders
  if (!order) throw new Error('the demo has an order')
  const words = await wordsOf(await sheetPdf(orderSheet(demo, order, 'm')))
  expect(words).toContain('To: Pier Cable Store')
  expect(words).toContain('PD-3030 DP lead, HBR3, 3 m 3 m 2 16.00 32.00')
  // 26 + 32 and 5.90 for delivery
  expect(words).toContain('Delivery: 5.90 EUR')
  expect(words).toContain('In all: 63.90 EUR')
})
