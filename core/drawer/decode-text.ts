import { type Parsed, parsed, unreadable } from '../quantity/parsed'

/** A table larger than this is refused before it is looked at: 5,000 cables are about half a megabyte. */
export const LARGEST_TABLE_BYTES = 6_000_000
/** A line of a table; a longer one is no line of a table. */
const LONGEST_LINE = 20_000

export type DecodedText = { text: string; encoding: 'UTF-8' | 'UTF-16' | 'Latin-1' }

/**
 * Text of a file that ought to be a table, whatever it was saved as: UTF-8 with or without its mark, UTF-16 either way round, or the
 * Latin-1 that older office programs write. What is no text at all is refused with what it looks like.
 */
export function decodeText(bytes: Uint8Array): Parsed<DecodedText> {
  if (bytes.length > LARGEST_TABLE_BYTES) {
    return unreadable(
      `The file has ${Math.round(bytes.length / 1e6)} MB; a table of cables has at most ${LARGEST_TABLE_BYTES / 1e6} MB.`,
    )
  }
  if (bytes.length === 0) return unreadable('The file is empty.')
  const decoded = decodeBytes(bytes)
  if (!decoded)
    return unreadable(
      'This is not a table: the file holds binary data, as a picture or a program does. Save the sheet as .xlsx or CSV.',
    )
  const longest = longestLine(decoded.text)
  if (longest > LONGEST_LINE) {
    return unreadable(`This is not a table: one of its lines has ${longest.toLocaleString('en')} characters.`)
  }
  return parsed(decoded)
}

function decodeBytes(bytes: Uint8Array): DecodedText | null {
  const utf16 = utf16Order(bytes)
  if (utf16) {
    const text = new TextDecoder(utf16).decode(bytes)
    return looksLikeText(text) ? { text, encoding: 'UTF-16' } : null
  }
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return looksLikeText(text) ? { text, encoding: 'UTF-8' } : null
  } catch {
    const text = new TextDecoder('windows-1252').decode(bytes)
    return looksLikeText(text) ? { text, encoding: 'Latin-1' } : null
  }
}

/** By its mark, or by the zeros that plain letters have in every other byte. */
function utf16Order(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  const sample = bytes.subarray(0, 400)
  const zeros = [0, 0]
  for (const [at, byte] of sample.entries()) if (byte === 0) zeros[at % 2] = (zeros[at % 2] ?? 0) + 1
  const half = sample.length / 2
  if ((zeros[1] ?? 0) > half * 0.7 && zeros[0] === 0) return 'utf-16le'
  if ((zeros[0] ?? 0) > half * 0.7 && zeros[1] === 0) return 'utf-16be'
  return null
}

/** Text has next to no control characters; what office programs call text has none. */
function looksLikeText(text: string): boolean {
  let odd = 0
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at)
    if (code === 0) return false
    if ((code < 32 && code !== 9 && code !== 10 && code !== 13) || code === 0xfffd) odd += 1
  }
  return odd <= text.length / 1000
}

function longestLine(text: string): number {
  let longest = 0
  let start = 0
  for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', start)) {
    longest = Math.max(longest, end - start)
    start = end + 1
  }
  return Math.max(longest, text.length - start)
}
