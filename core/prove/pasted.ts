import type { AskedValue } from '../bench/read-value'
import { readFromDevice } from '../identity/device-reading'
import { formatPictureMode } from '../picture/mode-text'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { GIGABIT, MEGABIT } from '../quantity/rate'
import { isBetterMode, type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { PictureMode } from '../vocabulary/need'

/** Lines that are looked at, and how much of each. */
const MOST_LINES = 5000
const LONGEST_LINE = 300

/** What a screen says of a test: the figure as somebody would type it, and the words it came from. */
export type ReadOff = { value: string; words: string }

const linesOf = (text: string): string[] =>
  text
    .split(/\r?\n/, MOST_LINES)
    .map((line) => plainText(line.slice(0, LONGEST_LINE)))
    .filter((line) => line !== '')

/** Kinds of test whose screens are read. */
export type PastedKind = 'link' | Extract<AskedValue['kind'], 'picture' | 'write' | 'read' | 'watts' | 'warmth'>
export const PASTED_KINDS: readonly PastedKind[] = ['link', 'picture', 'write', 'read', 'watts', 'warmth']

type Asked = { kind: PastedKind; spoken: readonly LinkMode[]; mode: PictureMode | null }

/**
 * Reads what a device list, a display page, a disk test or a power readout says, pasted, in general words and in the forms that the usual commands print. What it
 * does not say is not guessed: then it is refused with what to paste.
 */
export function readPasted({ kind, spoken, mode }: Asked, text: string): Parsed<ReadOff> {
  const lines = linesOf(text)
  switch (kind) {
    case 'link':
      return readLink(text, lines, spoken)
    case 'picture':
      return mode ? readPicture(text, mode) : unreadable('This test asks for no picture.')
    case 'write':
    case 'read':
      return readCopied(lines, kind)
    case 'watts':
      return readPower(lines)
    case 'warmth':
      return readWarmth(lines)
  }
}

const SPEED = /\b(\d{1,5}(?:[.,]\d{1,3})?) ?(m|g)(?:b\/s|bit\/s|bps|bits\/s)/i
const SUPERSEDED = /\b(?:up to|maximum|max|supported|can operate)\b/i

/** The link that came up: what a listing says of the thing behind a port, or the one speed that a device page names. */
function readLink(text: string, lines: readonly string[], spoken: readonly LinkMode[]): Parsed<ReadOff> {
  const found = new Map<LinkMode, string>()
  const device = readFromDevice(new TextEncoder().encode(text))
  for (const { name, cameUp } of device.ok ? device.value.usb : []) {
    if (cameUp && !/hub/i.test(name)) found.set(cameUp, name)
  }
  if (found.size === 0)
    for (const line of lines) {
      const speed = SPEED.exec(line)
      if (!speed) continue
      const rate = Number((speed[1] ?? '').replace(',', '.')) * (speed[2]?.toLowerCase() === 'g' ? GIGABIT : MEGABIT)
      const mode = modeOfRate(rate, spoken)
      // the speed that came up stands before what the thing could do
      if (mode && !(found.size > 0 && SUPERSEDED.test(line))) found.set(mode, line)
    }
  const [first, ...others] = found
  if (!first) return unreadable('There is no speed in it. Paste the entry of the device, with its speed.')
  if (others.length > 0)
    return unreadable(
      `It names several speeds (${[...found.keys()].map((each) => linkModeFacts[each].name).join(', ')}). Paste the entry of the one device.`,
    )
  return parsed({ value: first[0], words: first[1] })
}

/** The mode of a line rate: of several of one rate the one that the run's ends both speak. */
function modeOfRate(rate: number, spoken: readonly LinkMode[]): LinkMode | null {
  const alike = (Object.keys(linkModeFacts) as LinkMode[]).filter(
    (mode) => Math.abs(linkModeFacts[mode].line - rate) < 0.01 * rate,
  )
  return (
    alike.find((mode) => spoken.includes(mode)) ??
    alike.reduce<LinkMode | null>((least, mode) => (least && isBetterMode(mode, least) ? least : mode), null)
  )
}

const SIZE = /\b(\d{3,5}) ?[x×] ?(\d{3,5})\b/i
const STARRED = /(\d{1,3}(?:\.\d{1,3})?)\*/
const REFRESH = /(?:@|\(|,| at |rate:? ?|: ?) ?(\d{2,3}(?:[.,]\d{1,3})?) ?(?:hz|\))/i
/** 59.94 Hz is what 60 Hz is called. */
const NEAR_HERTZ = 0.6

/** A picture that is on now, with the words it was read from. */
export type ActivePicture = { width: number; height: number; hertz: number }

/** The mode that is active: a line with a star, or the size and refresh that a display page names; null where it names none. */
export function activePicture(text: string): ActivePicture | null {
  const lines = linesOf(text)
  const starred = lines.find((line) => STARRED.test(line))
  const sized = starred ?? lines.find((line) => SIZE.test(line))
  const size = sized === undefined ? null : SIZE.exec(sized)
  const refreshLine = starred ?? lines.find((line) => REFRESH.test(line))
  const refresh = starred ? STARRED.exec(starred) : refreshLine === undefined ? null : REFRESH.exec(refreshLine)
  if (!size || !refresh) return null
  return { width: Number(size[1]), height: Number(size[2]), hertz: Number((refresh[1] ?? '').replace(',', '.')) }
}

/** Whether a refresh is the wanted one. */
export const isRefresh = (hertz: number, wanted: number): boolean => Math.abs(hertz - wanted) <= NEAR_HERTZ

export const activeText = ({ width, height, hertz }: ActivePicture): string => `${width}x${height}@${decimal(hertz, 2)}`

function readPicture(text: string, wanted: PictureMode): Parsed<ReadOff> {
  const active = activePicture(text)
  if (!active) return unreadable('It names no active mode. Paste the line with its size and its refresh in Hz.')
  const words = activeText(active)
  if (active.width !== wanted.width || active.height !== wanted.height || !isRefresh(active.hertz, wanted.refresh))
    return unreadable(
      `The active mode is ${words}, and the test asks for ${formatPictureMode(wanted)}. Choose that mode and look again. If you cannot choose it, answer that it did not hold.`,
    )
  return parsed({ value: 'held', words })
}

const COPIED = /(\d{1,3},\d{3}(?!\d)|\d{1,6}(?:[.,]\d{1,3})?) ?(m|g)i?b(?:ytes)?(?:\/s|ps)\b/i
const WAYS = { write: /\bwrit/i, read: /\bread/i }

/** MB/s of one way: the line that names it, or the only figure there is. */
function readCopied(lines: readonly string[], way: 'write' | 'read'): Parsed<ReadOff> {
  const rates = lines.filter((line) => COPIED.test(line))
  const other = way === 'write' ? 'read' : 'write'
  const named = rates.filter((line) => WAYS[way].test(line) && !WAYS[other].test(line))
  const [line, ...more] = named.length > 0 ? named : rates.filter((each) => !WAYS[other].test(each))
  if (line === undefined)
    return unreadable(`It names no MB/s of ${way === 'write' ? 'writing' : 'reading'}. Paste the line that does.`)
  if (named.length === 0 && more.length > 0)
    return unreadable('It names several rates, and not which way each went. Paste the one line.')
  const found = COPIED.exec(line)
  // three digits behind a comma are thousands: nobody copies to the thousandth
  const plain = (found?.[1] ?? '').replace(/,(?=\d{3}$)/, '').replace(',', '.')
  const megabytes = Number(plain) * (found?.[2]?.toLowerCase() === 'g' ? 1000 : 1)
  return parsed({ value: decimal(megabytes, 1), words: line })
}

const NOW = { volts: /voltage_now\D{0,3}(\d{4,9})$/i, amps: /current_now\D{0,3}-?(\d{1,9})$/i }
const VOLTS = /(\d{1,2}(?:[.,]\d{1,3})?) ?v\b/i
const AMPS = /(\d{1,2}(?:[.,]\d{1,3})?) ?a\b/i
const WATTS = /(\d{1,3}(?:[.,]\d{1,3})?) ?w(?:atts?)?\b/i
const WATTAGE = /\bwatt(?:age|s)?(?: \(w\))? ?[:=] ?(\d{1,3}(?:[.,]\d{1,3})?)/i
const figure = (text = ''): number => Number(text.replace(',', '.'))

/** Watts: what a meter or a power page says, or volts times amperes of a supply. */
function readPower(lines: readonly string[]): Parsed<ReadOff> {
  const now = (of: RegExp) => lines.map((line) => of.exec(line)).find((found) => found !== null)
  const [volts, amps] = [now(NOW.volts), now(NOW.amps)]
  if (volts && amps)
    return parsed({
      value: decimal((Number(volts[1]) * Number(amps[1])) / 1e12, 2),
      words: `${decimal(Number(volts[1]) / 1e6, 2)} V, ${decimal(Number(amps[1]) / 1e6, 2)} A`,
    })
  const line = lines.find((each) => WATTAGE.test(each) || WATTS.test(each) || (VOLTS.test(each) && AMPS.test(each)))
  if (line === undefined) return unreadable('It names no watts, and no volts with amperes. Paste the line that does.')
  const said = WATTAGE.exec(line) ?? WATTS.exec(line)
  const watts = said ? figure(said[1]) : figure(VOLTS.exec(line)?.[1]) * figure(AMPS.exec(line)?.[1])
  return parsed({ value: decimal(watts, 2), words: line })
}

const CELSIUS = /(\d{1,3}(?:[.,]\d{1,2})?) ?°? ?c\b/i
const FAHRENHEIT = /(\d{2,3}(?:[.,]\d{1,2})?) ?°? ?f\b/i

function readWarmth(lines: readonly string[]): Parsed<ReadOff> {
  const line = lines.find((each) => CELSIUS.test(each) || FAHRENHEIT.test(each))
  if (line === undefined) return unreadable('It names no degrees. Paste the line that does.')
  const celsius = CELSIUS.exec(line)
  const degrees = celsius ? figure(celsius[1]) : ((figure(FAHRENHEIT.exec(line)?.[1]) - 32) * 5) / 9
  return parsed({ value: decimal(degrees, 1), words: line })
}
