import { basisNames } from '../observe/basis'
import type { Conflict } from '../observe/known'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { formatBytesPerSecond, formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { type CableGrade, gradeFacts } from '../standards/grades'
import type { Instant } from '../vocabulary/fields'
import type { NeedKind } from '../vocabulary/need'
import type { Caution, LackFigures, Unit } from './finding'
import { modeName } from './mode-name'

export const needNames: Record<NeedKind, string> = {
  picture: 'picture',
  'own screen': "laptop's own screen",
  storage: 'storage',
  headset: 'headset',
  camera: 'camera',
  sensor: 'sensor',
  audio: 'audio',
  data: 'plain data',
  power: 'power',
}

export const gradeWords = { clear: 'Clear', tight: 'Tight', blocked: 'Blocked', note: 'Note' } as const

/** A figure of a finding with its unit. */
export function formatFigure(value: number | null, unit: Unit | null, lengthUnit: LengthUnit = 'm'): string {
  if (value === null || unit === null) return '-'
  const size = Math.abs(value)
  const text =
    unit === 'V'
      ? `${decimal(size, 2)} V`
      : unit === 'm'
        ? formatLength(size, lengthUnit)
        : unit === 'W'
          ? formatWatts(size)
          : formatRate(size)
  return value < 0 ? `-${text}` : text
}

/** The same in the other unit that people think in: feet for metres, bytes for bits; of watts and volts there is none. */
export function otherFigure(value: number | null, unit: Unit | null, lengthUnit: LengthUnit = 'm'): string | null {
  if (value === null || value === 0 || unit === null || unit === 'W' || unit === 'V') return null
  if (unit === 'bit/s') return formatBytesPerSecond(Math.abs(value))
  return formatLength(Math.abs(value), lengthUnit === 'm' ? 'ft' : 'm')
}

/** "an active lead", "a USB lead". */
export const article = (words: string): string =>
  `${/^[aeiou]/i.test(words) && !/^u(s|h)/i.test(words) ? 'an' : 'a'} ${words}`

/** "A, B and C". */
export const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`

/** The day of a moment, as it is told in sentences. */
export const dayOf = (instant: Instant): string => instant.slice(0, 10)

export const TRY_AGAIN = ' The computer has changed since, so it is worth trying again.'
export const SET_RIGHT = ' Somebody has set it right since: three tries and a soak will tell.'

/** Why a lead does not carry a mode. */
export function lackSentence(lack: LackFigures, label: string, unit: LengthUnit = 'm'): string {
  const mode = modeName(lack.mode)
  const metres = (value: number): string => formatLength(value, unit)
  switch (lack.why) {
    case 'grade':
      return `${label} (${lack.grade}) does not carry ${mode}.`
    case 'reach':
      return `By the book ${article(lack.passive ? 'passive' : lack.unfed ? 'active, unfed' : 'active')} ${lack.grade} lead carries ${mode} up to ${metres(lack.reach ?? 0)}; ${label} is ${metres(lack.length)}.`
    case 'chain':
      return `The leads up to ${label} make ${metres(lack.length)} in a row, more than ${mode} allows over passive leads (${metres(lack.reach ?? 0)} for this one alone).`
    case 'unfed':
      return `${label} needs a supply at its far end, and there is no mains there.`
    case 'failed': {
      const how = lack.failed?.dropped ? `dropped ${mode} here` : `was tried here at ${mode} and did not come up`
      const often = lack.failed && lack.failed.times > 1 ? ` ${lack.failed.times} times, last` : ''
      const when = lack.failed ? ` on ${dayOf(lack.failed.at)}` : ''
      return `${label} ${how}${often}${when}.`
    }
    case 'doubted':
      return `Nothing yet shows that ${label} holds ${mode} here.`
  }
}

/** "held in 1 of the 3 other sockets it was tried in". */
export const triedElsewhere = ({ held, failed }: { held: number; failed: number }): string =>
  held + failed === 1
    ? `${held === 1 ? 'held' : 'failed'} in the one other socket it was tried in`
    : `held in ${held} of the ${held + failed} other sockets it was tried in`

/** Which two pieces of evidence on a lead cannot both be right, and which is believed. */
export const conflictSentence = ({ about, believed, overruled }: Conflict, label: string): string =>
  `Evidence on ${label} disagrees about its ${conflictNames[about]}: ${basisNames[overruled.basis]} says ${conflictValue(about, overruled.value)}, ${basisNames[believed.basis]} says ${conflictValue(about, believed.value)}; the latter is believed.`

const conflictNames = { grade: 'rate', amps: 'current', volts: 'voltage' } as const
const conflictValue = (about: keyof typeof conflictNames, value: string | number): string =>
  about === 'grade' ? gradeFacts[value as CableGrade].name : `${value} ${about === 'amps' ? 'A' : 'V'}`

export const cautionSentences: Record<Caution, string> = {
  'two-supplies':
    'Never join two supplies with a type-A to type-A or "Y" lead: it ties them together and can destroy both or start a fire.',
  'above-60-watts':
    'Above 60 W, use only a lead marked 5 A. If a lead or plug gets hot, disconnect it at the supply, let it cool, and retire it.',
  'local-code':
    'Jacket rating, fire stopping and separation from mains follow the local code and belong to licensed people. Hallway does not declare this route compliant.',
  earths: 'Never lift a safety earth to cure hum. Ask a licensed electrician about the earths first.',
  height: 'Work at height: proper access equipment, not alone, nothing overhead without a secondary fixing.',
  hot: 'If a lead or plug gets hot, disconnect it at the supply, let it cool, and retire it.',
  trip: 'A lead on the floor or on a head trips people and pulls necks: guide it overhead, tape it down or give it a breakaway.',
  'optical-end': 'Do not look into a disconnected optical end.',
  'approved-supply': 'Use an approved supply only, of the stated voltage and polarity.',
  'above-100-watts':
    'Above 100 W, use only extended power range parts, never modified and never extended. If a lead gets hot, disconnect it at the supply, let it cool, and retire it.',
}
