import { CONNECTORS, type Connector, connectorNames } from './connectors'

/** What people write for a connector, beside its own name. */
const aliases: Record<Connector, readonly string[]> = {
  'type-c': ['c'],
  'type-a': ['a'],
  'type-b': ['b'],
  'micro-b': ['micro b', 'micro'],
  'mini-b': ['mini b', 'mini'],
  displayport: ['dp', 'display port'],
  'mini-displayport': ['mini dp', 'mdp', 'minidp', 'mini display port', 'mini displayport'],
  hdmi: [],
  dvi: ['dvi-d', 'dvi-i'],
  '8p8c': ['rj45', 'rj-45', 'ethernet'],
  lc: ['lc fibre', 'fibre'],
  own: ['own', "maker's own"],
}
const byWord = new Map<string, Connector>(
  CONNECTORS.flatMap((connector) =>
    [connector, connectorNames[connector].toLowerCase(), ...aliases[connector]].map(
      (word) => [word, connector] as const,
    ),
  ),
)

/** A USB connector by its letter or size alone: "USB-C", "usbc", "type C", "USB Type-C" are all "c". */
const bareWord = (word: string): string =>
  word
    .toLowerCase()
    .replace(/^usb/, '')
    .replace(/^[- ]*(?:type)?/, '')
    .replace(/^[- ]+/, '')
    .replace(/[- ]?usb$/, '')
    .replaceAll('-', ' ')

/** The connector that people mean by some words: "USB-C", "DP", "mini dp", "rj45". */
export const connectorSaid = (words: string): Connector | undefined =>
  byWord.get(words.toLowerCase()) ?? byWord.get(bareWord(words))
