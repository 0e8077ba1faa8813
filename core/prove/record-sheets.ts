import type { SiteIndex } from '../plan/site-index'
import { durationText } from '../quantity/duration'
import { dropRate } from '../quantity/intervals'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { linkModeFacts } from '../standards/link-modes'
import type { Sheet } from '../vocabulary/sheet'
import { type Advice, adviceSentences } from './advice'
import type { RecordRow, ToldRow } from './record'
import { soaksTold } from './soak-timeline'
import type { SocketRow } from './socket-record'

/** A share with its interval, as the record tells it: "9 of 10 (56 to 99 %)". */
export const shareText = ({ held, tried, rate }: Pick<RecordRow, 'held' | 'tried' | 'rate'>): string =>
  `${decimal(held, 1)} of ${decimal(tried, 1)} (${decimal(rate.low * 100, 0)} to ${decimal(rate.high * 100, 0)} %)`

/** How likely the next one holds, in per cent; empty where that is not known. */
export const likelyText = (likely: number | null): string => (likely === null ? '' : decimal(likely * 100, 0))

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
export const recordTable = (rows: readonly ToldRow[], unit: LengthUnit): string[][] => [
  [
    'Kind',
    'Length',
    'Mode',
    'Controller',
    'Held',
    'Tried',
    'Held at least %',
    'Held at most %',
    'Next holds %',
    'Drops',
    'Watched, s',
    'Of others',
    'Held for days',
  ],
  ...rows.map(({ kind, length, mode, controller, held, tried, rate, likely, drops, seconds, elsewhere, inPlace }) => [
    kind,
    length === null ? 'all' : formatLength(length, unit),
    linkModeFacts[mode].name,
    controller ?? 'all',
    `${held}`,
    `${tried}`,
    decimal(rate.low * 100, 1),
    decimal(rate.high * 100, 1),
    likelyText(likely),
    `${drops}`,
    `${seconds}`,
    `${elsewhere}`,
    `${inPlace}`,
  ]),
]

/** The record by socket, device and chain as a table. */
export const socketTable = (rows: readonly SocketRow[]): string[][] => [
  ['Kind', 'Mode', 'Socket', 'At', 'Chain', 'Held', 'Tried', 'Held at least %', 'Held at most %'],
  ...rows.map(({ kind, mode, sits, far, chain, held, tried, rate }) => [
    kind,
    linkModeFacts[mode].name,
    sits ?? 'all',
    far ?? 'all',
    chain ?? '',
    `${held}`,
    `${tried}`,
    decimal(rate.low * 100, 1),
    decimal(rate.high * 100, 1),
  ]),
]

/** All soaks of runs as a table. */
export const soakTable = (index: SiteIndex): string[][] => [
  ['Run', 'Began', 'Until', 'Under way', 'Drops', 'Dropped at'],
  ...soaksTold(index.plan).map(({ tag, from, to, underWay, drops, at }) => [
    tag,
    new Date(from).toISOString(),
    new Date(to).toISOString(),
    underWay ? 'yes' : '',
    `${drops}`,
    at.map((drop) => new Date(drop).toISOString()).join(' '),
  ]),
]

/** What a site advises, as a sheet shows it. */
type Advising = { advice: Advice; site: string; currency: string }

/** What the shop advises, on a sheet: a device a row, those of other sites with their site, then the avoid-list. */
export function adviceSheet(own: Advising, others: readonly Advising[], day: string, unit: LengthUnit): Sheet {
  const all = [own, ...others]
  const avoided = all.flatMap(({ advice }) => advice.avoid)
  return {
    title: 'What we advise',
    to: [`From the tests at ${all.map(({ site }) => site).join(', ')}, ${day}.`],
    heads: ['Device', 'Advice'],
    rows: all.flatMap(({ advice, site, currency }) =>
      advice.devices.map((each) => [
        site === own.site ? each.device : `${each.device}, ${site}`,
        adviceSentences(each, currency, (metres) => formatLength(metres, unit)).join(' '),
      ]),
    ),
    foot: [
      avoided.length > 0 ? 'Not to be bought:' : 'No kind is on the avoid-list.',
      ...avoided.map(({ kind, why, on }) => `${kind}: ${why}${on ? `, since ${on}` : ''}`),
      'It holds for these devices and lengths, on these sockets, and not for a kind as such.',
    ],
  }
}
