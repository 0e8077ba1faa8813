import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { CHROMAS, HDR_BITS, type PictureMode, pictureModeSchema } from '../vocabulary/need'

const NAMED: Record<string, [number, number]> = {
  '4k': [3840, 2160],
  '5k': [5120, 2880],
  '8k': [7680, 4320],
}
const example = 'Write a picture like 3840x2160@60, or 2560x1440@120 10 bit 4:2:2.'

/**
 * Reads a picture mode: size @ refresh, then bits per colour and chroma where they are not 8 and 4:4:4, and HDR for high dynamic range (10 bits where none
 * are said).
 *
 * @example parsePictureMode("4K@60 HDR 4:2:0")
 */
export function parsePictureMode(text: string): Parsed<PictureMode> {
  const found = plainText(text)
    .toLowerCase()
    .match(/^(?:(\d+) ?[x×] ?(\d+)|(4k|5k|8k)) ?@ ?(\d+(?:\.\d+)?)(?: ?hz)?((?:[ ,].*)?)$/)
  if (!found) return unreadable(example)
  const [, width, height, named, refresh, rest = ''] = found
  const [namedWidth, namedHeight] = NAMED[named ?? ''] ?? []
  const extras = rest.match(/\d+ ?-?bits?|4:?[42]:?[024]|\S+/g) ?? []
  let bits: number | null = null
  let chroma = '444'
  let hdr = false
  for (const extra of extras) {
    const digits = extra.replace(/\D/g, '')
    if (/bits?$/.test(extra)) bits = Number(digits)
    else if (CHROMAS.some((known) => known === digits)) chroma = digits
    else if (extra === 'hdr') hdr = true
    else if (extra !== ',') return unreadable(`"${extra}" is neither bits per colour nor chroma nor HDR. ${example}`)
  }
  const read = pictureModeSchema.safeParse({
    width: Number(width ?? namedWidth),
    height: Number(height ?? namedHeight),
    refresh: Number(refresh),
    bits: bits ?? (hdr ? HDR_BITS : 8),
    chroma,
    ...(hdr ? { hdr } : {}),
  })
  if (read.success) return parsed(read.data)
  const [issue] = read.error.issues
  return unreadable(
    issue?.path[0] === 'bits'
      ? issue.code === 'custom'
        ? `High dynamic range has ${HDR_BITS} bits per colour at least.`
        : 'Bits per colour are 6, 8, 10, 12 or 16.'
      : `That mode is outside 320x200 to 16384x16384 at 10 to 480 Hz. ${example}`,
  )
}

/** "3840x2160@60", with bits, chroma and dynamic range only where they are not the usual ones. */
export function formatPictureMode(mode: PictureMode): string {
  const bits = mode.bits === 8 ? '' : ` ${mode.bits} bit`
  const chroma = mode.chroma === '444' ? '' : ` ${[...mode.chroma].join(':')}`
  return `${mode.width}x${mode.height}@${mode.refresh}${bits}${chroma}${mode.hdr ? ' HDR' : ''}`
}
