import type { Fault } from '../../plan/entity'
import { freeIds, slugOf } from '../../plan/free-id'
import type { Plan, Place as SitePlace } from '../../plan/plan'
import { runsOn } from '../../plan/runs-on'
import type { Device } from '../../vocabulary/device'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { changedWhat } from '../differences'

/** So many devices at once. */
export const MOST_AT_ONCE = 50

/** Puts a device where it stands, or several alike with numbers behind their name. */
export function addDevices(plan: Plan, device: Omit<Device, 'id'>, count: number): ChangeToMake & { ids: string[] } {
  const idOf = freeIds(plan.devices.map(({ id }) => id))
  const known = new Set(plan.devices.map(({ name }) => name.toLowerCase()))
  const edits: Edit[] = []
  let number = 0
  while (edits.length < count) {
    number += 1
    const name = count === 1 && number === 1 ? device.name : `${device.name.slice(0, 112)} ${number}`
    if (count > 1 && known.has(name.toLowerCase())) continue
    const value: Device = { ...device, id: idOf(slugOf(name, 'device')), name }
    edits.push({ list: 'devices', id: value.id, base: null, value })
  }
  const names = edits.map(({ value }) => (value as Device).name)
  return { what: { name: 'add devices', about: names }, edits, ids: edits.map(({ id }) => id) }
}

/** Saves a device as a form made it. */
export const saveDevice = (device: Device, base: LogPosition): ChangeToMake => ({
  what: changedWhat('change device', 'devices', device.id),
  edits: [{ list: 'devices', id: device.id, base, value: device }],
})

/** Takes a device away; what still needs it is told by whoever applies the change. */
export const deleteDevice = (device: Device, base: LogPosition): ChangeToMake => ({
  what: { name: 'delete device', about: [device.name] },
  edits: [{ list: 'devices', id: device.id, base, value: null }],
})

/** What a device is still part of in words, which keeps it from going: runs, needs. */
export function whatUses(plan: Plan, { id, name }: Device): Fault[] {
  const runs = runsOn(plan, id).map(({ tag }) => `${name} is at an end of run ${tag}`)
  const needs = plan.needs.filter(({ from, to }) => from === id || to === id).length
  const asked = needs > 0 ? [`${needs} ${needs === 1 ? 'need flows' : 'needs flow'} from or to ${name}`] : []
  return [...runs, ...asked].map((reason) => ({ path: 'devices', reason }))
}

/** Ports that are gone from a device while runs still end at them. */
export function portsInTheWay(plan: Plan, device: Device): Fault[] {
  const kept = new Set(device.ports.map(({ id }) => id))
  return runsOn(plan, device.id).flatMap(({ tag, from, to }) =>
    [from, to].flatMap((end) =>
      end.device === device.id && !kept.has(end.port)
        ? { path: 'ports', reason: `run ${tag} ends at a port that is no longer among the lines` }
        : [],
    ),
  )
}

/** A new place, or one that is saved. */
export const savePlace = (place: SitePlace, base: LogPosition | null): ChangeToMake => ({
  what: base === null ? { name: 'add place', about: [place.name] } : changedWhat('change place', 'places', place.id),
  edits: [{ list: 'places', id: place.id, base, value: place }],
})

export const deletePlace = (place: SitePlace, base: LogPosition): ChangeToMake => ({
  what: { name: 'delete place', about: [place.name] },
  edits: [{ list: 'places', id: place.id, base, value: null }],
})
