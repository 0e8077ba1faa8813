import { commonPractice } from '../../standards/source'
import type { CauseKind } from '../cause'
import { farPart } from '../scene'

/** What hangs on the port draws more than it gives. */
export const drawsTooMuch: CauseKind = {
  *of(scene) {
    const { laid, kinds } = scene
    if (laid.to.device.busPowered || kinds.has('storage') || kinds.has('sensor') || kinds.has('camera'))
      yield { part: farPart(scene), odds: 0.35, source: commonPractice('bus power runs out') }
  },
  shows: { 'not detected': 0.25, drops: 0.35, 'alone only': 0.25, 'too much current': 0.85, 'frames lost': 0.1 },
  words: (part) => `What is at ${part} draws more than the port gives.`,
  followUp: 'own supply',
}
