import type { Assessment } from '../checks/assess'
import type { Caution } from '../checks/finding'
import { runRecords } from '../observe/learned'
import type { LaidAt } from '../observe/learnt'
import type { Place } from '../plan/plan'
import { leadCable, type SiteIndex, socketAt } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { walkOf } from '../survey/walk'
import type { Cable } from '../vocabulary/cable'
import type { Floor } from '../vocabulary/floor'
import { laidCables, leadKey, type Run } from '../vocabulary/run'

/** One lead of a run as it is laid, from the host on. */
export type LeadToLay = {
  key: string
  /** Its tag; of one that is yet to be had the name of its kind. */
  tag: string
  length: Metres
  /** It is at hand. */
  atHand: boolean
  /** It carries one way only: its arrow points away from the host. */
  oneWay: boolean
  /** Its second end goes to the host. */
  reversed: boolean
  /** It wants a supply of its own, or may want one, at this end. */
  feed: { at: 'host' | 'device'; needed: boolean } | null
}

/** A run as somebody lays it. */
export type Job = {
  run: Run
  from: string
  to: string
  /** Where its other end is. */
  toPlace: string | null
  leads: readonly LeadToLay[]
  /** What is left over at each end, where all leads lie stretched. */
  slack: Metres
  /** What to take care of on its way. */
  cautions: readonly Caution[]
  /** It lies as it was planned; null: not yet. */
  laid: LaidAt | null
}

/** A place with what begins there and what only ends there. */
export type InstallStop = { place: Place | null; floor: Floor | null; jobs: readonly Job[]; ends: readonly Job[] }

/** When a run was laid with the leads that lie in it now; with others it is another, and null. */
export function laidAt({ learned }: Pick<SiteIndex, 'learned'>, run: Run): LaidAt | null {
  const leads = laidCables(run).join()
  return runRecords(learned, run.id).find((record) => record.leads.join() === leads)?.learnt.laid ?? null
}

/** Runs whose leads are at hand and do not lie yet. */
export const runsToLay = (index: SiteIndex): Run[] =>
  index.plan.runs.filter(
    (run) => run.leads.length > 0 && run.leads.every((lead) => 'cable' in lead) && laidAt(index, run) === null,
  )

/**
 * What to lay, place by place in the order of the building. A run stands at the place of its host end, and is named again where its other end comes out. What is
 * on no place comes last.
 */
export function workList(index: SiteIndex, assessment: Assessment): InstallStop[] {
  const cautions = new Map(
    assessment.runs.map(({ id, findings }) => [id, [...new Set(findings.flatMap(({ caution }) => caution ?? []))]]),
  )
  const jobs = index.plan.runs.flatMap((run) =>
    run.leads.length > 0 ? [jobOf(index, run, cautions.get(run.id) ?? [])] : [],
  )
  const byEnd = { from: new Map<string | undefined, Job[]>(), to: new Map<string | undefined, Job[]>() }
  for (const job of jobs)
    for (const end of ['from', 'to'] as const) {
      const place = index.devices.get(job.run[end].device)?.place
      const known = byEnd[end].get(place)
      if (known) known.push(job)
      else byEnd[end].set(place, [job])
    }
  const at = (place: string | undefined, end: 'from' | 'to'): readonly Job[] => byEnd[end].get(place) ?? []
  const elsewhere = (job: Job, place: string | undefined): boolean =>
    index.devices.get(job.run.from.device)?.place !== place
  const stops = walkOf(index).map(
    ({ place, floor }): InstallStop => ({
      place,
      floor,
      jobs: at(place.id, 'from'),
      ends: at(place.id, 'to').filter((job) => elsewhere(job, place.id)),
    }),
  )
  return [...stops, { place: null, floor: null, jobs: at(undefined, 'from'), ends: [] }].filter(
    (stop) => stop.jobs.length + stop.ends.length > 0,
  )
}

function jobOf(index: SiteIndex, run: Run, cautions: readonly Caution[]): Job {
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  const leads = run.leads.map((lead): LeadToLay => {
    const cable = leadCable(index, lead)
    return {
      key: leadKey(lead),
      tag: cable.tag,
      length: cable.length,
      atHand: 'cable' in lead,
      oneWay: cable.oneWay,
      reversed: lead.reversed,
      feed: feedOf(cable, lead.reversed),
    }
  })
  const span = leads.reduce((sum, { length }) => sum + length, 0)
  const place = index.places.get(to.device.place ?? '')
  return {
    run,
    from: `${from.device.name}, ${from.port.name}`,
    to: `${to.device.name}, ${to.port.name}`,
    toPlace: to.device.place === from.device.place ? null : (place?.name ?? null),
    leads,
    slack: Math.max(0, span - run.route.length) / 2,
    cautions,
    laid: laidAt(index, run),
  }
}

/** The end at which a lead wants its supply. */
function feedOf({ feed, feedEnd = 'far' }: Cable, reversed: boolean): LeadToLay['feed'] {
  if (feed === 'bus') return null
  return { at: (feedEnd === 'host') === reversed ? 'device' : 'host', needed: feed === 'required' }
}
