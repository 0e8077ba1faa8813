import { TRIES, type TryName } from '../vocabulary/search'
import type { Scene } from './scene'
import { anotherLead } from './tries/another-lead'
import { anotherPort } from './tries/another-port'
import { drivers } from './tries/drivers'
import { feed } from './tries/feed'
import { feelThePlugs } from './tries/feel-the-plugs'
import { fewerNeighbours } from './tries/fewer-neighbours'
import { firmware } from './tries/firmware'
import { lowerPicture } from './tries/lower-picture'
import { otherCharger } from './tries/other-charger'
import { otherComputer } from './tries/other-computer'
import { otherDevice } from './tries/other-device'
import { otherInput } from './tries/other-input'
import { partByPart } from './tries/part-by-part'
import { powerCycle } from './tries/power-cycle'
import { readTheLink } from './tries/read-the-link'
import { readTheWatts } from './tries/read-the-watts'
import { reseat } from './tries/reseat'
import { restart } from './tries/restart'
import { settings } from './tries/settings'
import { shorterLead } from './tries/shorter-lead'
import { turnRound } from './tries/turn-round'
import { withoutTheDock } from './tries/without-the-dock'
import type { Attempt, TryKind } from './try'

/** Every kind of try. */
export const tryKinds: Record<TryName, TryKind> = {
  'another lead': anotherLead,
  'another port': anotherPort,
  drivers,
  feed,
  'feel the plugs': feelThePlugs,
  'fewer neighbours': fewerNeighbours,
  firmware,
  'lower picture': lowerPicture,
  'other charger': otherCharger,
  'other computer': otherComputer,
  'other device': otherDevice,
  'other input': otherInput,
  'part by part': partByPart,
  'power cycle': powerCycle,
  'read the link': readTheLink,
  'read the watts': readTheWatts,
  reseat,
  restart,
  settings,
  'shorter lead': shorterLead,
  'turn round': turnRound,
  'without the dock': withoutTheDock,
}

export const tryKey = (name: TryName, part?: string): string => (part === undefined ? name : `${name}: ${part}`)

/** Everything that can be tried at a run with what is at hand. */
export const triesOf = (scene: Scene): readonly Attempt[] =>
  TRIES.flatMap((name) =>
    Array.from(tryKinds[name].of(scene), (attempt): Attempt => ({ ...attempt, name, key: tryKey(name, attempt.part) })),
  )
