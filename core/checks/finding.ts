import type { BatteryCourse } from '../headset/headset'
import type { Doubt, Lack } from '../link/chain'
import type { Conflict } from '../observe/known'
import type { Concession } from '../picture/fit'
import type { Metres } from '../quantity/length'
import type { Amps, Volts } from '../quantity/watts'
import type { End } from '../standards/connectors'
import type { LinkMode } from '../standards/link-modes'
import type { DisplayPortLink, HdmiLevel } from '../standards/picture-links'
import { commonPractice, type Source } from '../standards/source'
import type { Limit } from '../storage/storage'
import type { Screen } from '../vocabulary/device'
import type { Instant } from '../vocabulary/fields'
import type { NeedKind, PictureMode } from '../vocabulary/need'
import type { Surrounding } from '../vocabulary/surroundings'

/** Worst first. A note never makes a verdict worse. */
export const GRADES = ['blocked', 'tight', 'clear', 'note'] as const
export type Grade = (typeof GRADES)[number]
export type Verdict = Exclude<Grade, 'note'>

/** How bad a verdict is, to compare two by: the higher the worse. */
export const severity: Readonly<Record<Verdict, number>> = { clear: 0, tight: 1, blocked: 2 }

export type CheckName =
  | 'fit'
  | 'direction'
  | 'length'
  | 'link mode'
  | 'picture'
  | 'rate'
  | 'shared uplink'
  | 'current'
  | 'extension'
  | 'pairing'
  | 'evidence'
  | 'display input'
  | 'add-in card'
  | 'delay'
  | 'storage target'
  | 'battery'
  | 'play area'
  | 'resistors'
  | 'shown modes'
  | 'colour depth'
  | 'volts lost'
  | 'lanes'
  | 'hub depth'
  | 'bus budget'
  | 'far-end power'
  | 'surroundings'
  | 'history'
  | 'hot'
  | 'copied'
  | 'picture seen'
  | 'value'
  | 'path'

/** The element of a path that a finding is about. `id` is `device/port`, or the id of the cable, run or need. */
export type Part = { kind: 'port' | 'lead' | 'run' | 'need'; id: string; label: string }

export type Unit = 'm' | 'bit/s' | 'W' | 'V'

/** A lack as a finding keeps it: the figures, without the laid lead they came from. */
export type LackFigures = {
  why: Lack<unknown>['why']
  mode: LinkMode | DisplayPortLink | HdmiLevel
  grade: string
  reach: Metres | null
  length: Metres
  passive: boolean
  /** It would take a supply at its far end, and has none there. */
  unfed: boolean
  /** How it failed where somebody tried it: it dropped, and what was installed has changed since. */
  failed: { dropped: boolean; stale: boolean; at: Instant } | null
}

/** Why a finding says what it says, as figures; `sentence` makes the words. */
export type Reason =
  | { code: 'no-lead' }
  | { code: 'mates'; leads: number }
  | { code: 'ends-do-not-mate'; one: End; oneLabel: string; other: End; otherLabel: string }
  | { code: 'port-taken'; by: string }
  | { code: 'retired' }
  | { code: 'lent' }
  | { code: 'to-buy'; length: Metres; price: number | null; currency: string; test: boolean }
  | { code: 'two-hosts'; typeA: boolean }
  | { code: 'two-devices' }
  | { code: 'wrong-way-round' }
  | { code: 'one-way-lead'; from: End; to: End }
  | { code: 'right-way-round' }
  | { code: 'too-short' | 'little-slack' | 'long-enough'; route: Metres }
  | { code: 'charge-only' }
  | { code: 'unknown-lead' }
  | { code: 'mode'; mode: LinkMode }
  | { code: 'falls'; mode: LinkMode | null; shared: LinkMode; lack: LackFigures }
  | {
      code: 'rate'
      kind: NeedKind
      carrier: string
      before: number
      lack: LackFigures | null
      picture: PictureMode | null
      compressedBits: number | null
    }
  | { code: 'no-carrier'; kind: NeedKind; cause: 'charge-only' | 'unknown-lead' | 'nothing-common' | 'no-link' }
  | {
      code: 'power'
      limit: 'supply' | 'lead' | 'device'
      amps: Amps
      volts: Volts
      unmarked: boolean
      charging: boolean
    }
  | { code: 'lead-without-power'; optical: boolean }
  | { code: 'no-supply' }
  | { code: 'type-c-extension'; soaked: boolean; allowed: boolean }
  | { code: 'not-supplied'; with: string }
  | { code: 'bench-pass'; mode: LinkMode; counts: boolean; at: string }
  | { code: 'conflict'; conflict: Conflict }
  | { code: 'hdmi-to-display' }
  | { code: 'on-add-in-card'; avoided: boolean }
  | {
      code: 'storage-band'
      low: number
      high: number
      way: 'write' | 'read'
      limitedBy: Limit
      overhead: { low: number; high: number } | null
    }
  | { code: 'shared'; link: string; count: number; down: number; up: number }
  | { code: 'battery'; course: BatteryCourse; hours: number | null }
  | { code: 'play-area'; corners: number; short: Metres }
  | { code: 'own-voltage'; volts: Volts }
  | { code: 'volts-lost'; total: Volts; amps: Amps; watts: number; measured: Instant | null }
  | { code: 'watts-seen'; at: Instant; by: 'run' | 'lead'; charging: boolean }
  | { code: 'watts-elsewhere'; watts: number; at: Instant }
  | { code: 'ran-hot'; at: Instant; strangeSupply: boolean }
  | { code: 'kind-ran-hot'; count: number }
  | { code: 'copied'; way: 'write' | 'read'; at: Instant; by: 'run' | 'lead' | 'lead elsewhere' | 'nothing' }
  | { code: 'picture-seen'; mode: PictureMode | null; at: Instant | null; held: number; failed: number; stale: boolean }
  | { code: 'doubted'; why: Doubt['why']; held: number; failed: number; mode: LinkMode | null }
  | { code: 'bus-budget'; ownSupply: boolean; leads: number; count: number }
  | { code: 'lanes-left'; lanes: 1 | 2 | 4; beside: LinkMode }
  | { code: 'converts-other-way' }
  | { code: 'delay'; allowed: number; hubs: number }
  | { code: 'hubs'; hubs: number; most: number }
  | { code: 'far-end-power'; required: boolean; mains: boolean; place: string }
  | { code: 'passes'; what: Surrounding; copper: boolean }
  | { code: 'optical' }
  | { code: 'bend'; bend: number; allowed: number }
  | { code: 'plug-in-conduit'; inner: number; way: string | null }
  | { code: 'conduit-fill'; share: number; limit: number; cables: number; way: string | null }
  | { code: 'free-section'; taken: number; free: number; cables: number; way: string }
  | { code: 'no-way'; route: Metres }
  | { code: 'lacks-resistors' }
  | { code: 'not-listed'; mode: PictureMode; read: string; instead: readonly Screen['modes'][number][] }
  | { code: 'fewer-bits'; most: number; asked: number; read: string }
  | { code: 'no-hdr'; read: string }
  | { code: 'hdr'; read: string | null }
  | { code: 'hdr-version'; level: string; since: string }
  | { code: 'history'; passed: number; tried: number; mode: LinkMode; controller: string | null }
  | { code: 'more-than-needed'; mode: string }
  | { code: 'no-path'; from: string; to: string }

export type Remedy =
  | { code: 'shorter'; reach: Metres; mode: LackFigures['mode'] }
  | { code: 'longer'; length: Metres }
  | { code: 'active'; length: Metres; mode: LackFigures['mode'] }
  | { code: 'better-grade'; mode: LackFigures['mode'] }
  | { code: 'marked'; amps: 3 | 5; volts: 20 | 50 }
  | { code: 'powered-far-end' }
  | { code: 'feed-lead' }
  | { code: 'stronger-supply'; watts: number }
  | { code: 'turn-round' }
  | { code: 'two-way-lead' }
  | { code: 'other-lead' }
  | { code: 'choose-lead' }
  | { code: 'other-port' }
  | { code: 'test-it' }
  | { code: 'retire' }
  | { code: 'lay-run' }
  | { code: 'ask-less' }
  | { code: 'expect-less' }
  | { code: 'thicker-or-shorter' }
  | { code: 'fewer-hubs' }
  | { code: 'powered-hub' }
  | { code: 'optical-only' }
  | { code: 'gentler-bend'; allowed: number }
  | { code: 'wider-conduit' }
  | { code: 'join-pathways' }
  | { code: 'a-to-c-lead' }
  | { code: 'picture-instead'; concession: Concession; mode: PictureMode }

/** The usual caution where a finding touches something that can hurt people or equipment. */
export type Caution =
  | 'hot'
  | 'two-supplies'
  | 'above-60-watts'
  | 'above-100-watts'
  | 'local-code'
  | 'earths'
  | 'height'
  | 'trip'
  | 'optical-end'
  | 'approved-supply'

export type Finding = {
  check: CheckName
  grade: Grade
  part: Part
  /** The need it is about; left out where it bears on everything that crosses the run. */
  needId?: string
  have: number | null
  need: number | null
  unit: Unit | null
  reason: Reason
  remedies: readonly Remedy[]
  source: Source
  caution?: Caution
}

/** What is left over (or, negative, missing) in the finding's unit; null where nothing is measured. */
export const marginOf = (finding: Finding): number | null =>
  finding.have === null || finding.need === null ? null : finding.have - finding.need

/** What is asked of a run and what there is of it, in one unit. */
export type Squeeze = { have: number; need: number; unit: 'bit/s' | 'W' }
const SQUEEZING: ReadonlySet<CheckName> = new Set(['picture', 'rate', 'current'])

/** Where it is narrowest: the need that has the least to spare, as a share of what it asks; null where nothing measured is asked. */
export function narrowestOf(findings: Iterable<Finding>): Squeeze | null {
  let narrowest: Squeeze | null = null
  for (const { check, have, need, unit } of findings) {
    if (!SQUEEZING.has(check) || have === null || need === null || need <= 0) continue
    if (unit !== 'bit/s' && unit !== 'W') continue
    if (narrowest === null || have / need < narrowest.have / narrowest.need) narrowest = { have, need, unit }
  }
  return narrowest
}

/** The worst verdict among findings; clear where nothing speaks against it. */
export function worstOf(findings: Iterable<{ grade: Grade }>): Verdict {
  let worst: Verdict = 'clear'
  for (const { grade } of findings) {
    if (grade === 'blocked') return 'blocked'
    if (grade === 'tight') worst = 'tight'
  }
  return worst
}

export const craft: Source = commonPractice('the trade')
