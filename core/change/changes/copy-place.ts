import { knownOf } from '../../link/lay'
import { nextRunTag } from '../../plan/direct-needs'
import { freeIds, slugOf } from '../../plan/free-id'
import { freeNames, nameAt } from '../../plan/free-name'
import type { Place, Plan } from '../../plan/plan'
import { put } from '../../plan/put'
import { indexPlan, leadCable } from '../../plan/site-index'
import { ampsField, type Cable, cableKindSchema } from '../../vocabulary/cable'
import type { Device } from '../../vocabulary/device'
import type { Need } from '../../vocabulary/need'
import { type Run, type RunLead, withLength } from '../../vocabulary/run'
import type { ChangeToMake } from '../change'
import { editsBetween } from '../edits-between'

/** So many copies at once; a school has not more desks in a room. */
export const MOST_COPIES = 50

/**
 * A place several times more: its devices, the runs between them and what flows between them, named as the copy is: "Desk 1 laptop" is "Desk 2 laptop" there. Runs
 * that lead out of the place are left out, as their far ports are taken. A cable lies in one run only. So the copies' runs are planned with the kind it is
 * of, or with one made after that very cable; none where nobody knows what it carries.
 */
export function copyPlace(plan: Plan, place: Place, count: number): ChangeToMake {
  const devices = plan.devices.filter((device) => device.place === place.id)
  const here = new Set(devices.map(({ id }) => id))
  const runs = plan.runs.filter(({ from, to }) => here.has(from.device) && here.has(to.device))
  const needs = plan.needs.filter(({ from, to }) => here.has(from) && here.has(to))
  const idOf = {
    places: freeIds(plan.places.map(({ id }) => id)),
    devices: freeIds(plan.devices.map(({ id }) => id)),
    runs: freeIds(plan.runs.map(({ id }) => id)),
    needs: freeIds(plan.needs.map(({ id }) => id)),
  }
  const nameOf = {
    places: freeNames(plan.places.map(({ name }) => name)),
    devices: freeNames(plan.devices.map(({ name }) => name)),
    needs: freeNames(plan.needs.flatMap(({ name }) => name ?? [])),
  }
  const { made: withKinds, leadsOf } = leadsToBuy(plan, runs)
  let made = withKinds
  const copies: string[] = []
  for (let copy = 0; copy < count; copy += 1) {
    const name = nameOf.places(place.name)
    const renamed = (of: string): string => nameAt(of, place.name, name)
    copies.push(name)
    const own = { id: idOf.places(place.id), name }
    // a copy stands somewhere else, and nobody has been there
    const { at: _, photos: __, seen: ___, ...alike } = place
    made = put(made, 'places', { ...alike, ...own })
    const ids = new Map<string, string>()
    for (const device of devices) ids.set(device.id, idOf.devices(device.id))
    const newId = (id: string): string => ids.get(id) ?? id
    for (const device of devices)
      made = put(made, 'devices', copyOf(device, newId, own.id, nameOf.devices(renamed(device.name))))
    const runIds = new Map<string, string>()
    for (const run of runs) {
      const id = idOf.runs(run.id)
      runIds.set(run.id, id)
      made = put(made, 'runs', { ...copyOfRun(run, leadsOf(run), newId), id, tag: nextRunTag(made) })
    }
    for (const need of needs) {
      const through = need.through?.flatMap((id) => runIds.get(id) ?? [])
      const copy = {
        ...need,
        ...(need.name === undefined ? {} : { name: nameOf.needs(renamed(need.name)) }),
        id: idOf.needs(need.id),
        from: newId(need.from),
        to: newId(need.to),
      } as Need
      made = put(made, 'needs', through ? { ...copy, through } : copy)
    }
  }
  return { what: { name: 'copy place', about: [place.name, ...copies] }, edits: editsBetween(plan, made, 1) }
}

const copyOf = (device: Device, newId: (id: string) => string, place: string, name: string): Device => {
  const { visits, at: _, seen: __, ...rest } = device
  const copy = { ...rest, id: newId(device.id), place, name }
  return visits === undefined || newId(visits) === visits ? copy : { ...copy, visits: newId(visits) }
}

/** The same run between the copies. */
function copyOfRun(run: Run, leads: readonly RunLead[], newId: (id: string) => string): Run {
  const { seen: _, ...route } = run.route.follows ? withLength(run.route, run.route.length) : run.route
  return {
    ...run,
    route,
    from: { ...run.from, device: newId(run.from.device) },
    to: { ...run.to, device: newId(run.to.device) },
    leads: [...leads],
  }
}

/** The leads of some runs as they are yet to be had, and the plan with the kinds that this takes; no leads where one of a run is of no kind that is known. */
function leadsToBuy(plan: Plan, runs: readonly Run[]): { made: Plan; leadsOf: (run: Run) => readonly RunLead[] } {
  const index = indexPlan(plan)
  const kindId = freeIds(plan.kinds.map(({ id }) => id))
  const kindName = freeNames(plan.kinds.map(({ name }) => name))
  let made = plan
  const likes = new Map<string, string>()
  const kindOf = (cable: Cable): string | undefined => {
    const known = cable.kind ?? likes.get(cable.id)
    if (known !== undefined) return known
    const { grade, amps, volts } = knownOf(index, cable)
    if (grade.value === null) return undefined
    const id = kindId(slugOf(`like ${cable.tag}`, 'kind'))
    likes.set(cable.id, id)
    const { ends, oneWay, construction, feed, feedEnd, pair, passesBack, passesOn, length } = cable
    const kind = cableKindSchema.parse({
      id,
      name: kindName(`as ${cable.tag}`),
      ends,
      oneWay,
      construction,
      grade: grade.value,
      ...(feed === 'bus' ? {} : { feed, feedEnd }),
      pair,
      passesBack,
      passesOn,
      amps: ampsField.safeParse(amps.value).data,
      volts: volts.value === 50 ? 50 : undefined,
      note: `Made from ${cable.tag} of ${length} m when its place was copied.`,
    })
    made = put(made, 'kinds', kind)
    return id
  }
  const leads = new Map(
    runs.map((run) => {
      const planned = run.leads.map((lead) => {
        if ('kind' in lead) return lead
        const cable = leadCable(index, lead)
        const kind = kindOf(cable)
        return kind === undefined ? null : { kind, length: cable.length, reversed: lead.reversed }
      })
      return [run.id, planned.every((lead) => lead !== null) ? planned : []] as const
    }),
  )
  return { made, leadsOf: (run) => leads.get(run.id) ?? [] }
}
