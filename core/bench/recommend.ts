import { abilitiesOf } from '../link/abilities'
import { wasTried } from '../observe/known'
import type { Tried } from '../observe/observation'
import type { SiteIndex } from '../plan/site-index'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { isBetterMode, linkModeFacts } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { Cell } from './cell'
import { readingText } from './grade-reading'

/** What becomes of a cable after the bench. */
export type Recommendation = {
  /** use: as what it is; limited: for less than its mark says; retire: nobody picks it again; open: not enough was read. */
  verdict: 'use' | 'limited' | 'retire' | 'open'
  useFor: string[]
  notFor: string[]
  reasons: string[]
}

/**
 * What to use a cable for, what not, or that it is retired, with the reasons: a cable that ran hot, dropped in a soak, or does less than its
 * mark says at a length where the mark should hold, is retired (common practice). A charge-only lead that says so is kept for charging.
 */
export function recommend(index: SiteIndex, cable: Cable, cells: readonly Cell[]): Recommendation {
  const retire = [...reasonsToRetire(cells)]
  const abilities = abilitiesOf(index, cable)
  const { known, mode, picture, watts } = abilities
  const useFor: string[] = []
  const notFor: string[] = []
  if (watts > 0) useFor.push(`charging to ${formatWatts(watts)}`)
  else notFor.push('power')
  if (mode === null) notFor.push(known.grade.value === null && !wasTried(known) ? 'data until it is tested' : 'data')
  else
    useFor.push(
      mode === 'usb2'
        ? 'USB 2.0: keyboards, headsets of the simple sort, firmware'
        : `data at ${formatRate(linkModeFacts[mode].line)}`,
    )
  if (picture) useFor.push(`pictures (${picture.name})`)
  else if (mode !== null || known.grade.value !== null) notFor.push('pictures')
  if (watts > 0 && watts < 100) notFor.push(`laptops above ${formatWatts(watts)}`)
  const shortfalls = cells.flatMap((cell) =>
    cell.grade && cell.grade.grade !== 'clear' && cell.reading
      ? [cell.goes ? `${cell.test.kind} ${goesText(cell.goes)}` : `${cell.test.kind}: ${readingText(cell.reading)}`]
      : [],
  )
  const failsSomewhere = cells.some(({ test, grade }) => test.kind === 'link' && grade && grade.grade !== 'clear')
  const kept = failsSomewhere ? [...new Set(keptFor(cells))] : []
  if (kept.length > 0) useFor.push(`the controller ${kept.join(' and ')} only`)
  if (retire.length > 0) return { verdict: 'retire', useFor: [], notFor: ['anything'], reasons: retire }
  const read = cells.some((cell) => cell.reading !== null)
  if (!read) return { verdict: 'open', useFor, notFor, reasons: ['nothing was read yet'] }
  return { verdict: shortfalls.length > 0 ? 'limited' : 'use', useFor, notFor, reasons: shortfalls }
}

/** The same lead came up as it should in another link test of the session, on another controller. */
const heldElsewhere = (cells: readonly Cell[], failed: Tried): boolean =>
  cells.some(
    ({ reading, prediction, test }) =>
      reading !== null &&
      reading !== failed &&
      test.kind === 'link' &&
      reading.kind === 'trial' &&
      prediction.kind === 'link' &&
      reading.cameUp !== null &&
      !isBetterMode(prediction.mode ?? reading.cameUp, reading.cameUp) &&
      reading.where?.controller !== failed.where?.controller,
  )

/** On which controllers a lead did what it should, where it failed on others. */
function* keptFor(cells: readonly Cell[]): Iterable<string> {
  for (const { reading, grade, test } of cells)
    if (test.kind === 'link' && reading?.kind === 'trial' && grade?.grade === 'clear' && reading.where?.controller)
      yield reading.where.controller
}

const dropped = (reading: Tried): boolean =>
  reading.kind === 'trial' && reading.cameUp === null && reading.basis === 'soaked'

/** "comes and goes: failed in 3 of 10". */
export const goesText = ({ held, failed }: NonNullable<Cell['goes']>): string =>
  `comes and goes: failed in ${failed} of ${held + failed}`

function* reasonsToRetire(cells: readonly Cell[]): Iterable<string> {
  for (const { failing: reading, goes, prediction } of cells) {
    if (reading === null) continue
    if (reading.kind === 'reading' && reading.measure === 'warmth' && reading.felt === 'hot') yield 'its plug ran hot'
    if (reading.kind !== 'trial' || prediction.kind !== 'link' || prediction.mode === null) continue
    const { cameUp, seconds } = reading
    const name = linkModeFacts[prediction.mode].name
    // what holds on one controller is kept for it, and what mostly comes up is used for less
    if (heldElsewhere(cells, reading) || (goes && !dropped(reading))) continue
    if (dropped(reading)) yield `it dropped${seconds ? ` after ${seconds} s` : ' in its soak'}`
    else if (cameUp === null) yield `nothing came up where it should carry ${name}`
    else if (isBetterMode(prediction.mode, cameUp))
      yield `it lied: it should carry ${name} at this length and came up as ${linkModeFacts[cameUp].name}`
  }
}
