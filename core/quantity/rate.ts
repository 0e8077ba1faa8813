import { decimal, type Parsed, parsed, plainText, unreadable } from './parsed'

/** Rates are bits per second everywhere inside Hallway, with decimal prefixes: 1 Gb/s = 10^9 bit/s. */
export type BitsPerSecond = number

export const MEGABIT: BitsPerSecond = 1e6
export const GIGABIT: BitsPerSecond = 1e9
/** 1 MB/s is 8 x 10^6 bit/s. */
export const MEGABYTE_PER_SECOND: BitsPerSecond = 8e6

const UNITS: Record<string, BitsPerSecond> = {
  'gb/s': GIGABIT,
  gbps: GIGABIT,
  gbit: GIGABIT,
  'gbit/s': GIGABIT,
  g: GIGABIT,
  'mb/s': MEGABIT,
  mbps: MEGABIT,
  mbit: MEGABIT,
  'mbit/s': MEGABIT,
}
/** The most that any link Hallway knows could carry; a larger wish is a slip of the keyboard. */
export const HIGHEST_RATE: BitsPerSecond = 1000 * GIGABIT

/**
 * Reads a rate as people write it: "5 Gb/s", "480 Mb/s", "3000 MB/s", "3 GB/s", "10G".
 * A capital B is bytes, as on data sheets. Answers bits per second.
 *
 * @example parseRate("3000 MB/s") // { ok: true, value: 24e9 }
 */
export function parseRate(text: string): Parsed<BitsPerSecond> {
  const found = plainText(text).match(/^(\d+(?:[.,]\d+)?|\.\d+) ?([a-zA-Z/]+)$/)
  if (!found) return unreadable('Write a rate with its unit, such as 5 Gb/s, 480 Mb/s or 3000 MB/s.')
  const figure = Number((found[1] ?? '').replace(',', '.'))
  const unit = found[2] ?? ''
  const bytes = /^([GM])B(\/s|ps)?$/.exec(unit)
  const rate = bytes
    ? figure * 8 * (bytes[1] === 'G' ? GIGABIT : MEGABIT)
    : figure * (UNITS[unit.toLowerCase()] ?? Number.NaN)
  if (Number.isNaN(rate)) return unreadable(`"${unit}" is not a unit of rate. Use Gb/s, Mb/s, GB/s or MB/s.`)
  if (rate <= 0 || rate > HIGHEST_RATE) return unreadable('A rate lies above 0 and at most 1000 Gb/s.')
  return parsed(rate)
}

/** "480 Mb/s" below a gigabit, "12.5 Gb/s" above. */
export function formatRate(rate: BitsPerSecond): string {
  if (rate === 0) return 'nothing'
  return rate < GIGABIT ? `${decimal(rate / MEGABIT, 0)} Mb/s` : `${decimal(rate / GIGABIT, 2)} Gb/s`
}

/** The same rate as storage people say it: "3000 MB/s". */
export function formatBytesPerSecond(rate: BitsPerSecond): string {
  return `${decimal(rate / MEGABYTE_PER_SECOND, 0)} MB/s`
}
