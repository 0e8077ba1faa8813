import { parsePictureMode } from '../picture/mode-text'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { type BitsPerSecond, formatRate, HIGHEST_RATE, MEGABYTE_PER_SECOND } from '../quantity/rate'

/** A rate that was worked out from what a person knows, with the arithmetic that led to it. */
export type WorkedOut = { rate: BitsPerSecond; steps: string }

/** Bits a pixel of the formats that cameras send (names as in the USB and machine vision standards; the figures follow from their layout). */
const PIXEL_BITS: Readonly<Record<string, number>> = {
  mono8: 8,
  mono10: 10,
  mono12: 12,
  mono16: 16,
  bayer8: 8,
  bayer10: 10,
  bayer12: 12,
  nv12: 12,
  yuv420: 12,
  yuv422: 16,
  rgb8: 24,
  rgb10: 30,
}
export const PIXEL_FORMATS = Object.keys(PIXEL_BITS)

const BYTES: Readonly<Record<string, number>> = { mb: 1e6, gb: 1e9, tb: 1e12 }
const SECONDS: Readonly<Record<string, number>> = { s: 1, min: 60, h: 3600 }

const within = (rate: BitsPerSecond, steps: string): Parsed<WorkedOut> =>
  rate > 0 && rate <= HIGHEST_RATE
    ? parsed({ rate, steps: `${steps} = ${formatRate(rate)}` })
    : unreadable('That comes to a rate outside what any link could carry.')

/**
 * The rate of a job: so much in such a time, decimal units. Null where the text is none.
 *
 * @example jobRate('100 GB in 20 min') // 666.7 Mb/s
 */
export function jobRate(text: string): Parsed<WorkedOut> | null {
  const found = /^(\d{1,6}(?:\.\d{1,3})?) ?([mgt]b) in (\d{1,5}(?:\.\d{1,3})?) ?(s|min|h)$/i.exec(plainText(text))
  if (!found) return null
  const [, amount = '', unit = '', time = '', per = ''] = found
  const bytes = Number(amount) * (BYTES[unit.toLowerCase()] ?? 0)
  const seconds = Number(time) * (SECONDS[per.toLowerCase()] ?? 0)
  if (seconds === 0) return unreadable('A job takes longer than no time.')
  const rate = (bytes * 8) / seconds
  return within(
    rate,
    `${amount} ${unit.toUpperCase()} / ${time} ${per} = ${decimal(rate / MEGABYTE_PER_SECOND, 1)} MB/s x 8`,
  )
}

/**
 * The rate of raw frames: size x frames a second x bits a pixel. Null where the text is none.
 *
 * @example framesRate('2448x2048@75 mono8') // 3.01 Gb/s
 */
export function framesRate(text: string): Parsed<WorkedOut> | null {
  const found = /^(\d{2,5}) ?[x×] ?(\d{2,5}) ?@ ?(\d{1,4}(?:\.\d{1,3})?) ([a-z]{2,6}\d{1,3})$/i.exec(plainText(text))
  if (!found) return null
  const [, width = '', height = '', frames = '', format = ''] = found
  const bits = PIXEL_BITS[format.toLowerCase()]
  if (bits === undefined)
    return unreadable(`"${format}" is not a pixel format Hallway knows: ${PIXEL_FORMATS.join(', ')}.`)
  const rate = Number(width) * Number(height) * Number(frames) * bits
  return within(rate, `${width} x ${height} x ${frames} frames/s x ${bits} bits a pixel`)
}

/** A finished frame lies in memory with four bytes a pixel, up to ten bits a colour, and with eight beyond that (common practice). */
const frameBits = (bits: number): number => (bits <= 10 ? 32 : 64)

/**
 * The rate of a screen whose frames another graphics chip makes and sends back: size x refresh x bits a pixel in memory. Null where the text is none.
 *
 * @example screenRate('1920x1200@60') // 4.42 Gb/s
 */
export function screenRate(text: string): Parsed<WorkedOut> | null {
  const mode = parsePictureMode(text)
  if (!mode.ok) return null
  const { width, height, refresh, bits } = mode.value
  const each = frameBits(bits)
  return within(
    width * height * refresh * each,
    `${width} x ${height} x ${decimal(refresh, 3)} frames/s x ${each} bits a pixel`,
  )
}

/**
 * The rate of sound: channels x samples x bits. Null where the text is none.
 *
 * @example soundRate('8 ch 48 kHz 24 bit') // 9.2 Mb/s
 */
export function soundRate(text: string): Parsed<WorkedOut> | null {
  const found = /^(\d{1,3}) ?ch (\d{1,3}(?:\.\d{1,2})?) ?khz (16|24|32) ?bit$/i.exec(plainText(text))
  if (!found) return null
  const [, channels = '', kilohertz = '', bits = ''] = found
  const rate = Number(channels) * Number(kilohertz) * 1000 * Number(bits)
  return within(rate, `${channels} channels x ${kilohertz} kHz x ${bits} bits`)
}
