import { formatPictureMode, parsePictureMode } from '../picture/mode-text'
import { decimal, type Parsed, parsed, unreadable } from '../quantity/parsed'
import { MEGABYTE_PER_SECOND, parseRate } from '../quantity/rate'
import { parseWatts } from '../quantity/watts'
import type { Need, NeedKind } from './need'

/** The size of a need without its ends: what one line of text says. */
export type NeedSize = Need extends infer N
  ? N extends Need
    ? Omit<N, 'id' | 'from' | 'to' | 'name' | 'through' | 'note'>
    : never
  : never

/** What to type for each kind. */
export const needExamples: Record<NeedKind, string> = {
  picture: '3840x2160@60 10 bit',
  storage: '800 MB/s',
  headset: '2.5 Gb/s + 9.2 W',
  camera: '4 Gb/s + 4.5 W',
  sensor: '5 Gb/s + 4.5 W',
  audio: '12 Mb/s',
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
  if (rest.length > 0) return unreadable(`Write one rate and, after a plus, one power: ${needExamples[kind]}.`)
  const rate = parseRate(rateText)
  if (!rate.ok) return rate
  if (wattsText === undefined) return parsed({ kind, rate: rate.value })
  const watts = parseWatts(wattsText)
  return watts.ok ? parsed({ kind, rate: rate.value, watts: watts.value }) : watts
}

/** The text that `parseNeedSize` reads back to the same size. */
export function formatNeedSize(need: NeedSize): string {
  if (need.kind === 'picture') return formatPictureMode(need.mode)
  if (need.kind === 'power') return `${need.watts} W`
  const rate =
    need.kind === 'storage'
      ? `${decimal(need.rate / MEGABYTE_PER_SECOND, 6)} MB/s`
      : need.rate >= 1e9
        ? `${decimal(need.rate / 1e9, 9)} Gb/s`
        : `${decimal(need.rate / 1e6, 6)} Mb/s`
  return need.watts === undefined ? rate : `${rate} + ${need.watts} W`
}
