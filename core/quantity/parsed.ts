/** The outcome of reading what a person typed: a value, or the sentence that tells them what to type instead. */
export type Parsed<T> = { ok: true; value: T } | { ok: false; problem: string }

export const parsed = <T>(value: T): Parsed<T> => ({ ok: true, value })
export const unreadable = (problem: string): Parsed<never> => ({ ok: false, problem })

/** Shortest decimal text of a number at no more than `places` decimals: 4.20 becomes "4.2", 3.00 becomes "3". */
export function decimal(value: number, places: number): string {
  return String(Number(value.toFixed(places)))
}
