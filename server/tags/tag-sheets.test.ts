import readCode from 'jsqr'
import { expect, it } from 'vitest'
import { indexPlan } from '../../core/plan/site-index'
import { LABEL_SIZES } from '../../core/tags/label'
import { demo } from '../../tests/support/demo-plan'
import { labelsFor, pdfSheets, svgSheet, type TagRequest, taggedOf } from './tag-sheets'

const index = indexPlan(demo)
const [smallest] = LABEL_SIZES
if (!smallest) throw new Error('no size')
const asked = (size = smallest): TagRequest => ({
  tagged: taggedOf(index, demo.cables.slice(0, 20), 'm'),
  site: 'saltmarsh',
  address: 'http://127.0.0.1:4310',
  size,
})
const labels = labelsFor(asked())

it('its code is read by a reader of such codes, and opens the page of the cable', () => {
  const [label] = labels
  if (!label) throw new Error('no label')
  // four dots a square and four squares of white around, as a camera needs them
  const { modules } = label
  const side = (modules.length + 8) * 4
  const picture = new Uint8ClampedArray(side * side * 4).fill(255)
  for (let y = 0; y < side; y += 1)
    for (let x = 0; x < side; x += 1)
      if (modules[Math.floor(y / 4) - 4]?.[Math.floor(x / 4) - 4])
        picture.fill(0, (y * side + x) * 4, (y * side + x) * 4 + 3)
  expect(readCode(picture, side, side)?.data).toBe('http://127.0.0.1:4310/sites/saltmarsh/cables/c-0001')
})

it('an SVG sheet carries its fonts and both ends of every cable', () => {
  const svg = svgSheet(asked(), 1) ?? ''
  expect(svgSheet(asked(), 99)).toBeNull()
  expect(svg.match(/@font-face/g)).toHaveLength(4)
  expect(svg).toContain('data:font/woff2;base64,')
  expect(svg.match(/C-0001/g)).toHaveLength(2)
})

it.each(LABEL_SIZES)('$name: a PDF with its fonts inside, as many pages as it takes', async (size) => {
  const pdf = await pdfSheets(asked(size))
  const text = pdf.toString('latin1')
  expect(text.startsWith('%PDF-')).toBe(true)
  const pages = Math.ceil(labels.length / (size.sheet.columns * size.sheet.rows))
  expect(text.match(/\/Type \/Page\b/g)).toHaveLength(pages)
  expect(text).toMatch(/\/FontFile[23]/)
  expect(text).toContain('OverpassMono')
})
