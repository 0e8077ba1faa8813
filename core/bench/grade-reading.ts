import type { Verdict } from '../checks/finding'
import { formatPictureMode } from '../picture/mode-text'
import { type Evidence, isReading, isTrial, type Warmth } from '../plan/cable'
import type { BenchTest } from '../plan/session'
import { decimal } from '../quantity/parsed'
import { formatBytesPerSecond, MEGABYTE_PER_SECOND } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { isBetterMode, linkModeFacts } from '../standards/link-modes'
import type { Prediction } from './predict'

/** How a reading stands to what the lead should do: as it should, less, or not at all; `beyond` where it did more than that. */
export type ReadingGrade = { grade: Verdict; beyond: boolean }

/** Copies vary: down to this share of the predicted band's low end a reading is merely less, below it something is wrong (common practice). */
const SHARE_OF_BAND = 0.8
/** A device draws a little less than it negotiated. */
const SHARE_OF_WATTS = 0.9
const SHARE_OF_WATTS_WRONG = 0.5
/** Test leads and contacts add a little to the volts lost. */
const SHARE_OF_VOLTS = 1.2

const felt: Record<Warmth, Verdict> = { cool: 'clear', warm: 'tight', hot: 'blocked' }

/** A plug too hot to hold is too hot: about 50 °C; warm from about 40 °C on (common practice). */
export const feltAt = (celsius: number): Warmth => (celsius >= 50 ? 'hot' : celsius >= 40 ? 'warm' : 'cool')

/** Grades one reading against what was predicted of the cable; null where a reading does not belong to that prediction. */
export function gradeReading(prediction: Prediction, evidence: Evidence): ReadingGrade | null {
  if (isTrial(evidence)) {
    if (prediction.kind !== 'link') return null
    const { mode } = prediction
    const { cameUp } = evidence
    if (cameUp === null) return as(mode === null && evidence.basis === 'measured' ? 'clear' : 'blocked')
    if (cameUp === mode) return as('clear')
    return isBetterMode(cameUp, mode) ? { grade: 'clear', beyond: true } : as('tight')
  }
  if (!isReading(evidence)) return null
  switch (evidence.measure) {
    case 'write':
    case 'read': {
      if (prediction.kind !== 'rate') return null
      const { low, high } = prediction
      // a figure is written down to the megabyte
      const rate = evidence.rate + MEGABYTE_PER_SECOND / 2
      if (rate >= low) return { grade: 'clear', beyond: evidence.rate > high * 1.05 }
      return as(rate >= low * SHARE_OF_BAND ? 'tight' : 'blocked')
    }
    case 'watts': {
      if (prediction.kind !== 'watts') return null
      const share = prediction.watts === 0 ? 1 : evidence.watts / prediction.watts
      if (share >= SHARE_OF_WATTS) return { grade: 'clear', beyond: share > 1.05 }
      return as(share >= SHARE_OF_WATTS_WRONG ? 'tight' : 'blocked')
    }
    case 'picture': {
      if (prediction.kind !== 'picture') return null
      if (evidence.held) return { grade: 'clear', beyond: !prediction.fits }
      return as(prediction.fits ? 'blocked' : 'clear')
    }
    case 'volts lost': {
      if (prediction.kind !== 'volts lost') return null
      if (evidence.volts <= prediction.most) return as('clear')
      return as(evidence.volts <= prediction.most * SHARE_OF_VOLTS ? 'tight' : 'blocked')
    }
    case 'warmth':
      return prediction.kind === 'warmth' ? as(felt[evidence.felt]) : null
  }
}

const as = (grade: Verdict): ReadingGrade => ({ grade, beyond: false })

/** What was read, in a few words: "10 Gb/s, 60 s", "412 MB/s", "hot, 63 °C". */
export function readingText(evidence: Evidence): string {
  if (isTrial(evidence)) {
    const watched = evidence.seconds ? `, ${evidence.seconds} s` : ''
    if (evidence.cameUp === null) return evidence.basis === 'soaked' ? `dropped${watched}` : 'nothing came up'
    return `${linkModeFacts[evidence.cameUp].name}${watched}`
  }
  if (!isReading(evidence)) return ''
  switch (evidence.measure) {
    case 'write':
    case 'read':
      return formatBytesPerSecond(evidence.rate)
    case 'watts':
      return formatWatts(evidence.watts)
    case 'picture':
      return evidence.held ? 'held' : 'did not hold'
    case 'volts lost':
      return `${decimal(evidence.volts, 2)} V at ${decimal(evidence.amps, 1)} A`
    case 'warmth':
      return evidence.celsius === undefined ? evidence.felt : `${evidence.felt}, ${decimal(evidence.celsius, 0)} °C`
  }
}

/** What a lead should do in a test, in a few words. */
export function predictionText(prediction: Prediction): string {
  switch (prediction.kind) {
    case 'does not fit':
      return 'does not fit these ports'
    case 'link':
      return prediction.mode === null ? 'no data' : linkModeFacts[prediction.mode].name
    case 'rate':
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
  }
}

export const gradeTexts: Record<Verdict, string> = { clear: 'as it should', tight: 'less', blocked: 'fails' }

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
