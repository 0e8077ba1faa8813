import { readingText } from '../bench/grade-reading'
import { formatPictureMode } from '../picture/mode-text'
import { type Evidence, isReading, isTrial } from '../plan/cable'
import { gradeFacts } from '../standards/grades'
import { linkModeFacts } from '../standards/link-modes'

/** What a piece of evidence says, in a few words: "USB4 40 Gb/s, 5 A", "tried USB4 40 Gb/s: USB4 20 Gb/s, 60 s", "write: 412 MB/s". */
export function evidenceText(evidence: Evidence): string {
  if (isTrial(evidence)) return `tried ${linkModeFacts[evidence.tried].name}: ${readingText(evidence)}`
  if (isReading(evidence)) {
    const what = evidence.measure === 'picture' ? `picture ${formatPictureMode(evidence.mode)}` : evidence.measure
    return `${what}: ${readingText(evidence)}`
  }
  const { grade, amps, volts } = evidence
  const says = [
    grade && gradeFacts[grade].name,
    amps === undefined ? null : amps === 0 ? 'no power' : `${amps} A`,
    volts && `${volts} V`,
  ].filter(Boolean)
  return says.length > 0 ? says.join(', ') : 'says nothing of what it carries'
}
