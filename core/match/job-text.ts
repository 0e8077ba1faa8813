import type { Abilities } from '../link/abilities'
import { type LengthUnit, type Metres, parseLength } from '../quantity/length'
import { atLeast, atMost } from '../quantity/limit'
import { plainText } from '../quantity/parsed'
import { type BitsPerSecond, parseRate } from '../quantity/rate'
import { parseWatts, type Watts } from '../quantity/watts'
import { CONNECTORS, type Connector, connectorNames } from '../standards/connectors'
import { CONSTRUCTIONS, type Construction } from '../standards/grades'

/** What a job asks of a cable, as far as a cable alone can answer it. */
export type Job = {
  rate?: BitsPerSecond
  atLeast?: Metres
  atMost?: Metres
  watts?: Watts
  picture?: true
  construction?: Construction
  connectors: readonly Connector[]
  /** Words that are none of these; they must stand somewhere in what is written of the cable. */
  words: readonly string[]
}

/** No figure of a job is longer, and looking for one must not begin anew at each of its digits. */
const NUMBER = String.raw`(?<!\d)\d{1,9}(?:[.,]\d{1,9})?`
const RATE = new RegExp(String.raw`(${NUMBER}) ?([gm]b/s|[gm]bps|[gm]bit/s|g)\b`, 'i')
const WATTS = new RegExp(String.raw`(${NUMBER}) ?w(?:atts?)?\b`, 'i')
const LENGTH = new RegExp(
  String.raw`(at least|at most|over|under|up to|>=?|<=?)? ?((?<!\d)\d{1,9}'(?: ?\d{1,9}")?|${NUMBER} ?(?:metres?|m|ft|feet|foot|cm)\b)`,
  'i',
)
/** A bare figure is a length where the words before it say so. */
const BARE_LENGTH = new RegExp(`(at least|at most|over|under|up to|>=?|<=?) ?(${NUMBER})(?=[ ,])`, 'i')
const AT_MOST = new Set(['at most', 'under', 'up to', '<', '<='])
const connectorWords: readonly [string, Connector][] = [
  ...CONNECTORS.map((connector): [string, Connector] => [connector, connector]),
  ...CONNECTORS.map((connector): [string, Connector] => [connectorNames[connector].toLowerCase(), connector]),
]
/** The longest first, so that "mini displayport" is not taken for "displayport". */
const connectorsByLength = [...connectorWords].sort(([one], [other]) => other.length - one.length)

/**
 * Reads what a job needs from a line of text: a rate, a length ("at least" unless it says otherwise), watts, a construction, connectors,
 * "picture"; whatever is left is searched for as words. A bare length is in the reader's own unit. Any text is a job.
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
  for (const [word, connector] of connectorsByLength) {
    take(new RegExp(`(?<=[\\s,])${word.replace(/[-/]/g, '\\$&')}(?=[\\s,])`, 'i'), () => {
      job.connectors.push(connector)
      return true
    })
  }
  job.words = rest
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((word) => word !== '' && word !== 'and' && word !== 'to')
  return job
}

/** Whether a cable does a job by itself; `text` is all that is written of it, in lower case. */
export function doesJob(job: Job, abilities: Abilities, text: string): boolean {
  const { cable, rate, watts, picture } = abilities
  return (
    (job.rate === undefined || atLeast(rate, job.rate)) &&
    (job.atLeast === undefined || atLeast(cable.length, job.atLeast)) &&
    (job.atMost === undefined || atMost(cable.length, job.atMost)) &&
    (job.watts === undefined || atLeast(watts, job.watts)) &&
    (job.picture === undefined || picture !== null) &&
    (job.construction === undefined || cable.construction === job.construction) &&
    job.connectors.every((connector) => cable.ends.some((end) => end.connector === connector)) &&
    job.words.every((word) => text.includes(word))
  )
}
