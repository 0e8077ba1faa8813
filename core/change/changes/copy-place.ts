import { nextRunTag } from '../../plan/direct-needs'
import { freeIds } from '../../plan/free-id'
import type { Place, Plan } from '../../plan/plan'
import { put } from '../../plan/put'
import type { Device } from '../../vocabulary/device'
import type { Need } from '../../vocabulary/need'
import { type Run, withLength } from '../../vocabulary/run'
import type { ChangeToMake } from '../change'
import { editsBetween } from '../edits-between'

/** So many copies at once; a school has not more desks in a room. */
export const MOST_COPIES = 50

/**
 * A place several times more: its devices, the runs between them and what flows between them, each with a number behind its name. Runs that lead out of the
 * place are left out, as their far ports are taken; cables lie in one run only, so the copies' runs have the kind of lead that is to be had, or none yet.
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
  const nameOf = freeIds(plan.places.map(({ name }) => name))
  let made = plan
  const copies: string[] = []
  for (let number = 2; number <= count + 1; number += 1) {
    const name = numbered(place.name, nameOf)
    copies.push(name)
    const own = { id: idOf.places(place.id), name }
    // a copy stands somewhere else, and nobody has been there
    const { at: _, photos: __, seen: ___, ...alike } = place
    made = put(made, 'places', { ...alike, ...own })
    const ids = new Map<string, string>()
    for (const device of devices) ids.set(device.id, idOf.devices(device.id))
    const newId = (id: string): string => ids.get(id) ?? id
    for (const device of devices) made = put(made, 'devices', copyOf(device, newId, own.id, number))
    const runIds = new Map<string, string>()
    for (const run of runs) {
      const id = idOf.runs(run.id)
      runIds.set(run.id, id)
      made = put(made, 'runs', { ...copyOfRun(plan, run, newId), id, tag: nextRunTag(made) })
    }
    for (const need of needs) {
      const through = need.through?.flatMap((id) => runIds.get(id) ?? [])
      const copy = { ...need, id: idOf.needs(need.id), from: newId(need.from), to: newId(need.to) } as Need
      made = put(made, 'needs', through ? { ...copy, through } : copy)
    }
  }
  return { what: { name: 'copy place', about: [place.name, ...copies] }, edits: editsBetween(plan, made, 1) }
}

/** "Desk 2" after "Desk", "Desk 12" after "Desk 11". */
function numbered(name: string, free: (wanted: string) => string): string {
  const found = /^(.{1,100}) (\d{1,4})$/.exec(name)
  const [stem, first] = found ? [found[1] ?? name, Number(found[2]) + 1] : [name.slice(0, 110), 2]
  for (let number = first; ; number += 1) {
    const wanted = `${stem} ${number}`
    if (free(wanted) === wanted) return wanted
  }
}

const copyOf = (device: Device, newId: (id: string) => string, place: string, number: number): Device => {
  const { visits, at: _, seen: __, ...rest } = device
  const copy = { ...rest, id: newId(device.id), place, name: `${device.name.slice(0, 114)} ${number}` }
  return visits === undefined || newId(visits) === visits ? copy : { ...copy, visits: newId(visits) }
}

/** The same run between the copies, over leads that are yet to be had: of the same kind where that is known. */
function copyOfRun(plan: Plan, run: Run, newId: (id: string) => string): Run {
  const leads = run.leads.map((lead) => {
    if ('kind' in lead) return lead
    const cable = plan.cables.find(({ id }) => id === lead.cable)
    return cable?.kind ? { kind: cable.kind, length: cable.length, reversed: lead.reversed } : null
  })
  const whole = leads.every((lead) => lead !== null)
  const { seen: _, ...route } = run.route.follows ? withLength(run.route, run.route.length) : run.route
  return {
    ...run,
    route,
    from: { ...run.from, device: newId(run.from.device) },
    to: { ...run.to, device: newId(run.to.device) },
    leads: whole ? leads.flatMap((lead) => lead ?? []) : [],
  }
}
