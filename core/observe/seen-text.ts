import { parsePictureMode } from '../picture/mode-text'
import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { GIGABIT, HIGHEST_RATE, parseRate } from '../quantity/rate'
import { HIGHEST_WATTS } from '../quantity/watts'
import { LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { parseMark, parsePowerMark } from '../standards/mark-text'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import type { HeldBackBy } from './every'
import type { SetRight } from './kinds/set-right'
import type { Statement } from './kinds/statement'
import { WARMTHS } from './kinds/warmth'
import type { Unwritten } from './observation'

/** What is known of where something was seen: the modes both ports speak, the best of them, and what the lead ought to come up as between them. */
export type SeenContext = { spoken: readonly LinkMode[]; expected: LinkMode | null; ought: LinkMode | null }

/** What people may write, each with what it reads as. */
export const SEEN_EXAMPLES = [
  'held 10 Gb/s for 60 s',
  'came up as USB 2.0',
  'dropped after 70 s',
  'nothing came up',
  'wrote 370 MB/s, read 410 MB/s',
  'wrote 190 MB/s, the lead was the limit',
  '94 W',
  '0.4 V at 3 A',
  'hot',
  'no chip',
  'black at 4K@60',
  'the seller says 40',
  'looks like charge only',
  'reseated',
] as const

const HELP = `Write what you saw: ${SEEN_EXAMPLES.slice(0, 6).join('; ')}; 94 W; 0.4 V at 3 A; hot; no chip; black at 4K@60; the seller says 40.`

/**
 * Reads a line of what somebody saw of a lead or a run: one thing, or several with commas between them. Answers observations without the moment and the
 * place, or what can be written instead.
 *
 * @example parseSeen("held 10 Gb/s for 60 s, wrote 370 MB/s", { spoken: [], expected: null, ought: null })
 */
export function parseSeen(line: string, context: SeenContext): Parsed<Unwritten[]> {
  const plain = plainText(line)
  if (plain === '') return unreadable(HELP)
  const { text, limit } = withoutLimit(plain)
  const seen: Unwritten[] = []
  for (const part of text.split(/[,;] ?/).filter((each) => each !== '')) {
    const read = readPart(part, context)
    if (!read.ok) return read
    seen.push(limit && read.value.kind === 'reading' ? { ...read.value, limit } : read.value)
  }
  return seen.length > 0 ? parsed(seen) : unreadable(HELP)
}

/** What can be said of a kind of cable as a whole. */
export const SAID_EXAMPLES = ['the seller says 40', 'the seller says 40 and 240 W', 'looks like charge only'] as const

/**
 * Reads a line of what somebody says of a kind of cable. A test is of one cable and says nothing of its kind by itself; the record of the kind is made of the
 * tests of its cables.
 *
 * @example parseSaid("the seller says 40 and 240 W")
 */
export function parseSaid(line: string): Parsed<Unwritten[]> {
  const help = `Write what somebody says of this kind: ${SAID_EXAMPLES.join('; ')}.`
  if (plainText(line) === '') return unreadable(help)
  const read = parseSeen(line, ANYWHERE)
  if (!read.ok) return unreadable(`"${plainText(line).slice(0, 40)}" says nothing of a kind. ${help}`)
  return read.value.every(({ kind }) => kind === 'statement')
    ? read
    : unreadable(`A test is of one cable: write it down on the page of that cable. ${help}`)
}

/** Enough to read whatever a test is written as. */
const ANYWHERE: SeenContext = { spoken: [], expected: 'usb2', ought: 'usb2' }

/** "the lead was the limit" belongs to all figures of the line. */
function withoutLimit(text: string): { text: string; limit: HeldBackBy | null } {
  const found = /[,;]? ?(?:the )?(lead|cable|disk|charger|display|device) was the limit\.?$/i.exec(text)
  if (!found) return { text, limit: null }
  const word = (found[1] ?? '').toLowerCase()
  return { text: text.slice(0, found.index), limit: word === 'cable' ? 'lead' : (word as HeldBackBy) }
}

function readPart(part: string, context: SeenContext): Parsed<Unwritten> {
  const lower = part.toLowerCase()
  if (/^no (chip|e-?marker)$/.test(lower))
    return parsed({ kind: 'statement', basis: 'chip', grade: null, amps: null, volts: null })
  const told = readTold(part)
  if (told) return told
  const warmth = readWarmth(lower) ?? readSetRight(lower)
  if (warmth) return parsed(warmth)
  const figure = readFigure(part, lower)
  if (figure) return figure
  return readLink(lower, context) ?? unreadable(`"${part.slice(0, 40)}" says nothing that can be written down. ${HELP}`)
}

/** What somebody says of a lead, or what it looks like: a mark, a power mark, or both with "and" between them. */
function readTold(part: string): Parsed<Unwritten> | null {
  const looks = /^(?:it )?looks like (?:an? )?(.{1,60})$/i.exec(part)
  const told = /^(.{1,60}?) says (?:it is |it carries )?(.{1,60})$/i.exec(part)
  const marks = (looks?.[1] ?? told?.[2])?.replace(/ (?:lead|cable)$/i, '')
  if (marks === undefined) return null
  const said: Partial<Pick<Statement, 'grade' | 'amps' | 'volts'>> = {}
  for (const mark of marks.split(/ and /i)) {
    const power = /(?:[wa]|amps?|watts?)$/i.test(mark) ? parsePowerMark(mark) : null
    if (power?.ok) Object.assign(said, power.value)
    else {
      const grade = parseMark(mark)
      if (!grade.ok) return grade
      said.grade = grade.value
    }
  }
  return parsed({ kind: 'statement', ...(told?.[1] ? { basis: 'told', from: told[1] } : { basis: 'looks' }), ...said })
}

/** What somebody did about it. */
const SET_RIGHT: readonly (readonly [RegExp, SetRight])[] = [
  [/^(plugs? )?(reseated|pushed home|plugged in again)$/, 'reseated'],
  [/^(lead )?turned( round)?$/, 'turned'],
  [/^(plugs? |contacts )?cleaned$/, 'cleaned'],
  [/^(computer )?restarted$/, 'restarted'],
  [/^(new driver|drivers? (changed|updated))$/, 'driver'],
  [/^stale entries( removed)?$/, 'stale entries'],
]

function readSetRight(text: string): Unwritten | null {
  const found = SET_RIGHT.find(([pattern]) => pattern.test(text))
  return found ? { kind: 'set right', what: found[1] } : null
}

function readWarmth(text: string): Unwritten | null {
  const degrees = /^(\d{1,3}) ?(?:°|degrees)? ?c$/.exec(text)
  if (degrees) {
    const celsius = Number(degrees[1])
    return {
      kind: 'reading',
      measure: 'warmth',
      felt: celsius >= 50 ? 'hot' : celsius >= 40 ? 'warm' : 'cool',
      celsius,
    }
  }
  const found = /^(?:it |the |its )?(?:plug |lead |cable |box )?(?:ran |got |was |is )?(cool|warm|hot)$/.exec(text)
  const felt = WARMTHS.find((each) => each === found?.[1])
  return felt ? { kind: 'reading', measure: 'warmth', felt } : null
}

const number = (text: string | undefined): number => Number((text ?? '').replace(',', '.'))

function readFigure(part: string, lower: string): Parsed<Unwritten> | null {
  const copy = /^(wrote|write|read) (?:at )?(\d[\d.]*) ?([a-z/]*)$/i.exec(part)
  if (copy) {
    const measure = (copy[1] ?? '').toLowerCase() === 'read' ? 'read' : 'write'
    const rate = copy[3] === '' ? parseRate(`${copy[2]} MB/s`) : parseRate(`${copy[2]} ${copy[3]}`)
    if (!rate.ok || rate.value > HIGHEST_RATE) return unreadable('A copy is so many MB/s: wrote 370 MB/s.')
    return parsed({ kind: 'reading', measure, rate: rate.value })
  }
  const watts = /^(\d[\d.]*) ?w(?:atts?)?(?: arrived)?$/.exec(lower)
  if (watts) {
    if (number(watts[1]) > HIGHEST_WATTS) return unreadable(`Power over a cable is at most ${HIGHEST_WATTS} W.`)
    return parsed({ kind: 'reading', measure: 'watts', watts: number(watts[1]) })
  }
  const volts = /^(?:lost )?(\d[\d.]*) ?v(?:olts?)? (?:lost )?at (\d[\d.]*) ?a(?:mps?)?$/.exec(lower)
  if (volts) {
    if (number(volts[1]) > 50 || number(volts[2]) > 10)
      return unreadable('Volts lost lie between 0 and 50, amperes between 0 and 10.')
    return parsed({ kind: 'reading', measure: 'volts lost', volts: number(volts[1]), amps: number(volts[2]) })
  }
  return readPicture(part, lower)
}

function readPicture(part: string, lower: string): Parsed<Unwritten> | null {
  const black = /^(?:the )?(?:picture |screen )?(?:was |is |stayed )?black (?:at )?/.exec(lower)
  const holds = /^(?:picture|showed|shows) /.exec(lower)
  const lead = black ?? holds
  if (!lead) return null
  const rest = part.slice(lead[0].length).replace(/ held$/i, '')
  const mode = parsePictureMode(rest)
  if (!mode.ok) return mode
  return parsed({ kind: 'reading', measure: 'picture', mode: mode.value, held: black === null })
}

const DURATION = / ?(?:,|for|after|over)? ?(\d{1,7}) ?(s|sec|seconds?|min|minutes?|h|hours?|d|days?)$/

/** How long it was watched, and the text before that. */
function withoutDuration(text: string): { text: string; seconds: number | null } {
  const found = DURATION.exec(text)
  if (!found) return { text, seconds: null }
  const unit = found[2]?.[0] ?? 's'
  const each = unit === 'm' ? 60 : unit === 'h' ? 3600 : unit === 'd' ? 86_400 : 1
  return { text: text.slice(0, found.index).trim(), seconds: Math.min(10_000_000, Number(found[1]) * each) }
}

function readLink(lower: string, { spoken, expected, ought }: SeenContext): Parsed<Unwritten> | null {
  const { text, seconds } = withoutDuration(lower)
  const watched = seconds === null ? {} : { seconds }
  const gone = /^(?:it )?(nothing(?: came up)?|not detected|dropped|drops)(?: (?:at|from|in) (.+))?$/.exec(text)
  if (gone) {
    const dropped = gone[1]?.startsWith('drop')
    // what dropped had come up as what the lead promises; two ports always try for the best they share
    const tried = gone[2] === undefined ? (dropped ? (ought ?? expected) : expected) : modeFrom(gone[2], spoken)
    if (tried === null) return unreadable(`Say at which rate: ${gone[1]} at 10 Gb/s. ${spokenWords(spoken)}`)
    return parsed({ kind: 'trial', basis: dropped ? 'soaked' : 'measured', tried, cameUp: null, ...watched })
  }
  const up = /^(?:it )?(?:held |holds |came up (?:as |at )?|linked at |)(.+)$/.exec(text)
  const cameUp = up ? modeFrom(up[1] ?? '', spoken) : null
  if (cameUp === null) return null
  const tried = spoken.length > 0 && expected ? expected : cameUp
  const soaked = (seconds ?? 0) >= SHORTEST_SOAK_SECONDS
  return parsed({ kind: 'trial', basis: soaked ? 'soaked' : 'measured', tried, cameUp, ...watched })
}

const spokenWords = (spoken: readonly LinkMode[]): string =>
  spoken.length === 0 ? '' : `These ports speak ${spoken.map((mode) => linkModeFacts[mode].name).join(', ')}.`

/** What people mean by a bare rate where nobody says which ports it was. */
const USUAL: readonly LinkMode[] = ['usb2', 'gen1x1', 'gen2x1', 'usb4-20', 'usb4-40', 'usb4-80']

/** The mode that somebody names by its rate or its name; of several of one rate the one these ports speak. */
export function modeFrom(text: string, spoken: readonly LinkMode[]): LinkMode | null {
  const plain = text.trim().toLowerCase()
  if (/^usb ?2(\.0)?$/.test(plain) || plain === '480 mb/s') return 'usb2'
  const named = LINK_MODES.find((mode) => mode === plain || linkModeFacts[mode].name.toLowerCase() === plain)
  if (named) return named
  const found = /^(usb4|thunderbolt|usb|tbt)? ?(?:\d )?(5|10|20|40|80) ?(?:g|gb|gb\/s|gbps|gbit\/s)?$/.exec(plain)
  if (!found) return null
  const rate = Number(found[2]) * GIGABIT
  const family = found[1]
  const fits = (mode: LinkMode): boolean =>
    linkModeFacts[mode].line === rate &&
    (family === undefined ||
      (family === 'usb4' && mode.startsWith('usb4')) ||
      ((family === 'thunderbolt' || family === 'tbt') && mode.startsWith('tbt')) ||
      (family === 'usb' && mode.startsWith('gen')))
  return spoken.findLast(fits) ?? USUAL.find(fits) ?? LINK_MODES.find(fits) ?? null
}
