import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { CONNECTORS, type Connector, connectorNames, type End } from '../standards/connectors'

/** What people write for a connector, beside its own name. */
const aliases: Record<Connector, readonly string[]> = {
  'type-c': ['c', 'usb-c', 'usb c', 'usb type-c'],
  'type-a': ['a', 'usb-a', 'usb a', 'usb type-a'],
  'type-b': ['b', 'usb-b', 'usb b', 'usb type-b'],
  'micro-b': ['micro b', 'micro usb', 'micro-usb'],
  displayport: ['dp', 'display port'],
  'mini-displayport': ['mini dp', 'mdp', 'mini-dp', 'mini display port'],
  hdmi: [],
  '8p8c': ['rj45', 'rj-45', 'ethernet'],
  lc: ['lc fibre', 'fibre'],
}
const byWord = new Map<string, Connector>(
  CONNECTORS.flatMap((connector) =>
    [connector, connectorNames[connector].toLowerCase(), ...aliases[connector]].map(
      (word) => [word, connector] as const,
    ),
  ),
)

/**
 * Reads the end of a cable as people write it; a plug unless it says socket or female.
 *
 * @example parseEnd('USB-C'); parseEnd('type-A socket'); parseEnd('DP')
 */
export function parseEnd(text: string): Parsed<End> {
  const lower = plainText(text).toLowerCase()
  const socket = /\b(socket|female|receptacle)\b/.test(lower)
  const word = lower
    .replace(/\b(socket|female|receptacle|plug|male)\b/g, '')
    .replace(/\s+/g, ' ')
    .trim()
  const connector = byWord.get(word)
  if (connector === undefined) {
    const known = CONNECTORS.map((each) => connectorNames[each]).join(', ')
    return unreadable(
      `"${text.trim().slice(0, 40)}" is not a connector. Known are ${known}, with "socket" where it is one.`,
    )
  }
  return parsed({ connector, gender: socket ? 'socket' : 'plug' })
}
