import type { Where } from '../../observe/every'
import { observationText, type Tried, type Unwritten } from '../../observe/observation'
import type { Plan } from '../../plan/plan'
import { durationText } from '../../quantity/duration'
import type { LinkMode } from '../../standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../../standards/soak'
import type { CableKind } from '../../vocabulary/cable'
import type { Instant } from '../../vocabulary/fields'
import type { PictureMode } from '../../vocabulary/need'
import type { Rests } from '../../vocabulary/rests'
import { laidCables, type PortAddress, type Run } from '../../vocabulary/run'
import { isRunSoak, type RunSoak } from '../../vocabulary/session'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { observed, type Witness, writeDown } from './observations'

/** Where and under what a test was taken, and what it rests on. */
export type Taken = Pick<Unwritten, 'where' | 'circumstances' | 'instrument' | 'note'> & { rests: Rests }

/** Writes down what a test of a run read. */
export function proveRun(
  run: Run,
  readings: readonly Unwritten<Tried>[],
  taken: Taken,
  witness: Witness,
): ChangeToMake {
  const seen = observed(
    readings.map((reading): Unwritten => ({ ...reading, ...taken })),
    { run: run.id, leads: laidCables(run) },
    witness,
  )
  return writeDown(seen, [run.tag, ...seen.map(observationText)], 'prove run')
}

/** What somebody else counted of a kind. */
export type CountToWrite = { mode: LinkMode; held: number; tried: number; from: string }

/** Writes down what a seller, a maker or another client counted of a kind. It stays apart from what was tried here. */
export function writeCount(kind: CableKind, { mode, held, tried, from }: CountToWrite, witness: Witness): ChangeToMake {
  const counted = { mode, held, tried }
  const seen = observed([{ kind: 'statement', basis: 'told', from, counted }], { kind: kind.id }, witness)
  return writeDown(seen, [kind.name, ...seen.map(observationText)])
}

export type SoakToStart = { socket: PortAddress; seconds: number; hard: boolean; rests: Rests }

/** Lets a run soak from now on; begun anew where it soaks already. */
export function startRunSoak(
  plan: Plan,
  base: LogPosition,
  run: Run,
  { socket, seconds, hard, rests }: SoakToStart,
  { at, by, newId }: Witness,
): ChangeToMake {
  const running = soakOfRun(plan, run.id)
  const value: RunSoak = {
    id: running?.id ?? newId(),
    run: run.id,
    leads: laidCables(run),
    socket,
    since: at,
    seconds,
    ...(hard ? { hard: true } : {}),
    ...(by ? { by } : {}),
    rests,
  }
  return {
    what: { name: 'soak run', about: [run.tag, durationText(seconds)] },
    edits: [{ list: 'soaks', id: value.id, base: running ? base : null, value }],
  }
}

export const soakOfRun = (plan: Pick<Plan, 'soaks'>, run: string): RunSoak | undefined =>
  plan.soaks.filter(isRunSoak).find((soak) => soak.run === run)

/** Drops that are noted one by one; more say nothing new. */
const MOST_DROPS = 500

/** A run dropped while it soaks. */
export const noteDrop = (soak: RunSoak, base: LogPosition, tag: string, at: Instant): ChangeToMake => ({
  what: { name: 'note drop', about: [tag] },
  edits: [
    {
      list: 'soaks',
      id: soak.id,
      base,
      value: { ...soak, drops: [...(soak.drops ?? []), at].slice(0, MOST_DROPS) },
    },
  ],
})

/** Calls a soak off without a result. */
export const stopRunSoak = (soak: RunSoak, base: LogPosition, tag: string): ChangeToMake => ({
  what: { name: 'stop run soak', about: [tag] },
  edits: [{ list: 'soaks', id: soak.id, base, value: null }],
})

/** What was watched: a link at its mode, or a picture where there is no link. */
export type Soaked = { link: LinkMode } | { picture: PictureMode }

/**
 * Ends a soak: what came of it is a trial of the run with the leads that lay in it when it began, and rests on what it rested on then. One that dropped is told with each of its drops; one that was
 * ended before a minute is no soak.
 */
export function endRunSoak(
  soak: RunSoak,
  base: LogPosition,
  run: Run,
  { what, where }: { what: Soaked; where: Where },
  witness: Witness,
): ChangeToMake {
  const seconds = Math.max(0, Math.floor((Date.parse(witness.at) - Date.parse(soak.since)) / 1000))
  const drops = soak.drops ?? []
  const watched = { ...(seconds > 0 ? { seconds } : {}), ...(drops.length > 0 ? { drops } : {}) }
  const held = drops.length === 0
  const seenOf: Unwritten<Tried> =
    'picture' in what
      ? { kind: 'reading', measure: 'picture', mode: what.picture, held, ...watched }
      : {
          kind: 'trial',
          basis: !held || seconds >= SHORTEST_SOAK_SECONDS ? 'soaked' : 'measured',
          tried: what.link,
          cameUp: held ? what.link : null,
          ...watched,
        }
  const taken = {
    where,
    ...(soak.hard ? { circumstances: { hard: true as const } } : {}),
    ...(soak.rests ? { rests: soak.rests } : {}),
  }
  const seen = observed([{ ...seenOf, ...taken }], { run: run.id, leads: soak.leads }, witness)
  return {
    what: { name: 'end run soak', about: [run.tag, ...seen.map(observationText)] },
    edits: [
      { list: 'soaks', id: soak.id, base, value: null },
      ...seen.map((value): Edit => ({ list: 'observations', id: value.id, base: null, value })),
    ],
  }
}

/** What is said of a run when it is accepted: `less` says why with less than its tests ask for, and `waived` names those tests. */
export type Acceptance = {
  less: string | null
  waived: readonly string[]
  conditions: string | null
  where: Where
  rests: Rests
}

/** A run is accepted as it lies. */
export const acceptRun = (
  run: Run,
  { less, waived, conditions, where, rests }: Acceptance,
  witness: Witness,
): ChangeToMake =>
  writeDown(
    observed(
      [
        {
          kind: 'accepted',
          what: 'accepted',
          where,
          ...(less ? { less } : {}),
          waived: [...waived],
          rests,
          ...(conditions ? { conditions } : {}),
        },
      ],
      { run: run.id, leads: laidCables(run) },
      witness,
    ),
    [run.tag, ...(less ? [less] : [])],
    'accept run',
  )

/** Takes an acceptance back; both stay in the history of the run. */
export const withdrawAcceptance = (run: Run, witness: Witness): ChangeToMake =>
  writeDown(
    observed([{ kind: 'accepted', what: 'withdrawn' }], { run: run.id, leads: laidCables(run) }, witness),
    [run.tag],
    'withdraw acceptance',
  )
