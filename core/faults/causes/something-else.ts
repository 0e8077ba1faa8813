import { runPart } from '../../checks/situation'
import { commonPractice } from '../../standards/source'
import { SYMPTOMS } from '../../vocabulary/search'
import type { CauseKind } from '../cause'

/** Of what nobody knows, any symptom is about as likely as another. */
const UNKNOWN_SHOWS = 0.1

/** What Hallway does not know of. */
export const somethingElse: CauseKind = {
  *of({ run }) {
    yield { part: runPart(run), odds: 0.2, source: commonPractice('there is always something that nobody listed') }
  },
  shows: Object.fromEntries(SYMPTOMS.map((symptom) => [symptom, UNKNOWN_SHOWS])),
  words: () => 'Something that Hallway does not list.',
  followUp: 'ask further',
}
