import { addInCardCheck } from './add-in-card'
import { asMeasuredCheck } from './as-measured'
import { askedLinkCheck } from './asked-link'
import type { Aspect } from './aspect'
import { batteryCheck } from './battery'
import { busBudgetCheck } from './bus-budget'
import type { ReasonOf } from './check'
import { colourDepthCheck } from './colour-depth'
import { copiedCheck } from './copied'
import { currentCheck } from './current'
import { delayCheck } from './delay'
import { directionCheck } from './direction'
import { displayInputCheck } from './display-input'
import { driversCheck } from './drivers'
import { evidenceCheck } from './evidence'
import { extensionCheck } from './extension'
import { farEndPowerCheck } from './far-end-power'
import type { FindingOf } from './finding'
import { fitCheck } from './fit'
import { historyCheck } from './history'
import { hotCheck } from './hot'
import { hubDepthCheck } from './hub-depth'
import { lanesCheck } from './lanes'
import { lengthCheck } from './length'
import { linkModeCheck } from './link-mode'
import { ownScreenCheck } from './own-screen'
import { ownVoltageCheck } from './own-voltage'
import { pairingCheck } from './pairing'
import { pathCheck } from './path'
import { pictureCheck } from './picture'
import { pictureSeenCheck } from './picture-seen'
import { playAreaCheck } from './play-area'
import { rateCheck } from './rate'
import { resistorsCheck } from './resistors'
import { sharedUplinkCheck } from './shared-uplink'
import { shownModesCheck } from './shown-modes'
import { SITUATION } from './situation-aspects'
import { storageTargetCheck } from './storage-target'
import { surroundingsCheck } from './surroundings'
import { valueCheck } from './value'
import { voltsLostCheck } from './volts-lost'

/** Every check of a run, in the order findings are read. */
export const checks = [
  hotCheck,
  fitCheck,
  directionCheck,
  lengthCheck,
  linkModeCheck,
  askedLinkCheck,
  pictureCheck,
  pictureSeenCheck,
  rateCheck,
  lanesCheck,
  sharedUplinkCheck,
  ownScreenCheck,
  storageTargetCheck,
  copiedCheck,
  currentCheck,
  resistorsCheck,
  batteryCheck,
  asMeasuredCheck,
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
  driversCheck,
] as const

/** Every check there is, of runs and of needs. */
export const everyCheck = [...checks, pathCheck] as const

type EveryCheck = (typeof everyCheck)[number]
export type CheckName = EveryCheck['name']
/** Why a finding says what it says, as figures; `sentence` makes the words. */
export type Reason = { [Each in EveryCheck as Each['name']]: ReasonOf<Each['reasons']> }[CheckName]
export type Finding = FindingOf<CheckName, Reason>

/** What verdicts on runs follow from: what every situation is made of, and what the checks read beside it. */
export const aspects: readonly Aspect[] = [...new Set([...SITUATION, ...checks.flatMap(({ reads }) => reads)])]
