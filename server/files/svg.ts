import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'

export const LARGEST_SVG_BYTES = 2_000_000

/** What leads out of the drawing: only places within it and pictures it brings along may be named. */
const staysInside = (address: string): boolean =>
  address.startsWith('#') || /^data:image\/(png|jpeg|webp);base64,/i.test(address)

/** Whether a piece of style asks for something that is not in the drawing. */
const fetches = (style: string): boolean =>
  /@import/i.test(style) ||
  style
    .split(/url\(/i)
    .slice(1)
    .some((rest) => !/^["']?#/.test(rest.trimStart()))

/** What takes a drawing apart. It brings a browser's whole document with it, which a start need not wait for. */
async function readPurifier() {
  const { default: DOMPurify } = await import('isomorphic-dompurify')
  DOMPurify.addHook('afterSanitizeAttributes', (node) => {
    for (const name of ['href', 'xlink:href']) {
      const address = node.getAttribute(name)
      if (address !== null && !staysInside(address.trim())) node.removeAttribute(name)
    }
    for (const { name, value } of [...node.attributes]) if (fetches(value)) node.removeAttribute(name)
  })
  DOMPurify.addHook('afterSanitizeElements', (node) => {
    if (node.nodeName.toLowerCase() !== 'style') return
    // declaration by declaration, so that the rest of the style stays
    const pieces = (node.textContent ?? '').split(/(?<=[;{}])/)
    node.textContent = pieces.map((piece) => (fetches(piece) ? (/[{}]$/.exec(piece)?.[0] ?? '') : piece)).join('')
  })
  return DOMPurify
}
let purifier: ReturnType<typeof readPurifier> | undefined

/** A drawing in lines without scripts, entities, links and whatever is fetched from elsewhere. */
export async function harmlessSvg(text: string): Promise<Parsed<string>> {
  purifier ??= readPurifier()
  const clean = (await purifier).sanitize(text.replace(/^\uFEFF/, ''), {
    USE_PROFILES: { svg: true, svgFilters: true },
    FORBID_TAGS: ['foreignObject', 'a', 'animate', 'animateTransform', 'animateMotion', 'set'],
    FORBID_ATTR: ['onbegin', 'onload'],
    NAMESPACE: 'http://www.w3.org/1999/xhtml',
  })
  const start = clean.indexOf('<svg')
  const end = clean.lastIndexOf('</svg>')
  if (start < 0 || end < start)
    return unreadable('There is no drawing in this SVG once what may act in it is taken out.')
  const svg = clean.slice(start, end + '</svg>'.length)
  return parsed(/^<svg[^>]*\sxmlns=/.test(svg) ? svg : svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"'))
}
