import { decimal } from './parsed'

const UNITS = [
  [86_400, 'days'],
  [3600, 'h'],
  [60, 'min'],
] as const

/** A time as people say it: "45 s", "90 s", "20 min", "2.5 h", "10 days". */
export function durationText(seconds: number): string {
  const [size, name] = UNITS.find(([size]) => seconds >= 2 * size) ?? [1, 's']
  return `${decimal(seconds / size, 1)} ${name}`
}

/** Reads what `durationText` writes, and what people type: "10 days", "8 h", "90s", "45 minutes". Null where it is none. Seconds. */
export function parseDuration(text: string): number | null {
  const found = /^(\d{1,7}(?:[.,]\d{1,3})?) ?(s|sec|seconds?|min|minutes?|h|hours?|d|days?)$/i.exec(text.trim())
  if (!found) return null
  const unit = (found[2] ?? 's')[0]?.toLowerCase()
  const size = unit === 'd' ? 86_400 : unit === 'h' ? 3600 : unit === 'm' ? 60 : 1
  return Math.round(Number((found[1] ?? '0').replace(',', '.')) * size)
}
