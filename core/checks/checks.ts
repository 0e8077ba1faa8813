import { addInCardCheck } from './add-in-card'
import { batteryCheck } from './battery'
import { busBudgetCheck } from './bus-budget'
import { colourDepthCheck } from './colour-depth'
import { copiedCheck } from './copied'
import { currentCheck } from './current'
import { delayCheck } from './delay'
import { directionCheck } from './direction'
import { displayInputCheck } from './display-input'
import { evidenceCheck } from './evidence'
import { extensionCheck } from './extension'
import { farEndPowerCheck } from './far-end-power'
import { fitCheck } from './fit'
import { historyCheck } from './history'
import { hotCheck } from './hot'
import { hubDepthCheck } from './hub-depth'
import { lanesCheck } from './lanes'
import { lengthCheck } from './length'
import { linkModeCheck } from './link-mode'
import { ownVoltageCheck } from './own-voltage'
import { pairingCheck } from './pairing'
import { pictureCheck } from './picture'
import { pictureSeenCheck } from './picture-seen'
import { playAreaCheck } from './play-area'
import { rateCheck } from './rate'
import { resistorsCheck } from './resistors'
import { sharedUplinkCheck } from './shared-uplink'
import { shownModesCheck } from './shown-modes'
import type { Check } from './situation'
import { storageTargetCheck } from './storage-target'
import { surroundingsCheck } from './surroundings'
import { valueCheck } from './value'
import { voltsLostCheck } from './volts-lost'

/** Every check, in the order findings are read. */
export const checks: readonly Check[] = [
  hotCheck,
  fitCheck,
  directionCheck,
  lengthCheck,
  linkModeCheck,
  pictureCheck,
  pictureSeenCheck,
  rateCheck,
  lanesCheck,
  sharedUplinkCheck,
  storageTargetCheck,
  copiedCheck,
  currentCheck,
  resistorsCheck,
  batteryCheck,
  ownVoltageCheck,
  playAreaCheck,
  voltsLostCheck,
  hubDepthCheck,
  busBudgetCheck,
  farEndPowerCheck,
  surroundingsCheck,
  extensionCheck,
  pairingCheck,
  evidenceCheck,
  historyCheck,
  valueCheck,
  displayInputCheck,
  shownModesCheck,
  colourDepthCheck,
  addInCardCheck,
  delayCheck,
]
