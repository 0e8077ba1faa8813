import { type Asks, came, failures, isGood } from '../observe/came'
import { Ledger, type Sort } from '../observe/ledger'
import type { Tried } from '../observe/observation'
import { NOTHING_COUNTED, type Says, tallyOf } from '../observe/tally'
import type { Cell } from './cell'
import { gradeReading } from './grade-reading'
import type { Prediction } from './predict'

type Read = { says: Says }
const sort: Sort<Read> = {
  nameOf: ({ says }) => says,
  canHold: ({ says }) => says === 'held',
  canFail: ({ says }) => says !== 'held',
}

/** What one reading says of what was predicted; null where it says nothing. */
function saysOf(prediction: Prediction, reading: Tried): Says | null {
  const grade = gradeReading(prediction, reading)?.grade
  if (grade === undefined) return null
  if (grade === 'clear') return 'held'
  const dropped =
    reading.kind === 'trial'
      ? reading.cameUp === null && reading.basis === 'soaked'
      : reading.measure === 'picture' && (reading.seconds ?? 0) > 0
  return dropped ? 'after a while' : 'at once'
}

/**
 * What all readings of a cable in one test of a session come to, oldest first: the same as of what is seen anywhere else. What failed stands beside what held
 * later, until it is cleared.
 */
export function cameOfTest(
  prediction: Prediction,
  readings: readonly Tried[],
  asks: Asks,
): Pick<Cell, 'grade' | 'failing' | 'goes'> {
  const last = readings.at(-1)
  const grade = last ? gradeReading(prediction, last) : null
  const ledger = new Ledger(sort)
  let failed: Tried | null = null
  for (const reading of readings) {
    const says = saysOf(prediction, reading)
    if (says === null) continue
    if (says !== 'held') failed = reading
    const watched = 'seconds' in reading ? reading.seconds : undefined
    ledger.add({ says }, { spot: {}, place: '', before: false, at: reading.at }, watched)
  }
  const tally = tallyOf(ledger.series(), ({ says }) => says)
  const outcome = came(tally, NOTHING_COUNTED, asks)
  if (outcome === null || isGood(outcome) || failed === null) return { grade, failing: null, goes: null }
  const failing = gradeReading(prediction, failed)
  return {
    // one that held for a while and failed is less than it should be, whichever came last
    grade: tally.held > 0 ? { grade: 'tight', beyond: false } : failing,
    failing: failed,
    goes: tally.held > 0 ? { held: tally.held, failed: failures(tally) } : null,
  }
}
