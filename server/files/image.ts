import { fileTypeFromBuffer } from 'file-type'
import sharp from 'sharp'
import type { ImageUse, KeptImage } from '../../core/files/file-types'
import { type Parsed, parsed, unreadable } from '../../core/quantity/parsed'
import { harmlessSvg, LARGEST_SVG_BYTES } from './svg'

/** So many pixels are decoded; more is no photo and no drawing but a bomb. */
const MOST_PIXELS = 120_000_000
const LONGEST_SIDE: Readonly<Record<ImageUse, number>> = { drawing: 4000, photo: 1600 }
const QUALITY: Readonly<Record<ImageUse, number>> = { drawing: 82, photo: 78 }

/** What is kept at most of one picture: written out, twice this goes to the database in one piece. */
export const LARGEST_KEPT_BYTES = 6_000_000
const SMALLER = 0.8

const PICTURES = new Set(['image/png', 'image/jpeg', 'image/webp'])

/**
 * A picture as it may be kept: told by its bytes and not by its name, upright as it was taken, no larger than its use needs, without what a camera
 * wrote beside it (place, time, owner). A drawing in lines stays in lines, without anything that acts or fetches.
 */
export async function readImage(bytes: Uint8Array, use: ImageUse): Promise<Parsed<KeptImage>> {
  if (bytes.length === 0) return unreadable('Choose a picture first.')
  const found = await fileTypeFromBuffer(bytes).catch(() => undefined)
  if (found && PICTURES.has(found.mime)) return readPicture(bytes, use)
  if (use === 'drawing' && looksLikeSvg(bytes, found?.mime)) return readSvg(bytes)
  return unreadable(
    use === 'drawing'
      ? 'This is neither a PNG, a JPEG, a WebP nor an SVG. Save the drawing as one of them.'
      : 'This is neither a PNG, a JPEG nor a WebP. Save the photo as one of them.',
  )
}

const input = { limitInputPixels: MOST_PIXELS, failOn: 'error' } as const

async function readPicture(bytes: Uint8Array, use: ImageUse): Promise<Parsed<KeptImage>> {
  try {
    let side = LONGEST_SIDE[use]
    for (;;) {
      const { data, info } = await sharp(bytes, input)
        .rotate()
        .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
        .webp({ quality: QUALITY[use], effort: 2 })
        .toBuffer({ resolveWithObject: true })
      if (data.length <= LARGEST_KEPT_BYTES)
        return parsed({ type: 'image/webp', bytes: new Uint8Array(data), width: info.width, height: info.height })
      // grain does not pack: what is too large comes in smaller
      side = Math.floor(Math.max(info.width, info.height) * SMALLER)
    }
  } catch (error) {
    return unreadable(whyNot(error))
  }
}

const whyNot = (error: unknown): string =>
  /pixel limit/i.test(String(error))
    ? `This picture has more than ${MOST_PIXELS / 1e6} million pixels. Make it smaller first.`
    : 'This picture is damaged or cut short and cannot be read to its end.'

const looksLikeSvg = (bytes: Uint8Array, mime: string | undefined): boolean =>
  (mime === undefined || mime === 'application/xml') &&
  /<svg[\s>]/i.test(new TextDecoder().decode(bytes.subarray(0, 20_000)))

async function readSvg(bytes: Uint8Array): Promise<Parsed<KeptImage>> {
  if (bytes.length > LARGEST_SVG_BYTES)
    return unreadable(`An SVG has at most ${LARGEST_SVG_BYTES / 1e6} MB here. Save the drawing as a PNG.`)
  const clean = await harmlessSvg(new TextDecoder().decode(bytes))
  if (!clean.ok) return clean
  const kept = new TextEncoder().encode(clean.value)
  try {
    const { width, height } = await sharp(kept, input).metadata()
    return parsed({ type: 'image/svg+xml', bytes: kept, width, height })
  } catch {
    return unreadable('This SVG cannot be drawn: it is damaged, or has no size.')
  }
}

/** Whether bytes are a file as `readImage` keeps it, so that one that somebody else made does not come in with an archive. */
export async function isKept(bytes: Uint8Array): Promise<KeptImage | null> {
  const found = await fileTypeFromBuffer(bytes).catch(() => undefined)
  try {
    if (found?.mime === 'image/webp') {
      const { width, height, exif, xmp } = await sharp(bytes, input).metadata()
      return exif || xmp ? null : { type: 'image/webp', bytes, width, height }
    }
    const svg = await readSvg(bytes)
    return svg.ok && Buffer.from(svg.value.bytes).equals(bytes) ? svg.value : null
  } catch {
    return null
  }
}
