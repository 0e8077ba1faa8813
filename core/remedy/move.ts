import type { RunVerdict } from '../checks/assess'
import type { Crossing } from '../checks/situation'
import type { Concession } from '../picture/fit'
import type { Plan } from '../plan/plan'
import type { SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import type { Watts } from '../quantity/watts'
import type { PictureMode } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** What a small change does, as figures and names; `moveSentence` makes the words. */
export type MoveWords =
  | { code: 'drawer lead'; run: string; cable: string; length: Metres }
  | { code: 'bought lead'; run: string; kind: string; length: Metres; listed: boolean; optical: boolean }
  | { code: 'other port'; run: string; device: string; port: string; lead: string | null; bought: boolean }
  | { code: 'exchange ports'; run: string; other: string; device: string }
  | { code: 'lesser picture'; need: string; concession: Exclude<Concession, 'compression'>; mode: PictureMode }
  | { code: 'allow compression'; need: string }
  | { code: 'served first'; need: string }
  | { code: 'dock to far side' | 'dock to host side'; dock: string; uplink: Metres }
  | { code: 'second dock'; dock: string; port: string }
  | { code: 'hub instead'; dock: string }
  | { code: 'power lead'; sink: string; watts: Watts; length: Metres }
  | { code: 'larger charger'; charger: string; watts: Watts }
  | { code: 'mains at'; place: string }
  | { code: 'extender pair'; run: string; length: Metres }
  | { code: 'extension'; run: string; lead: string; length: Metres; before: string; bought: boolean; listed: boolean }
  | { code: 'feed adapter'; run: string; lead: string; watts: Watts; before: string; bought: boolean; listed: boolean }
  | { code: 'swap own lead'; device: string; length: Metres }
  | { code: 'powered hub'; hub: string }
  | {
      code: 'other charger'
      charger: string
      port: string
      sink: string
      watts: Watts
      lead: string | null
      bought: boolean
    }
  | { code: 'host by stream'; device: string }

/** How much a change disturbs, least first: a setting, a plug, a lead from the drawer, asking for less, and from there on buying and building. */
export const EFFORTS = ['setting', 'plug', 'lead', 'less', 'bought', 'rearranged', 'device', 'building'] as const
export type Effort = (typeof EFFORTS)[number]

/** One small change that might open a door. `apply` makes it; null where it does not fit the plan it is asked to change. */
export type Move = {
  /** Of one family the best that helps is enough, or the best few where it says so. */
  family: string
  few?: true
  words: MoveWords
  effort: Effort
  /** In the site's currency; null where nobody knows. */
  price: number | null
  apply(plan: Plan): Plan | null
}

/** What those who propose moves may look at: the room of the run, assessed, and the whole site for what is free in its drawer. */
export type Scene = {
  index: SiteIndex
  site: SiteIndex
  run: Run
  verdict: RunVerdict
  crossings: readonly Crossing[]
}

/** A source of moves. Adding one is adding a file and a line in `moves.ts`. */
export type Proposer = (scene: Scene) => Iterable<Move>
