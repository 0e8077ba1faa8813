import { svgText } from '../files/svg-text'

/** Points of paper, 72 to the inch (PostScript). */
export type Points = number
export const POINTS_PER_METRE = 72 / 0.0254

/** What is drawn of a thing decides its ink; whoever draws chooses the colour, and nothing is told by it alone. */
export type Ink = 'ink' | 'quiet' | 'pathway' | 'run' | 'wall' | 'narrow' | 'shut' | 'new'

export type Shape =
  | { sort: 'line'; points: readonly (readonly [Points, Points])[]; ink: Ink; width: Points; dashed?: true }
  | { sort: 'box'; x: Points; y: Points; width: Points; height: Points; ink: Ink; filled?: true }
  | { sort: 'dot'; x: Points; y: Points; radius: Points; ink: Ink }
  | { sort: 'text'; x: Points; y: Points; text: string; size: Points; ink: Ink; anchor: 'start' | 'middle' | 'end' }
  /** A kept file that lies under all else. */
  | { sort: 'image'; file: string; x: Points; y: Points; width: Points; height: Points }

/** A drawing as figures, in points from its upper left corner: on paper and on a screen it is the same. */
export type Drawing = { width: Points; height: Points; shapes: readonly Shape[] }

/** A letter is about this wide, in ems (Overpass; a little more, so that nothing runs over). */
const LETTER_WIDTH = 0.56
export const textWidth = (text: string, size: Points): Points => text.length * LETTER_WIDTH * size

const inks: Record<Ink, string> = {
  ink: '#22303c',
  quiet: '#5c6670',
  pathway: '#7a6a4f',
  run: '#1d4f7a',
  wall: '#22303c',
  narrow: '#a66a12',
  shut: '#a33a2a',
  new: '#1b6b3a',
}
/** The colour of an ink on light paper. */
export const inkColour = (ink: Ink): string => inks[ink]

const figure = (value: number): string => String(Number(value.toFixed(2)))

/**
 * A drawing as an SVG file, as large as on paper. `imageOf` answers a kept file as a data address; what is gone is left out.
 */
export function drawingSvg(
  { width, height, shapes }: Drawing,
  title: string,
  imageOf: (file: string) => string | null,
): string {
  const drawn = shapes.map((shape) => shapeSvg(shape, imageOf))
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${figure(width)}pt" height="${figure(height)}pt" viewBox="0 0 ${figure(width)} ${figure(height)}" role="img" font-family="Overpass, sans-serif">`,
    `<title>${svgText(title)}</title>`,
    `<rect width="100%" height="100%" fill="#fff"/>`,
    ...drawn,
    '</svg>',
  ].join('\n')
}

function shapeSvg(shape: Shape, imageOf: (file: string) => string | null): string {
  switch (shape.sort) {
    case 'line':
      return `<polyline points="${shape.points.map(([x, y]) => `${figure(x)},${figure(y)}`).join(' ')}" fill="none" stroke="${inkColour(shape.ink)}" stroke-width="${figure(shape.width)}"${shape.dashed ? ' stroke-dasharray="4 3"' : ''}/>`
    case 'box':
      return `<rect x="${figure(shape.x)}" y="${figure(shape.y)}" width="${figure(shape.width)}" height="${figure(shape.height)}" ${shape.filled ? `fill="${inkColour(shape.ink)}"` : `fill="none" stroke="${inkColour(shape.ink)}"`}/>`
    case 'dot':
      return `<circle cx="${figure(shape.x)}" cy="${figure(shape.y)}" r="${figure(shape.radius)}" fill="${inkColour(shape.ink)}"/>`
    case 'text':
      return `<text x="${figure(shape.x)}" y="${figure(shape.y)}" font-size="${figure(shape.size)}" text-anchor="${shape.anchor}" fill="${inkColour(shape.ink)}">${svgText(shape.text)}</text>`
    case 'image': {
      const address = imageOf(shape.file)
      return address === null
        ? ''
        : `<image href="${address}" x="${figure(shape.x)}" y="${figure(shape.y)}" width="${figure(shape.width)}" height="${figure(shape.height)}" preserveAspectRatio="none" opacity="0.45"/>`
    }
  }
}
