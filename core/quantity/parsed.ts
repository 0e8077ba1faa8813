/** The outcome of reading what a person typed: a value, or the sentence that tells them what to type instead. */
export type Parsed<T> = { ok: true; value: T } | { ok: false; problem: string }

export const parsed = <T>(value: T): Parsed<T> => ({ ok: true, value })
export const unreadable = (problem: string): Parsed<never> => ({ ok: false, problem })

/** Longer than anything people write for a figure, a mark or a connector. */
const LONGEST_TEXT = 400

/**
 * A text as readers take it: nothing around it, and one space for each stretch of white space within, so that no pattern has to try how far a stretch goes.
 * What is longer than any such text is none.
 */
export const plainText = (text: string): string => (text.length > LONGEST_TEXT ? '' : text.trim().replace(/\s+/g, ' '))

/** Shortest decimal text of a number at no more than `places` decimals: 4.20 becomes "4.2", 3.00 becomes "3". */
export function decimal(value: number, places: number): string {
  return String(Number(value.toFixed(places)))
}
