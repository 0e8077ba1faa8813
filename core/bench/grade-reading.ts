import type { Verdict } from '../checks/finding'
import { SHARE_OF_WATTS } from '../link/lead-came'
import { batteryWords, HOLDS_WITHIN } from '../observe/kinds/battery'
import { cameUpText } from '../observe/kinds/trial'
import type { Warmth } from '../observe/kinds/warmth'
import { figureText, type Reading, type Tried, type Unwritten } from '../observe/observation'
import { formatPictureMode } from '../picture/mode-text'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { loopDrop, loopOhms } from '../power/wire'
import { atLeast, atMost } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { formatBytesPerSecond, formatRate, MEGABYTE_PER_SECOND } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { isBetterMode, linkModeFacts } from '../standards/link-modes'
import type { BenchTest } from '../vocabulary/session'
import type { Prediction } from './predict'

/** How a reading stands to what the lead should do: as it should, less, or not at all; `beyond` where it did more than that. */
export type ReadingGrade = { grade: Verdict; beyond: boolean }

/** Copies vary: down to this share of the predicted band's low end a reading is merely less, below it something is wrong (common practice). */
const SHARE_OF_BAND = 0.8
const SHARE_OF_WATTS_WRONG = 0.5
/** Test leads and contacts add a little to the volts lost. */
const SHARE_OF_VOLTS = 1.2

const felt: Record<Warmth, Verdict> = { cool: 'clear', warm: 'tight', hot: 'blocked' }

/** A plug too hot to hold is too hot: about 50 °C; warm from about 40 °C on (common practice). */
export const feltAt = (celsius: number): Warmth => (celsius >= 50 ? 'hot' : celsius >= 40 ? 'warm' : 'cool')

/**
 * Grades one reading against what was predicted of the cable; null where a reading does not belong to that prediction, or is short because something
 * else was the limit: then it is a lower bound and says nothing against the lead.
 */
export function gradeReading(prediction: Prediction, reading: Unwritten<Tried>): ReadingGrade | null {
  if (reading.kind === 'trial') {
    if (prediction.kind !== 'link' || prediction.unknown) return null
    const { mode } = prediction
    const { cameUp } = reading
    if (cameUp === null) return as(mode === null && reading.basis === 'measured' ? 'clear' : 'blocked')
    if (cameUp === mode) return as('clear')
    return isBetterMode(cameUp, mode) ? { grade: 'clear', beyond: true } : as('tight')
  }
  switch (reading.measure) {
    case 'write':
    case 'read': {
      if (prediction.kind !== 'rate' || prediction.unknown) return null
      const { low, high } = prediction
      // a figure is written down to the megabyte
      const rate = reading.rate + MEGABYTE_PER_SECOND / 2
      if (rate >= low) return { grade: 'clear', beyond: reading.rate > high * 1.05 }
      if (elseLimited(reading)) return null
      return as(rate >= low * SHARE_OF_BAND ? 'tight' : 'blocked')
    }
    case 'watts': {
      if (prediction.kind !== 'watts') return null
      const share = prediction.watts === 0 ? 1 : reading.watts / prediction.watts
      if (atLeast(share, SHARE_OF_WATTS)) return { grade: 'clear', beyond: share > 1.05 }
      if (elseLimited(reading)) return null
      return as(share >= SHARE_OF_WATTS_WRONG ? 'tight' : 'blocked')
    }
    case 'picture': {
      if (prediction.kind !== 'picture') return null
      if (reading.held) return { grade: 'clear', beyond: !prediction.fits }
      return as(prediction.fits ? 'blocked' : 'clear')
    }
    case 'volts lost': {
      if (prediction.kind !== 'volts lost') return null
      // read at another current, its resistance tells what is lost at the one that is asked; both conductors have their share, as in Match
      const { volts, amps } = reading
      const drop = loopDrop(loopOhms(volts, amps === 0 ? prediction.amps : amps), prediction.amps)
      if (drop.allowed) return as('clear')
      return as(atMost(drop.total, prediction.most * SHARE_OF_VOLTS) ? 'tight' : 'blocked')
    }
    case 'warmth':
      return prediction.kind === 'warmth' ? as(felt[reading.felt]) : null
    case 'battery': {
      if (prediction.kind !== 'battery') return null
      if (reading.slope >= prediction.slope - HOLDS_WITHIN)
        return { grade: 'clear', beyond: reading.slope > prediction.slope + HOLDS_WITHIN }
      return as(prediction.least === null || reading.slope >= prediction.least ? 'tight' : 'blocked')
    }
    case 'added delay':
      if (prediction.kind !== 'added delay' || prediction.most === null) return null
      return as(atMost(reading.ms, prediction.most) ? 'clear' : 'blocked')
    case 'frames':
      if (prediction.kind !== 'frames') return null
      return as(reading.came >= reading.asked ? 'clear' : elseLimited(reading) ? 'tight' : 'blocked')
    case 'headset link':
      if (prediction.kind !== 'headset link') return null
      return as(atLeast(reading.rate, prediction.least) ? 'clear' : 'blocked')
    case 'sight':
      return prediction.kind === 'sight' ? as(reading.good ? 'clear' : 'blocked') : null
    case 'job':
      return null
  }
}

const elseLimited = ({ limit }: Pick<Reading, 'limit'>): boolean =>
  limit !== undefined && limit !== 'lead' && limit !== 'unknown'

const as = (grade: Verdict): ReadingGrade => ({ grade, beyond: false })

/** What was read, in a few words: "10 Gb/s, 60 s", "412 MB/s", "hot, 63 °C". */
export function readingText(reading: Tried): string {
  if (reading.kind === 'trial') return cameUpText(reading)
  return figureText(reading)
}

/** What a lead should do in a test, in a few words. */
export function predictionText(prediction: Prediction): string {
  switch (prediction.kind) {
    case 'does not fit':
      return 'does not fit these ports'
    case 'link':
      if (prediction.unknown) return 'nothing is promised'
      return prediction.mode === null ? 'no data' : linkModeFacts[prediction.mode].name
    case 'rate':
      if (prediction.unknown) return 'nothing is promised'
      return prediction.high === 0
        ? 'no data'
        : `${formatBytesPerSecond(prediction.low)} to ${formatBytesPerSecond(prediction.high)}`
    case 'watts':
      return formatWatts(prediction.watts)
    case 'picture':
      return prediction.fits ? 'holds' : 'is more than it carries'
    case 'volts lost':
      return prediction.expected === null
        ? `at most ${decimal(prediction.most, 2)} V`
        : `about ${decimal(prediction.expected, 2)} V, at most ${decimal(prediction.most, 2)} V`
    case 'warmth':
      return 'cool'
    case 'battery':
      return batteryWords(prediction.slope)
    case 'added delay':
      return prediction.most === null ? 'nobody said' : `at most ${decimal(prediction.most, 1)} ms`
    case 'frames':
      return 'every frame comes'
    case 'headset link':
      return `at least ${formatRate(prediction.least)}`
    case 'sight':
      return 'looks right'
  }
}

export const gradeTexts: Record<Verdict, string> = { clear: 'as it should', tight: 'less', blocked: 'fails' }

/** A test with what tells it from others of its sort: "watts, Desk charger", "link, soaked 60 s, left". */
export function testTitle(index: SiteIndex, test: BenchTest): string {
  const { device, port } = socketAt(index, test.from)
  const where = test.kind === 'watts' ? device.name : test.kind === 'link' ? port.controller : undefined
  return where === undefined ? testText(test) : `${testText(test)}, ${where}`
}

/** "write, MB/s": what a test is, in the words of its column. */
export function testText(test: BenchTest): string {
  switch (test.kind) {
    case 'link':
      return test.soak > 0 ? `link, soaked ${test.soak} s` : 'link'
    case 'write':
      return 'write, MB/s'
    case 'read':
      return 'read, MB/s'
    case 'watts':
      return 'watts'
    case 'picture':
      return `picture ${formatPictureMode(test.mode)}`
    case 'volts lost':
      return `volts lost at ${decimal(test.amps, 1)} A`
    case 'warmth':
      return 'plug warmth'
  }
}
