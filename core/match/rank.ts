import { assessRun, leadingFinding, type RunVerdict } from '../checks/assess'
import type { Finding } from '../checks/checks'
import { severity, type Verdict } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { knownOf } from '../link/lay'
import { type SiteIndex, socketAt } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import type { BitsPerSecond } from '../quantity/rate'
import { endsMate } from '../standards/connectors'
import { gradeFacts } from '../standards/grades'
import type { Cable } from '../vocabulary/cable'
import type { Run } from '../vocabulary/run'

/** One cable of the drawer judged for one run. */
export type Candidate = {
  cable: Cable
  /** The run as it would be with it. */
  verdict: RunVerdict
  grade: Verdict
  /** The finding that decides it. */
  leading: Finding | null
  /** It came with a device at an end of the run. */
  supplied: boolean
  /** The run it lies in now; null where it is free or lies in this very run. */
  laidIn: string | null
  marked: BitsPerSecond
  /** Findings that block it: how far it is from doing the job. */
  blocks: number
  /** Length beyond the route. */
  spare: Metres
}

/**
 * Every cable that plugs into both ports of a run, best first: those that do the job before those that just do, free ones
 * before ones laid elsewhere, the supplied lead first (common practice), then the least lead that does it, so that a better one is
 * kept for a harder run; then the shortest. Retired and lent cables are left out, and so are those that do not fit at all.
 */
export function rankCables(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Candidate[] {
  const from = socketAt(index, run.from).port
  const to = socketAt(index, run.to).port
  const fitting = index.plan.cables.filter((cable) => isOffered(index, cable) && plugsInto(cable, from, to))
  return candidatesOf(index, run, crossings, fitting).sort(compare)
}

/** A cable that is at hand and never ran hot: one that did is offered for nothing. */
export const isOffered = (index: SiteIndex, cable: Cable): boolean =>
  cable.standing === 'drawer' && knownOf(index, cable).hot === null

/** Some cables judged for a run, in the order they are given in. */
export function candidatesOf(
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  cables: Iterable<Cable>,
): Candidate[] {
  const here = new Set([run.from.device, run.to.device])
  const candidates: Candidate[] = []
  for (const cable of cables) {
    const verdict = assessRun(index, withLead(run, cable), crossings)
    const grade = knownOf(index, cable).grade.value
    const laidIn = index.runOf.get(cable.id)
    candidates.push({
      cable,
      verdict,
      grade: verdict.grade,
      leading: leadingOf(verdict),
      supplied: cable.suppliedWith !== undefined && here.has(cable.suppliedWith),
      laidIn: laidIn && laidIn.id !== run.id ? laidIn.tag : null,
      blocks: verdict.findings.filter((finding) => finding.grade === 'blocked').length,
      marked: grade === null ? 0 : gradeFacts[grade].marked,
      spare: cable.length - run.route.length,
    })
  }
  return candidates
}

const withLead = (run: Run, cable: Cable): Run => ({ ...run, leads: [{ cable: cable.id, reversed: false }] })
const leadingOf = (verdict: RunVerdict): Finding | null => leadingFinding(verdict.findings)

/** One end in each port, either way round. */
export function plugsInto(cable: Pick<Cable, 'ends'>, from: Cable['ends'][0], to: Cable['ends'][0]): boolean {
  const [first, second] = cable.ends
  return (endsMate(from, first) && endsMate(second, to)) || (endsMate(from, second) && endsMate(first, to))
}

function compare(one: Candidate, other: Candidate): number {
  return (
    severity[one.grade] - severity[other.grade] ||
    one.blocks - other.blocks ||
    Number(one.laidIn !== null) - Number(other.laidIn !== null) ||
    Number(other.supplied) - Number(one.supplied) ||
    one.marked - other.marked ||
    one.spare - other.spare ||
    (one.cable.tag < other.cable.tag ? -1 : 1)
  )
}
