import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { connectorSaid } from '../standards/connector-words'
import { CONNECTORS, connectorNames, type End } from '../standards/connectors'

/** Two ends said in one cell: "USB-C to HDMI", "C - C", "A/B"; null where it says one. */
export function endsApart(text: string): [string, string] | null {
  const plain = plainText(text)
  const [first, second, ...more] = plain.split(/ to | - | – |\s?(?:->|→|>|\/|<->)\s?/i)
  if (first && second && more.length === 0) return [first, second]
  const letters = /^(?:usb )?([abc])-([abc])$/i.exec(plain)
  return letters?.[1] && letters[2] ? [letters[1], letters[2]] : null
}

/**
 * Reads the end of a cable as people write it; a plug unless it says socket or female.
 *
 * @example parseEnd('USB-C'); parseEnd('type-A socket'); parseEnd('DP')
 */
export function parseEnd(text: string): Parsed<End> {
  const plain = plainText(text)
  const socket = /\b(?:socket|female|receptacle)\b|\(f\)|\bf$/i.test(plain)
  const word = plain
    .replace(/\b(?:socket|female|receptacle|plug|male)\b|\([fm]\)/gi, '')
    .replace(/ [fm]$/i, '')
    .replace(/\s+/g, ' ')
    .trim()
  const gender = socket ? 'socket' : 'plug'
  const own = /^own (?=\S)/i.exec(word)
  if (own) return parsed({ connector: 'own', gender, ownPlug: word.slice(own[0].length, 100) })
  const connector = connectorSaid(word)
  if (connector === undefined) {
    const known = CONNECTORS.map((each) => connectorNames[each]).join(', ')
    return unreadable(
      `"${text.trim().slice(0, 40)}" is not a connector. Known are ${known}, with "socket" where it is one.`,
    )
  }
  return parsed({ connector, gender })
}

/** An end as `parseEnd` reads it back, its plug told of a maker's own name. */
export function endText({ connector, gender, ownPlug }: End): string {
  const name = ownPlug === undefined ? connector : `own ${ownPlug}`
  return gender === 'socket' ? `${name} socket` : name
}
