import { formatPictureMode, parsePictureMode } from '../picture/mode-text'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { type BitsPerSecond, MEGABYTE_PER_SECOND, parseRate } from '../quantity/rate'
import { parseWatts } from '../quantity/watts'
import type { Need, NeedKind } from '../vocabulary/need'
import { framesRate, jobRate, screenRate, soundRate, type WorkedOut } from './work-out'

/** The size of a need without its ends: what one line of text says. */
export type NeedSize = Need extends infer N
  ? N extends Need
    ? Omit<N, 'id' | 'from' | 'to' | 'name' | 'through' | 'note' | 'said' | 'variants'>
    : never
  : never

/** What to type for each kind. */
export const needExamples: Record<NeedKind, string> = {
  picture: '3840x2160@60 10 bit',
  'own screen': '1920x1200@60',
  storage: '100 GB in 20 min',
  headset: '2.5 Gb/s + 9.2 W',
  camera: '1920x1080@60 yuv422 + 4.5 W',
  sensor: '5 Gb/s + 4.5 W',
  audio: '8 ch 48 kHz 24 bit',
  data: '5 Gb/s',
  power: '96 W',
}

/**
 * Reads the size of a need of one kind: a picture mode, watts, or a rate with the bus power that must travel beside it.
 *
 * @example parseNeedSize('camera', '4 Gb/s + 4.5 W')
 */
export function parseNeedSize(kind: NeedKind, text: string): Parsed<NeedSize> {
  if (kind === 'picture') {
    const mode = parsePictureMode(text)
    return mode.ok ? parsed({ kind, mode: mode.value }) : mode
  }
  if (kind === 'power') {
    const watts = parseWatts(text)
    return watts.ok ? parsed({ kind, watts: watts.value }) : watts
  }
  const [rateText = '', wattsText, ...rest] = text.split('+')
  if (kind === 'own screen' && wattsText !== undefined)
    return unreadable('A screen that is sent back asks for no watts.')
  if (rest.length > 0) return unreadable(`Write one rate and, after a plus, one power: ${needExamples[kind]}.`)
  const each = kind === 'storage' ? eachWay(rateText) : null
  const rate = readRate(kind, each?.write ?? rateText)
  if (!rate.ok) return rate
  const back = each && readRate(kind, each.read)
  if (back && !back.ok) return back
  const size = { kind, rate: rate.value, ...(back && back.value !== rate.value ? { back: back.value } : {}) }
  if (wattsText === undefined) return parsed(size as NeedSize)
  const watts = parseWatts(wattsText)
  return watts.ok ? parsed({ ...size, watts: watts.value } as NeedSize) : watts
}

function readRate(kind: NeedKind, text: string): Parsed<BitsPerSecond> {
  const worked = workedOut(kind, text)
  return worked === null ? parseRate(text) : worked.ok ? parsed(worked.value.rate) : worked
}

/** "800 MB/s write, 2000 MB/s read": two rates where they differ; null where the text says one. */
export function eachWay(text: string): { write: string; read: string } | null {
  const [write = '', read = '', ...more] = plainText(text)
    .split(',')
    .map((part) => part.trim())
  if (more.length > 0 || !write.toLowerCase().endsWith(' write') || !read.toLowerCase().endsWith(' read')) return null
  return { write: write.slice(0, -' write'.length), read: read.slice(0, -' read'.length) }
}

/** So many alike at most. */
const MOST_ALIKE = 16

/** A size with how many alike, where somebody says so before it: "2x 3840x2160@60". */
export function countedSize(text: string): { count: number; size: string } {
  const [, number = '', size = ''] = /^(\d{1,2}) ?[x×] (.+)$/.exec(plainText(text)) ?? []
  const count = Number(number)
  return size !== '' && count >= 1 && count <= MOST_ALIKE ? { count, size: size.trim() } : { count: 1, size: text }
}

/** A rate worked out from what people know of that sort of need: a job of so much in such a time, frames, channels of sound. Null where the text is none of these. */
export function workedOut(kind: NeedKind, text: string): Parsed<WorkedOut> | null {
  if (kind === 'storage') return jobRate(text)
  if (kind === 'camera') return framesRate(text)
  if (kind === 'own screen') return screenRate(text)
  return kind === 'audio' ? soundRate(text) : null
}

/** A size as somebody types it, with their own words kept where it was worked out from them. */
export function readNeedSize(kind: NeedKind, text: string): Parsed<NeedSize & Pick<Need, 'said'>> {
  const size = parseNeedSize(kind, text)
  if (!size.ok) return size
  const [rateText = ''] = text.split('+')
  const parts = kind === 'storage' ? Object.values(eachWay(rateText) ?? [rateText]) : [rateText]
  const worked = parts.some((part) => workedOut(kind, part) !== null)
  return parsed(worked ? { ...size.value, said: plainText(text) } : size.value)
}

/** A need as it was said, where it still comes to what is asked; otherwise its figures. For forms, where somebody goes on from it. */
export function saidSize(need: Need): string {
  if (need.said === undefined) return formatNeedSize(need)
  const read = parseNeedSize(need.kind, need.said)
  return read.ok && formatNeedSize(read.value) === formatNeedSize(need) ? need.said : formatNeedSize(need)
}

/** The text that `parseNeedSize` reads back to the same size. */
export function formatNeedSize(need: NeedSize): string {
  if (need.kind === 'picture') return formatPictureMode(need.mode)
  if (need.kind === 'power') return `${need.watts} W`
  const bytes = (value: BitsPerSecond): string => `${decimal(value / MEGABYTE_PER_SECOND, 6)} MB/s`
  const rate =
    need.kind === 'storage'
      ? need.back === undefined
        ? bytes(need.rate)
        : `${bytes(need.rate)} write, ${bytes(need.back)} read`
      : need.rate >= 1e9
        ? `${decimal(need.rate / 1e9, 9)} Gb/s`
        : `${decimal(need.rate / 1e6, 6)} Mb/s`
  return !('watts' in need) || need.watts === undefined ? rate : `${rate} + ${need.watts} W`
}
