import { observationsOf } from '../../observe/learned'
import type { Observation } from '../../observe/observation'
import type { Fault } from '../../plan/entity'
import type { Plan } from '../../plan/plan'
import type { Cable } from '../../vocabulary/cable'
import { laidCables } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { changedWhat } from '../differences'
import type { ChangeName } from '../words'

const added = (observations: readonly Observation[]): Edit[] =>
  observations.map((value) => ({ list: 'observations', id: value.id, base: null, value }))

/** Puts cables into the drawer, with what was seen of them. */
export const addCables = (cables: readonly Cable[], observations: readonly Observation[]): ChangeToMake => ({
  what: { name: 'add cables', about: cables.map(({ tag }) => tag) },
  edits: [
    ...cables.map((value): Edit => ({ list: 'cables', id: value.id, base: null, value })),
    ...added(observations),
  ],
})

/** Saves what a cable is, as a form made it from the site at place `base`, with what was seen of it meanwhile. */
export function saveCable(cable: Cable, base: LogPosition, observations: readonly Observation[]): ChangeToMake {
  return {
    what(plan, edits) {
      const what = changedWhat('change cable', 'cables', cable.id)(plan, edits)
      const untouched = what.name === 'change cable' && what.about.length === 1
      return untouched && observations.length > 0 ? { name: 'mark cable', about: [cable.tag] } : what
    },
    edits: [{ list: 'cables', id: cable.id, base, value: cable }, ...added(observations)],
  }
}

const standingNames: Record<Cable['standing'], ChangeName> = {
  drawer: 'return cables',
  lent: 'lend cables',
  retired: 'retire cables',
}

/** Puts cables back, lends or retires them; those that stand so already are left alone. */
export function standCables(cables: readonly Cable[], base: LogPosition, standing: Cable['standing']): ChangeToMake {
  const moved = cables.filter((cable) => cable.standing !== standing)
  return {
    what: { name: standingNames[standing], about: moved.map(({ tag }) => tag) },
    edits: moved.map((cable) => ({ list: 'cables', id: cable.id, base, value: { ...cable, standing } })),
  }
}

/** How new tags are counted: "C-0100", "C-0101" and on. */
export type TagSeries = { prefix: string; first: number; digits: number }

/** New tags in the order of the cables. */
export const tagCables = (
  cables: readonly Cable[],
  base: LogPosition,
  { prefix, first, digits }: TagSeries,
): ChangeToMake => ({
  what: { name: 'tag cables', about: cables.map(({ tag }) => tag) },
  edits: cables.map((cable, at) => ({
    list: 'cables',
    id: cable.id,
    base,
    value: { ...cable, tag: `${prefix}${String(first + at).padStart(digits, '0')}` },
  })),
})

/** Deletes cables with all that was observed of them. */
export const deleteCables = (plan: Plan, cables: readonly Cable[], base: LogPosition): ChangeToMake => ({
  what: { name: 'delete cables', about: cables.map(({ tag }) => tag) },
  edits: [
    ...cables.map((cable): Edit => ({ list: 'cables', id: cable.id, base, value: null })),
    ...cables.flatMap(({ id: cable }) =>
      observationsOf(plan, { cable }).map(({ id }): Edit => ({ list: 'observations', id, base, value: null })),
    ),
  ],
})

/** What a cable is still part of, which keeps it from being deleted: runs it lies in or was proved in, sessions. */
export function whatHolds(plan: Plan, { id, tag }: Cable): Fault[] {
  const proved = new Set(
    plan.observations.flatMap(({ subject }) => ('run' in subject && subject.leads.includes(id) ? [subject.run] : [])),
  )
  const inRuns = plan.runs
    .filter((run) => proved.has(run.id) || laidCables(run).includes(id))
    .map((run) => `${tag} lies or was proved in run ${run.tag}`)
  const inSessions = plan.sessions
    .filter(({ cables }) => cables.includes(id))
    .map((session) => `${tag} is in the session "${session.name}"`)
  return [...inRuns, ...inSessions].map((reason) => ({ path: 'cables', reason }))
}
