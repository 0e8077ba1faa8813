import type { Observation, Subject } from '../plan/observation'
import type { Plan } from '../plan/plan'
import { countedOf } from './counted'
import { type Learnt, learn } from './learnt'
import { type Trial, trialFrom } from './trials'

/** A trial of a whole run, with the leads that lay in it then. */
export type RunProof = Trial & { leads: readonly string[] }

/** What all observations of a site come to: what is learnt of each cable, and how each run was proved. */
export type Learned = {
  cables: ReadonlyMap<string, Learnt>
  runs: ReadonlyMap<string, readonly RunProof[]>
}

type Folded = { bySubject: ReadonlyMap<string, readonly Observation[]>; practice: boolean; learned: Learned }

/** What was folded is kept with the very list of observations it was folded from. */
const folded = new WeakMap<Plan['observations'], Folded>()

export const subjectKey = (subject: Subject): string =>
  'cable' in subject
    ? `cable ${subject.cable}`
    : 'run' in subject
      ? `run ${subject.run}`
      : `device ${subject.device}/${subject.port ?? ''}`

/** What is believed comes from here: the observations of a site, folded. */
export const learnedOf = (plan: Plan): Learned => foldedOf(plan).learned

/** Every observation of one cable, run, device or port, in the order they were written down. */
export const observationsOf = (plan: Plan, subject: Subject): readonly Observation[] =>
  foldedOf(plan).bySubject.get(subjectKey(subject)) ?? []

function foldedOf({ observations, site }: Plan): Folded {
  const found = folded.get(observations)
  if (found?.practice === site.practice) return found
  const bySubject = found?.bySubject ?? groupedBySubject(observations)
  const cables = new Map<string, Learnt>()
  const runs = new Map<string, readonly RunProof[]>()
  for (const list of bySubject.values()) foldInto(cables, runs, list, site.practice)
  const made: Folded = { bySubject, practice: site.practice, learned: { cables, runs } }
  folded.set(observations, made)
  return made
}

function groupedBySubject(observations: readonly Observation[]): Map<string, Observation[]> {
  const groups = new Map<string, Observation[]>()
  for (const observation of observations) {
    const key = subjectKey(observation.subject)
    const list = groups.get(key)
    if (list) list.push(observation)
    else groups.set(key, [observation])
  }
  return groups
}

function foldInto(
  cables: Map<string, Learnt>,
  runs: Map<string, readonly RunProof[]>,
  observations: readonly Observation[],
  practice: boolean,
): void {
  const subject = observations[0]?.subject
  if (!subject || 'device' in subject) return
  const counted = countedOf(observations, practice)
  if ('cable' in subject) cables.set(subject.cable, learn(counted))
  else
    runs.set(
      subject.run,
      counted.flatMap((each) =>
        each.kind === 'trial' && 'run' in each.subject ? [{ ...trialFrom(each), leads: each.subject.leads }] : [],
      ),
    )
}

/** Tells what a list of observations comes to that was made from another by adding and taking away: only the subjects of these are folded again. */
export function learnedAgain(
  before: Plan,
  after: Plan,
  { added, removed }: { added: readonly Observation[]; removed: readonly Observation[] },
): void {
  const known = folded.get(before.observations)
  if (!known || known.practice !== after.site.practice) return
  const gone = new Set(removed.map(({ id }) => id))
  const fresh = groupedBySubject(added)
  const subjects = new Map([...added, ...removed].map(({ subject }) => [subjectKey(subject), subject]))
  const bySubject = new Map(known.bySubject)
  const cables = new Map(known.learned.cables)
  const runs = new Map(known.learned.runs)
  for (const [key, subject] of subjects) {
    const kept = (bySubject.get(key) ?? []).filter(({ id }) => !gone.has(id))
    const list = [...kept, ...(fresh.get(key) ?? [])]
    if (list.length > 0) {
      bySubject.set(key, list)
      foldInto(cables, runs, list, known.practice)
      continue
    }
    bySubject.delete(key)
    if ('cable' in subject) cables.delete(subject.cable)
    else if ('run' in subject) runs.delete(subject.run)
  }
  folded.set(after.observations, { bySubject, practice: known.practice, learned: { cables, runs } })
}

/** Takes what was learnt elsewhere as what a list of observations comes to: a browser holds beliefs and not what they come from. */
export function adoptLearned({ observations, site }: Plan, learned: Learned): void {
  folded.set(observations, { bySubject: new Map(), practice: site.practice, learned })
}
