import { type SuccessRate, successRate } from '../bench/statistics'
import { trialOf } from '../link/chain'
import { knownOf } from '../link/lay'
import { type Cable, isTrial, type Trial } from '../plan/cable'
import type { Run } from '../plan/run'
import type { SiteIndex } from '../plan/site-index'
import type { LinkMode } from '../standards/link-modes'

/** How often one mode was tried on one controller, and how often it held. */
export type ModeRecord = { mode: LinkMode; controller: string | null; rate: SuccessRate; last: string }

/** What was tried of one cable, by mode and controller, the latest first. */
export const recordOf = (cable: Cable): ModeRecord[] =>
  recordsFrom(cable.evidence.filter(isTrial).map((trial) => ({ trial, passed: trial.cameUp === trial.tried })))

/** What all cables of one kind did, each counted once a mode by what its trials come to. Null where a cable is of no kind. */
export function recordOfKind(index: SiteIndex, cable: Cable): ModeRecord[] | null {
  if (cable.kind === undefined) return null
  const siblings = index.plan.cables.filter((each) => each.kind === cable.kind)
  return recordsFrom(
    siblings.flatMap((sibling) => {
      const { trials } = knownOf(index, sibling)
      const tried = new Map(trials.map((trial) => [`${trial.tried} ${trial.controller ?? ''}`, trial]))
      return [...tried.values()].flatMap(({ tried: mode, controller }) => {
        const verdict = trialOf(trials, mode, controller)
        return verdict ? [{ trial: { ...verdict.trial, tried: mode, controller }, passed: verdict.passed }] : []
      })
    }),
  )
}

function recordsFrom(verdicts: readonly { trial: Trial; passed: boolean }[]): ModeRecord[] {
  const groups = new Map<
    string,
    { mode: LinkMode; controller: string | null; passed: number; tried: number; last: string }
  >()
  for (const { trial, passed } of verdicts) {
    const controller = trial.controller ?? null
    const key = `${trial.tried} ${controller}`
    const group = groups.get(key) ?? { mode: trial.tried, controller, passed: 0, tried: 0, last: trial.on }
    group.tried += 1
    group.passed += Number(passed)
    if (trial.on > group.last) group.last = trial.on
    groups.set(key, group)
  }
  return [...groups.values()]
    .flatMap(({ mode, controller, passed, tried, last }) => {
      const rate = successRate(passed, tried)
      return rate ? [{ mode, controller, rate, last }] : []
    })
    .sort((one, other) => (one.last < other.last ? 1 : one.last > other.last ? -1 : 0))
}

/** Runs a cable lies in or was proved in, with the proofs that name it, the latest first. */
export function runsOfCable(index: SiteIndex, cable: Cable): { run: Run; liesHere: boolean; proofs: Run['proofs'] }[] {
  return index.plan.runs.flatMap((run) => {
    const liesHere = run.leads.some((lead) => lead.cable === cable.id)
    const proofs = run.proofs
      .filter(({ leads }) => leads.includes(cable.id))
      .sort((one, other) => (one.on < other.on ? 1 : -1))
    return liesHere || proofs.length > 0 ? [{ run, liesHere, proofs }] : []
  })
}
