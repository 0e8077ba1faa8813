import { WARMTHS, type Warmth } from '../observe/kinds/warmth'
import type { Reading, Unwritten } from '../observe/observation'
import { compareRepeats } from '../quantity/compare'
import { fitLine } from '../quantity/line-fit'
import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { HIGHEST_RATE, MEGABYTE_PER_SECOND, parseRate } from '../quantity/rate'
import { type Amps, HIGHEST_WATTS } from '../quantity/watts'
import type { PictureMode } from '../vocabulary/need'
import { feltAt } from './grade-reading'

/** What a test asks somebody to write down. */
export type AskedValue =
  | { kind: 'write' | 'read' | 'watts' | 'warmth' | 'battery' | 'headset link' | 'frames' | 'added delay' | 'sight' }
  | { kind: 'picture'; mode: PictureMode }
  | { kind: 'volts lost'; amps: Amps }

/** What may be written of each, as an example. */
export const valueExamples: Record<AskedValue['kind'], string> = {
  write: '412, or 3.3 Gb/s',
  read: '412, or 3.3 Gb/s',
  watts: '94',
  warmth: 'cool, warm, hot, or 43 (°C)',
  battery: 'hours and percent: 0 92, 0.5 88, 1 84',
  'headset link': '2.4 Gb/s',
  frames: '1795 of 1800, gap 42, reaction 88',
  'added delay': '0.6, or direct 5.2 5.4 5.3; run 5.9 6.0 5.8',
  sight: 'right, or wrong: sparkles',
  picture: 'held, or not',
  'volts lost': '0.31, or amperes and volts: 0.5 0.08, 1 0.15, 2 0.31',
}

/**
 * Reads what somebody wrote down of a figure: of a copy MB/s (a bare figure, or with its unit), of a picture "held" or "not", of a plug "cool", "warm", "hot" or
 * degrees Celsius, of volts lost and a battery one figure or several points. Anything else is refused with what can be written.
 *
 * @example readValue({ kind: 'volts lost', amps: 3 }, "0.5 0.08, 1 0.15, 2 0.31")
 */
export function readValue(asked: AskedValue, text: string): Parsed<Unwritten<Reading>> {
  const plain = plainText(text).toLowerCase()
  const shown = text.slice(0, 24)
  switch (asked.kind) {
    case 'write':
    case 'read': {
      const rate = /^\d+([.,]\d+)?$/.test(plain)
        ? parsed(Number(plain.replace(',', '.')) * MEGABYTE_PER_SECOND)
        : parseRate(text)
      if (!rate.ok || rate.value < 1 || rate.value > HIGHEST_RATE)
        return unreadable(`"${shown}" is not a rate of copying. Write MB/s, such as 412.`)
      return parsed({ kind: 'reading', measure: asked.kind, rate: rate.value })
    }
    case 'watts': {
      const watts = figure(plain, / ?w(atts?)?$/)
      if (watts === null || watts > HIGHEST_WATTS)
        return unreadable(`"${shown}" is not a power over a cable. Write watts from 0 to ${HIGHEST_WATTS}.`)
      return parsed({ kind: 'reading', measure: 'watts', watts: Math.round(watts * 100) / 100 })
    }
    case 'volts lost':
      return readVolts(asked.amps, plain, shown)
    case 'picture':
      if (plain !== 'held' && plain !== 'not') return unreadable('Say whether the picture held or not.')
      return parsed({ kind: 'reading', measure: 'picture', mode: asked.mode, held: plain === 'held' })
    case 'warmth': {
      const felt = WARMTHS.find((each): each is Warmth => each === plain)
      if (felt) return parsed({ kind: 'reading', measure: 'warmth', felt })
      const celsius = figure(plain, / ?(° ?)?c?$/)
      if (celsius === null || celsius > 200)
        return unreadable('Say whether the plug is cool, warm or hot, or its degrees Celsius.')
      return parsed({ kind: 'reading', measure: 'warmth', felt: feltAt(celsius), celsius })
    }
    case 'battery':
      return readBattery(plain, shown)
    case 'headset link': {
      const rate = parseRate(text)
      if (!rate.ok || rate.value > HIGHEST_RATE)
        return unreadable(`"${shown}" is not a rate. Write it as the test says it: 2.4 Gb/s.`)
      return parsed({ kind: 'reading', measure: 'headset link', rate: rate.value })
    }
    case 'frames':
      return readFrames(plain, shown)
    case 'added delay':
      return readDelay(plain, shown)
    case 'sight': {
      const found = /^(right|wrong)(?:[:,]? (.{1,300}))?$/.exec(plainText(text).replace(/^R/, 'r').replace(/^W/, 'w'))
      if (!found) return unreadable('Say "right", or "wrong" and what you saw.')
      return parsed({
        kind: 'reading',
        measure: 'sight',
        good: found[1] === 'right',
        ...(found[2] ? { saw: found[2] } : {}),
      })
    }
  }
}

function figure(text: string, unit: RegExp): number | null {
  const plain = text.replace(unit, '').replace(',', '.')
  return /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : null
}

/** Points at most that somebody types or pastes. */
const MOST_POINTS = 500

/** Pairs of figures with commas, semicolons or new lines between them; null where a piece is no pair. */
function pairsIn(plain: string, pair: RegExp): [number, number][] | null {
  const pieces = plain.split(/[,;] ?/).filter((piece) => piece !== '')
  if (pieces.length < 2 || pieces.length > MOST_POINTS) return null
  const pairs = pieces.map((piece) => pair.exec(piece.trim()))
  return pairs.every((found) => found !== null)
    ? pairs.map((found): [number, number] => [Number(found?.[1]), Number(found?.[2])])
    : null
}

/** Volts lost at one current, or over several: then what the fitted line says at the current of the test. */
function readVolts(amps: Amps, plain: string, shown: string): Parsed<Unwritten<Reading>> {
  const swept = pairsIn(plain, /^(\d+(?:\.\d+)?) ?a? (\d+(?:\.\d+)?) ?v?$/)
  const line = swept && fitLine(swept)
  const volts = line ? Math.max(0, line.intercept + line.slope * amps) : figure(plain, / ?v(olts?)?$/)
  if (volts === null || volts > 50)
    return unreadable(`"${shown}" is not a loss of volts. Write volts there and back, such as 0.31.`)
  return parsed({ kind: 'reading', measure: 'volts lost', volts: Math.round(volts * 1e4) / 1e4, amps })
}

/** A battery's percent over hours: the slope of the line through it, with its interval. */
function readBattery(plain: string, shown: string): Parsed<Unwritten<Reading>> {
  const help = `"${shown}" is no course of a battery. Write hours and percent: 0 92, 0.5 88, 1 84.`
  const points = pairsIn(plain, /^(\d+(?:\.\d+)?) ?h? (\d+(?:\.\d+)?) ?%?$/)
  const line = points && fitLine(points)
  if (!points || !line || points.some(([hours, percent]) => hours > 1000 || percent > 100)) return unreadable(help)
  const hours = points.map(([at]) => at)
  const tenth = (value: number): number => Math.round(value * 100) / 100
  return parsed({
    kind: 'reading',
    measure: 'battery',
    slope: tenth(Math.max(-1000, Math.min(1000, line.slope))),
    ...(Number.isFinite(line.low) && Math.abs(line.low) < 1e5 && Math.abs(line.high) < 1e5
      ? { low: tenth(line.low), high: tenth(line.high) }
      : {}),
    hours: tenth(Math.max(...hours) - Math.min(...hours)),
  })
}

function readFrames(plain: string, shown: string): Parsed<Unwritten<Reading>> {
  const found =
    /^(\d{1,12}) of (\d{1,12})(?: frames)?(?:,? gap (\d{1,7}(?:\.\d+)?)(?: ?ms)?)?(?:,? reaction (\d{1,5}(?:\.\d+)?)(?: ?ms)?)?$/.exec(
      plain,
    )
  if (!found) return unreadable(`"${shown}" says nothing of frames. Write 1795 of 1800, gap 42, reaction 88.`)
  const [came, asked] = [Number(found[1]), Number(found[2])]
  if (came > asked) return unreadable('More frames came than were asked for: write those that came first.')
  return parsed({
    kind: 'reading',
    measure: 'frames',
    asked,
    came,
    ...(found[3] ? { gap: Number(found[3]) } : {}),
    ...(found[4] ? { reaction: Number(found[4]) } : {}),
  })
}

/** The delay that is added: one figure, or repeats of the direct way and of the run. */
function readDelay(plain: string, shown: string): Parsed<Unwritten<Reading>> {
  const one = /^(-?\d{1,4}(?:[.,]\d+)?)(?: ?ms)?$/.exec(plain)
  if (one) return parsed({ kind: 'reading', measure: 'added delay', ms: Number((one[1] ?? '').replace(',', '.')) })
  const both = /^direct:? ([\d. ]{1,400}); ?run:? ([\d. ]{1,400})$/.exec(plain)
  const figures = (text = ''): number[] => text.trim().split(' ').map(Number)
  const compared = both ? compareRepeats(figures(both[1]).slice(0, 60), figures(both[2]).slice(0, 60)) : null
  if (!compared || !Number.isFinite(compared.difference) || Math.abs(compared.difference) > 1000)
    return unreadable(`"${shown}" is no delay. Write 0.6, or direct 5.2 5.4 5.3; run 5.9 6.0 5.8.`)
  return parsed({ kind: 'reading', measure: 'added delay', ms: Math.round(compared.difference * 100) / 100 })
}
