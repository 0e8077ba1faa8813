import { currentCheck } from './current'
import { directionCheck } from './direction'
import { displayInputCheck } from './display-input'
import { evidenceCheck } from './evidence'
import { extensionCheck } from './extension'
import { fitCheck } from './fit'
import { lengthCheck } from './length'
import { linkModeCheck } from './link-mode'
import { pairingCheck } from './pairing'
import { rateCheck } from './rate'
import type { Check } from './situation'

/** Every check, in the order findings are read. */
export const checks: readonly Check[] = [
  fitCheck,
  directionCheck,
  lengthCheck,
  linkModeCheck,
  rateCheck,
  currentCheck,
  extensionCheck,
  pairingCheck,
  evidenceCheck,
  displayInputCheck,
]
