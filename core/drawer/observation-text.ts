import { readingText } from '../bench/grade-reading'
import { basisNames } from '../observe/basis'
import { formatPictureMode } from '../picture/mode-text'
import type { Observation } from '../plan/observation'
import { gradeFacts } from '../standards/grades'
import { linkModeFacts } from '../standards/link-modes'

/** What an observation says, in a few words: "USB4 40 Gb/s, 5 A", "tried USB4 40 Gb/s: USB4 20 Gb/s, 60 s", "write: 412 MB/s". */
export function observationText(observation: Observation): string {
  switch (observation.kind) {
    case 'trial':
      return `tried ${linkModeFacts[observation.tried].name}: ${readingText(observation)}`
    case 'reading': {
      const what =
        observation.measure === 'picture' ? `picture ${formatPictureMode(observation.mode)}` : observation.measure
      const { limit } = observation
      const bound = limit && limit !== 'lead' && limit !== 'unknown' ? `, the ${limit} was the limit` : ''
      return `${what}: ${readingText(observation)}${bound}`
    }
    case 'symptom':
      return observation.saw
    case 'retraction':
      return `taken back: ${observation.reason}`
    case 'statement': {
      const { grade, amps, volts } = observation
      const says = [
        grade === null ? 'unmarked' : grade && gradeFacts[grade].name,
        amps === undefined ? null : amps === null ? 'no power mark' : amps === 0 ? 'no power' : `${amps} A`,
        volts && `${volts} V`,
      ].filter(Boolean)
      return says.length > 0 ? says.join(', ') : 'says nothing of what it carries'
    }
  }
}

/** Who says so. */
export function sayerOf(observation: Observation): string {
  switch (observation.kind) {
    case 'statement':
    case 'trial':
      return basisNames[observation.basis]
    case 'reading':
      return basisNames.measured
    case 'symptom':
      return 'somebody who looked'
    case 'retraction':
      return 'a retraction'
  }
}
