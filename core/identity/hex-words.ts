import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import type { IdentityWords } from './e-marker'

/** A structured vendor message of USB itself: its header stands before the words where a tester shows the whole answer. */
const isHeader = (word: number): boolean => Math.floor(word / 65_536) === 0xff00

/**
 * Reads the words of an identity answer as a tester shows them: hex, with or without 0x, apart by anything, in the order they come; the
 * message header before them may stay.
 *
 * @example parseHexWords('0x1c00abcd 00000000 12340100 0x11082042', 3)
 */
export function parseHexWords(text: string, revision: 2 | 3): Parsed<IdentityWords> {
  if (text.length > 2000) return unreadable('That is more text than six words of eight hex digits; paste only those.')
  const pieces = text.split(/[\s,;|]+/).filter(Boolean)
  if (pieces.length === 0) return unreadable('Paste the words the tester shows: eight hex digits each.')
  const words: number[] = []
  for (const [at, piece] of pieces.entries()) {
    const digits = piece.replace(/^0x/i, '')
    if (!/^[0-9a-f_]+$/i.test(digits)) return unreadable(`Word ${at + 1}, "${piece.slice(0, 24)}", is not hex.`)
    const plain = digits.replaceAll('_', '')
    if (plain.length !== 8) {
      return unreadable(`Word ${at + 1}, "${piece.slice(0, 24)}", has ${plain.length} hex digits; each word has eight.`)
    }
    words.push(Number.parseInt(plain, 16))
  }
  const [first = 0] = words
  const answer = isHeader(first) ? words.slice(1) : words
  if (answer.length < 3 || answer.length > 6) {
    return unreadable(
      `${answer.length} ${answer.length === 1 ? 'word' : 'words'} without the header; an answer has three to six: ID header, certification, product, then what the cable says of itself.`,
    )
  }
  const [idHeader = 0, certStat = 0, product = 0, vdo1 = null, vdo2 = null] = answer
  return parsed({ idHeader, certStat, product, vdo1, vdo2, revision })
}
