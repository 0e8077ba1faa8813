import type { LengthUnit } from './length'

/** A figure with nothing behind it, and at most words before it: "4.2", "-3", "tray 6". */
const BARE = /^([^\d]*\d{1,9}(?:[.,]\d{1,9})?)$/

/**
 * What was typed of lengths, with its unit behind each bare figure. So it means the same when bare figures are read in another unit.
 *
 * @example withTypedUnit('4.2', 'm') // '4.2 m'
 * @example withTypedUnit('down 0.7, diagonal 3 x 4', 'm') // 'down 0.7 m, diagonal 3 m x 4 m'
 */
export function withTypedUnit(text: string, unit: LengthUnit): string {
  const behind = (part: string): string => {
    const kept = part.trimEnd()
    return BARE.test(kept) ? `${kept} ${unit}${part.slice(kept.length)}` : part
  }
  if (BARE.test(text.trim())) return behind(text)
  return text
    .split(/(, |;| x )/)
    .map((part, at) => (at % 2 === 0 ? behind(part) : part))
    .join('')
}
