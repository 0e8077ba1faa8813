import type { CauseKind, FollowUp, Suspect } from './cause'
import { adapterLimit } from './causes/adapter-limit'
import { brokenDevice } from './causes/broken-device'
import { busyController } from './causes/busy-controller'
import { controllerFallsBack } from './causes/controller-falls-back'
import { damagedFiles } from './causes/damaged-files'
import { deadPort } from './causes/dead-port'
import { deadSupply } from './causes/dead-supply'
import { deviceOff } from './causes/device-off'
import { drawsTooMuch } from './causes/draws-too-much'
import { firstPicture } from './causes/first-picture'
import { flatBattery } from './causes/flat-battery'
import { hubFault } from './causes/hub-fault'
import { hungPort } from './causes/hung-port'
import { lesserLead } from './causes/lesser-lead'
import { lesserPort } from './causes/lesser-port'
import { longLead } from './causes/long-lead'
import { loosePlug } from './causes/loose-plug'
import { modeNotChosen } from './causes/mode-not-chosen'
import { noFeed } from './causes/no-feed'
import { noResistors } from './causes/no-resistors'
import { noise } from './causes/noise'
import { oldSystem } from './causes/old-system'
import { planBlocked } from './causes/plan-blocked'
import { sharedCharger } from './causes/shared-charger'
import { shortCircuit } from './causes/short-circuit'
import { slowDrive } from './causes/slow-drive'
import { somethingElse } from './causes/something-else'
import { staleDriver } from './causes/stale-driver'
import { turnedLead } from './causes/turned-lead'
import { update } from './causes/update'
import { weakCharger } from './causes/weak-charger'
import { wornLead } from './causes/worn-lead'
import { wornSocket } from './causes/worn-socket'
import { wrongInput } from './causes/wrong-input'
import type { Scene } from './scene'

/** Every kind of cause. */
export const causeKinds = {
  'adapter limit': adapterLimit,
  'broken device': brokenDevice,
  'busy controller': busyController,
  'controller falls back': controllerFallsBack,
  'damaged files': damagedFiles,
  'dead port': deadPort,
  'dead supply': deadSupply,
  'device off': deviceOff,
  'draws too much': drawsTooMuch,
  'first picture': firstPicture,
  'flat battery': flatBattery,
  'hub fault': hubFault,
  'hung port': hungPort,
  'lesser lead': lesserLead,
  'lesser port': lesserPort,
  'long lead': longLead,
  'loose plug': loosePlug,
  'mode not chosen': modeNotChosen,
  'no feed': noFeed,
  'no resistors': noResistors,
  noise,
  'old system': oldSystem,
  'plan blocked': planBlocked,
  'shared charger': sharedCharger,
  'short circuit': shortCircuit,
  'slow drive': slowDrive,
  'something else': somethingElse,
  'stale driver': staleDriver,
  'turned lead': turnedLead,
  update,
  'weak charger': weakCharger,
  'worn lead': wornLead,
  'worn socket': wornSocket,
  'wrong input': wrongInput,
} satisfies Record<string, CauseKind>
export type CauseName = keyof typeof causeKinds
export const CAUSE_NAMES = Object.keys(causeKinds) as CauseName[]

/** One thing that may be wrong with a run. */
export type Cause = Suspect & {
  /** Tells it from the others of its run, and stays the same as long as the part is there. */
  key: string
  name: CauseName
}

/** Everything that may be wrong with a run, from the very parts of it, in the order of the list. `odds` are weights beside each other, and add up to nothing. */
export function causesOf(scene: Scene): readonly Cause[] {
  return CAUSE_NAMES.flatMap((name) =>
    Array.from(kindOf(name).of(scene), (suspect): Cause => ({ ...suspect, name, key: `${name}: ${suspect.part.id}` })),
  )
}

const kindOf = (name: CauseName): CauseKind => causeKinds[name]

/** How likely each symptom is seen where a cause is to blame. */
export const showsOf = ({ name }: Pick<Cause, 'name'>): CauseKind['shows'] => kindOf(name).shows

/** What is wrong, as a sentence. */
export const causeWords = ({ name, part }: Pick<Cause, 'name' | 'part'>): string =>
  sentence(kindOf(name).words(part.label))

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

export const followUpOf = ({ name }: Pick<Cause, 'name'>): FollowUp => kindOf(name).followUp
