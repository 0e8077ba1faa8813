import { BLOCK, isEdid } from './edid'

/** EDIDs of one text at most; no computer has more displays. */
const MOST_FOUND = 16
/** Bytes of one EDID at most, as `readEdid` reads them. */
const LONGEST = BLOCK * 33

const isHex = (code: number): boolean =>
  (code >= 48 && code <= 57) || (code >= 97 && code <= 102) || (code >= 65 && code <= 70)
const isGap = (code: number): boolean => code === 32 || code === 9 || code === 44 || code === 58

/**
 * The hex digits that end a line, in pairs: "[drm] 	[00] BAD  00 ff ff" ends in three bytes. What stands before them is whatever a log puts there. Nothing
 * but digits and gaps is looked at, from the end on, so that a line costs what it is long.
 */
function bytesAtEnd(line: string): number[] {
  let start = line.length
  while (start > 0 && (isHex(line.charCodeAt(start - 1)) || isGap(line.charCodeAt(start - 1)))) start -= 1
  // a word that ends in hex letters is no byte
  const before = start > 0 ? line.charCodeAt(start - 1) : 32
  let tail = line.slice(start)
  if (before !== 32 && before !== 9 && !'])>'.includes(line[start - 1] ?? '')) {
    const gap = tail.search(/[\s,:]/)
    if (gap < 0) return []
    tail = tail.slice(gap)
  }
  const bytes: number[] = []
  for (const word of tail.split(/[\s,:]+/)) {
    if (word === '') continue
    if (word.length % 2 !== 0) {
      // "block 0: 00 ff" has a number before its bytes
      bytes.length = 0
      continue
    }
    for (let at = 0; at < word.length; at += 2) bytes.push(Number.parseInt(word.slice(at, at + 2), 16))
  }
  return bytes
}

/** The EDIDs in a text: hex digits alone, a dump, or the log of a computer with whatever stands around them. */
export function edidsInText(text: string): Uint8Array[] {
  const found: Uint8Array[] = []
  let bytes: number[] = []
  const finish = (): void => {
    const made = Uint8Array.from(bytes)
    if (isEdid(made) && made.length >= BLOCK) found.push(made.slice(0, wholeLength(made)))
    bytes = []
  }
  for (const line of text.split('\n')) {
    if (found.length >= MOST_FOUND) break
    const own = bytesAtEnd(line.trimEnd())
    const header = headerIn(own)
    if (header >= 0) {
      finish()
      bytes = own.slice(header)
    } else if (bytes.length > 0) {
      // between two blocks a log says something else
      if (own.length >= 8 && bytes.length + own.length <= LONGEST) bytes.push(...own)
      else if (bytes.length >= BLOCK && bytes.length >= wholeLength(Uint8Array.from(bytes))) finish()
    }
  }
  finish()
  return found
}

const wholeLength = (bytes: Uint8Array): number => {
  const promised = BLOCK * (1 + (bytes[BLOCK - 2] ?? 0))
  return bytes.length >= promised ? promised : bytes.length - (bytes.length % BLOCK)
}

/** Where an EDID begins among bytes; -1 where none does. */
function headerIn(bytes: readonly number[]): number {
  for (let at = 0; at + 8 <= bytes.length; at += 1) if (isEdid(Uint8Array.from(bytes.slice(at, at + 8)))) return at
  return -1
}
