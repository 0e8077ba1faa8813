import type { RunProof } from '../prove/proof'
import type { TestStanding } from '../prove/test-standing'
import type { Symptom } from '../vocabulary/search'

/** What a failed test of a run tells a search. */
const OF_READING: Partial<Record<string, Symptom>> = {
  picture: 'listed but black',
  write: 'slow copy',
  read: 'slow copy',
  watts: 'charges slowly',
  battery: 'headset drains',
  frames: 'frames lost',
  warmth: 'hot',
}

function symptomOf({ result }: TestStanding): Symptom | null {
  if (!result || result.stale || result.grade?.grade !== 'blocked') return null
  const { reading } = result
  if (reading.kind === 'reading') return OF_READING[reading.measure] ?? null
  if (reading.cameUp === null) return reading.basis === 'soaked' ? 'drops' : 'not detected'
  return reading.cameUp === 'usb2' ? 'usb2 only' : null
}

/** The symptoms that tests of a run have shown as it lies, with the instruments they were read on: nobody has to tell them again. */
export const symptomsOfTests = ({ tests }: RunProof): Symptom[] => [
  ...new Set(tests.flatMap((test) => symptomOf(test) ?? [])),
]
