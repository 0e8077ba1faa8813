import type { AttemptObservation, Observation, SymptomObservation, Tried, Unwritten } from '../../observe/observation'
import type { Plan } from '../../plan/plan'
import type { Cable } from '../../vocabulary/cable'
import { laidCables, type Run } from '../../vocabulary/run'
import { isOpen, type Search, type StopName } from '../../vocabulary/search'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { observed, type Witness } from './observations'

/** The search that goes on at a run, if any. */
export const searchOf = (plan: Pick<Plan, 'searches'>, run: string): Search | undefined =>
  plan.searches.find((search) => search.run === run && isOpen(search))

/** A symptom as somebody tells it, by choosing it or by a line that was read. */
export type ToldSymptom = Pick<SymptomObservation, 'saw' | 'what' | 'not' | 'line'>

const asEdits = (seen: readonly Observation[]): Edit[] =>
  seen.map((value): Edit => ({ list: 'observations', id: value.id, base: null, value }))

const symptomsSeen = (search: string, run: Run, told: readonly ToldSymptom[], witness: Witness): Observation[] =>
  observed(
    told.map((each) => ({ kind: 'symptom', ...each, search }) as const),
    { run: run.id, leads: laidCables(run) },
    witness,
  )

/** Begins a search at a run by what was seen, or adds that to the one that goes on there. */
export function beginSearch(plan: Plan, run: Run, told: readonly ToldSymptom[], witness: Witness): ChangeToMake {
  const known = searchOf(plan, run.id)
  if (known) return tellSymptoms(known, run, told, witness)
  const value: Search = {
    id: witness.newId(),
    run: run.id,
    since: witness.at,
    ...(witness.by ? { by: witness.by } : {}),
  }
  return {
    what: { name: 'begin search', about: [run.tag, ...told.map(({ saw }) => saw)] },
    edits: [
      { list: 'searches', id: value.id, base: null, value },
      ...asEdits(symptomsSeen(value.id, run, told, witness)),
    ],
  }
}

/** Adds what was seen to a search. */
export const tellSymptoms = (
  search: Search,
  run: Run,
  told: readonly ToldSymptom[],
  witness: Witness,
): ChangeToMake => ({
  what: { name: 'tell symptoms', about: [run.tag, ...told.map(({ saw, not }) => (not ? `not so: ${saw}` : saw))] },
  edits: asEdits(symptomsSeen(search.id, run, told, witness)),
})

/** What was tried, what came of it, and what that shows of other leads or of the run. */
export type TryMade = Pick<AttemptObservation, 'what' | 'part' | 'outcome' | 'says' | 'with' | 'also' | 'note'>

/** Something that a try showed of a cable by itself: a lead that was put in and held. */
export type Shown = { cable: string; seen: Unwritten<Tried> }

/** Writes down what came of a try; what it showed of a lead of the drawer is written down of that lead as well. */
export function makeTry(
  search: Search,
  run: Run,
  made: TryMade,
  shown: readonly Shown[],
  witness: Witness,
): ChangeToMake {
  const seen = [
    ...observed([{ kind: 'try', ...made, search: search.id }], { run: run.id, leads: laidCables(run) }, witness),
    ...shown.flatMap(({ cable, seen: each }) => observed([each], { cable }, witness)),
  ]
  return { what: { name: 'try in search', about: [run.tag, made.what, made.says] }, edits: asEdits(seen) }
}

/** What a try that was written down showed of other leads: it was written in the same change, and goes when the try is taken back. */
export const shownByAttempt = (plan: Pick<Plan, 'observations'>, attempt: Observation): Observation[] =>
  attempt.kind === 'try'
    ? plan.observations.filter(
        ({ kind, at, by, subject }) => kind === 'trial' && at === attempt.at && by === attempt.by && 'cable' in subject,
      )
    : []

const changed = (search: Search, base: LogPosition, more: Partial<Search>): Edit => ({
  list: 'searches',
  id: search.id,
  base,
  value: { ...search, ...more },
})

/** Stops that are kept; more say nothing new. */
const MOST_CLEARED = 40

/** Somebody dealt with a stop, and says how. */
export const clearStop = (
  search: Search,
  base: LogPosition,
  tag: string,
  { stop, how }: { stop: StopName; how: string },
  { at, by }: Witness,
): ChangeToMake => ({
  what: { name: 'clear stop', about: [tag, how] },
  edits: [
    changed(search, base, {
      cleared: [...(search.cleared ?? []), { stop, at, ...(by ? { by } : {}), how }].slice(-MOST_CLEARED),
    }),
  ],
})

/** How a search ended; `shown` is what follows for the run as it lay: a lead that was found to fail has failed there. */
export function endSearch(
  search: Search,
  base: LogPosition,
  run: Run,
  ended: Omit<NonNullable<Search['ended']>, 'at' | 'by'>,
  shown: readonly Unwritten<Tried>[],
  witness: Witness,
): ChangeToMake {
  const { at, by } = witness
  return {
    what: { name: 'end search', about: [run.tag, ended.words ?? ended.how] },
    edits: [
      changed(search, base, { ended: { ...ended, at, ...(by ? { by } : {}) } }),
      ...asEdits(observed(shown, { run: run.id, leads: laidCables(run) }, witness)),
    ],
  }
}

/** Takes a search up again that had ended. */
export function reopenSearch(search: Search, base: LogPosition, tag: string): ChangeToMake {
  const { ended: _, ...open } = search
  return {
    what: { name: 'reopen search', about: [tag] },
    edits: [{ list: 'searches', id: search.id, base, value: open }],
  }
}

/** Puts a lead of the same kind and length, yet to be bought, in place of one: it then stands on the order list. */
export function buyInstead(base: LogPosition, run: Run, cable: Cable, kind: string): ChangeToMake {
  const leads = run.leads.map((lead) =>
    'cable' in lead && lead.cable === cable.id ? { kind, length: cable.length, reversed: lead.reversed } : lead,
  )
  return {
    what: { name: 'put leads', about: [run.tag, `a new ${cable.tag}`] },
    edits: [{ list: 'runs', id: run.id, base, value: { ...run, leads } }],
  }
}
