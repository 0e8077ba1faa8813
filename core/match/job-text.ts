import type { Abilities } from '../link/abilities'
import { type LengthUnit, type Metres, parseLength } from '../quantity/length'
import { atLeast, atMost } from '../quantity/limit'
import { plainText } from '../quantity/parsed'
import { type BitsPerSecond, parseRate } from '../quantity/rate'
import { parseWatts, type Watts } from '../quantity/watts'
import { connectorSaid } from '../standards/connector-words'
import type { Connector } from '../standards/connectors'
import { type CableGrade, CONSTRUCTIONS, type Construction, gradeFacts } from '../standards/grades'
import { parseMark } from '../standards/mark-text'

/** What a job asks of a cable, as far as a cable alone can answer it. */
export type Job = {
  rate?: BitsPerSecond
  atLeast?: Metres
  atMost?: Metres
  watts?: Watts
  picture?: true
  construction?: Construction
  /** Its mark or listing, or a better one of the same standard: any of these. */
  marks?: readonly CableGrade[]
  connectors: readonly Connector[]
  /** Words that are none of these; they must stand somewhere in what is written of the cable. */
  words: readonly string[]
}

/** No figure of a job is longer, and looking for one must not begin anew at each of its digits. */
const NUMBER = String.raw`(?<!\d)\d{1,9}(?:[.,]\d{1,9})?`
const RATE = new RegExp(String.raw`(${NUMBER}) ?([gm]b/s|[gm]bps|[gm]bit/s|g)\b`, 'i')
const WATTS = new RegExp(String.raw`(${NUMBER}) ?w(?:atts?)?\b`, 'i')
const LENGTH = new RegExp(
  String.raw`(at least|at most|over|under|up to|>=?|<=?)? ?((?<!\d)\d{1,9}'(?: ?\d{1,9}")?|${NUMBER} ?(?:metres?|m|ft|feet|foot|cm)\b)\+?`,
  'i',
)
/** A bare figure is a length where the words before it say so. */
const BARE_LENGTH = new RegExp(`(at least|at most|over|under|up to|>=?|<=?) ?(${NUMBER})(?=[ ,])`, 'i')
const AT_MOST = new Set(['at most', 'under', 'up to', '<', '<='])
/** Words that mean a connector only where it is known that one is meant. */
const VAGUE = new Set(['a', 'b', 'c', 'own', 'mini', 'micro', 'fibre', 'usb'])
/** A mark that says of itself which standard it is of, or that it is a picture: "HDMI 2.1", "TB4", "8K"; a bare figure is none. */
const MARKED = /^(?:usb|dp|displayport|hdmi|thunderbolt|tbt?)[ -]?v?\d|^gen ?\d|^\dk(?:\d|$)|^u?hbr|speed$/
/** Words that are said together at most: "mini display port", "ultra high speed". */
const MOST_TOGETHER = 3

/**
 * Reads what a job needs from a line of text: a rate, a length ("at least" unless it says otherwise), watts, a construction, connectors and marks as people
 * say them ("usb-c", "dp", "TB4", "8K"), "picture"; whatever is left is searched for as words. A bare length is in the reader's own unit. Any text is a job.
 *
 * @example parseJob('40 Gb/s, at least 2 m, 100 W')
 */
export function parseJob(text: string, unit: LengthUnit = 'm'): Job {
  const job: { -readonly [Name in keyof Job]: Job[Name] } & { connectors: Connector[] } = { connectors: [], words: [] }
  let rest = ` ${plainText(text)} `
  const take = (pattern: RegExp, use: (found: RegExpExecArray) => boolean): void => {
    const found = pattern.exec(rest)
    if (found && use(found)) rest = `${rest.slice(0, found.index)} ${rest.slice(found.index + found[0].length)}`
  }
  take(RATE, ([whole]) => {
    const read = parseRate(whole)
    if (read.ok) job.rate = read.value
    return read.ok
  })
  const length = ([, sense = '', figure = '']: RegExpExecArray): boolean => {
    const read = parseLength(figure, unit)
    if (read.ok) job[AT_MOST.has(sense.toLowerCase()) ? 'atMost' : 'atLeast'] = read.value
    return read.ok
  }
  for (let round = 0; round < 2; round += 1) take(LENGTH, length)
  take(WATTS, ([whole]) => {
    const read = parseWatts(whole)
    if (read.ok) job.watts = read.value
    return read.ok
  })
  for (let round = 0; round < 2; round += 1) take(BARE_LENGTH, length)
  for (const construction of CONSTRUCTIONS) {
    take(new RegExp(`\\b${construction}\\b`, 'i'), () => {
      job.construction = construction
      return true
    })
  }
  take(/\bpictures?\b/i, () => {
    job.picture = true
    return true
  })
  const said = rest
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((word) => word !== '' && word !== 'and' && word !== 'to' && word !== '+')
  const words: string[] = []
  for (let at = 0; at < said.length; ) {
    const taken = takeName(said, at, job)
    if (taken === 0) words.push(said[at] ?? '')
    at += Math.max(1, taken)
  }
  job.words = words
  return job
}

/** How many of the next words name a connector or a mark, which the job then asks for; none where they are only words. */
function takeName(
  said: readonly string[],
  at: number,
  job: { marks?: readonly CableGrade[]; connectors: Connector[] },
): number {
  for (let many = Math.min(MOST_TOGETHER, said.length - at); many > 0; many -= 1) {
    const phrase = said.slice(at, at + many).join(' ')
    const marks = MARKED.test(phrase) && job.marks === undefined ? marksOf(phrase) : []
    if (marks.length > 0) {
      job.marks = marks
      return many
    }
    const connector = VAGUE.has(phrase) ? undefined : connectorSaid(phrase)
    if (connector) {
      job.connectors.push(connector)
      return many
    }
  }
  return 0
}

/** What a mark may stand for: "8K" is written on HDMI and on DisplayPort leads. */
const marksOf = (phrase: string): CableGrade[] =>
  ([[], ['displayport']] as const).flatMap((ends) => {
    const mark = parseMark(phrase, ends)
    return mark.ok ? mark.value : []
  })

/** The standard that a grade is of: marks of one standard can be compared. */
const familyOf = (grade: CableGrade): string => /^(?:dp|hdmi|thunderbolt|cat)/.exec(grade)?.[0] ?? 'usb'
const isMarked = (grade: CableGrade | null, asked: CableGrade): boolean =>
  grade !== null && familyOf(grade) === familyOf(asked) && gradeFacts[grade].marked >= gradeFacts[asked].marked

/** Whether a cable does a job by itself; `text` is all that is written of it, in lower case. */
export function doesJob(job: Job, abilities: Abilities, text: string): boolean {
  const { cable, rate, watts, picture } = abilities
  return (
    (job.rate === undefined || atLeast(rate, job.rate)) &&
    (job.atLeast === undefined || atLeast(cable.length, job.atLeast)) &&
    (job.atMost === undefined || atMost(cable.length, job.atMost)) &&
    (job.watts === undefined || atLeast(watts, job.watts)) &&
    (job.marks === undefined || job.marks.some((mark) => isMarked(abilities.known.grade.value, mark))) &&
    (job.picture === undefined || picture !== null) &&
    (job.construction === undefined || cable.construction === job.construction) &&
    job.connectors.every((connector) => cable.ends.some((end) => end.connector === connector)) &&
    job.words.every((word) => text.includes(word))
  )
}
