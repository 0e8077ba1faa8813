import { durationText } from '../quantity/duration'
import { dropRate } from '../quantity/intervals'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { linkModeFacts } from '../standards/link-modes'
import type { Sheet } from '../vocabulary/sheet'
import { type Advice, adviceSentences } from './advice'
import type { RecordRow } from './record'

/** A share with its interval, as the record tells it: "9 of 10 (56 to 99 %)". */
export const shareText = ({ held, tried, rate }: RecordRow): string =>
  `${held} of ${tried} (${decimal(rate.low * 100, 0)} to ${decimal(rate.high * 100, 0)} %)`

/** A rate by the day is told from a night on. */
const TOLD_FROM = 8 * 3600

/** Drops a day with their interval; empty where nothing was watched. */
export function dropsText({ drops, seconds }: Pick<RecordRow, 'drops' | 'seconds'>): string {
  const rate = dropRate(drops, seconds)
  if (!rate) return ''
  const watched = `${drops} in ${durationText(seconds)}`
  // what a few minutes say of a day is next to nothing
  return seconds < TOLD_FROM ? watched : `${watched} (${decimal(rate.low, 2)} to ${decimal(rate.high, 2)} a day)`
}

/** The record as a table. */
export const recordTable = (rows: readonly RecordRow[], unit: LengthUnit): string[][] => [
  [
    'Kind',
    'Length',
    'Mode',
    'Controller',
    'Held',
    'Tried',
    'Held at least %',
    'Held at most %',
    'Drops',
    'Watched, s',
    'Of other sites',
  ],
  ...rows.map(({ kind, length, mode, controller, held, tried, rate, drops, seconds, elsewhere }) => [
    kind,
    length === null ? 'all' : formatLength(length, unit),
    linkModeFacts[mode].name,
    controller ?? 'all',
    `${held}`,
    `${tried}`,
    decimal(rate.low * 100, 1),
    decimal(rate.high * 100, 1),
    `${drops}`,
    `${seconds}`,
    `${elsewhere}`,
  ]),
]

/** What the shop advises, on a sheet: a device a row, then the avoid-list. */
export function adviceSheet(advice: Advice, site: string, day: string, currency: string, unit: LengthUnit): Sheet {
  return {
    title: 'What we advise',
    to: [`From the tests at ${site}, ${day}.`],
    heads: ['Device', 'Advice'],
    rows: advice.devices.map((each) => [
      each.device,
      adviceSentences(each, currency, (metres) => formatLength(metres, unit)).join(' '),
    ]),
    foot: [
      advice.avoid.length > 0 ? 'Not to be bought:' : 'No kind is on the avoid-list.',
      ...advice.avoid.map(({ kind, why, on }) => `${kind}: ${why}${on ? `, since ${on}` : ''}`),
      'It holds for these devices and lengths, on these sockets, and not for a kind as such.',
    ],
  }
}
