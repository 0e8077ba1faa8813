import type { Fault } from '../../plan/entity'
import { freeIds, slugOf } from '../../plan/free-id'
import type { Plan, Place as SitePlace } from '../../plan/plan'
import { runsOn } from '../../plan/runs-on'
import type { SaidSurvey } from '../../survey/device-line'
import type { Device } from '../../vocabulary/device'
import type { ChangeToMake, Edit, LogPosition, What } from '../change'
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

/** Adds what a list of lines said: its places as far as the site has none of that name, and its devices, those without a place at `place`. */
export function addSurvey(
  plan: Plan,
  said: Pick<SaidSurvey, 'places' | 'devices'>,
  place: string | null,
): ChangeToMake & { ids: string[] } {
  const idOf = { places: freeIds(plan.places.map(({ id }) => id)), devices: freeIds(plan.devices.map(({ id }) => id)) }
  const placeId = new Map(plan.places.map(({ id, name }) => [name.toLowerCase(), id]))
  const edits: Edit[] = []
  const newPlaces: string[] = []
  for (const name of said.places) {
    if (placeId.has(name.toLowerCase())) continue
    const id = idOf.places(slugOf(name, 'place'))
    placeId.set(name.toLowerCase(), id)
    newPlaces.push(name)
    edits.push({ list: 'places', id, base: null, value: { id, name, mains: true } })
  }
  const ids: string[] = []
  for (const { device, place: named } of said.devices) {
    const at = named === null ? place : placeId.get(named.toLowerCase())
    const id = idOf.devices(slugOf(device.name, 'device'))
    ids.push(id)
    edits.push({ list: 'devices', id, base: null, value: { ...device, id, ...(at ? { place: at } : {}) } })
  }
  const names = said.devices.map(({ device }) => device.name)
  const what: What = names.length > 0 ? { name: 'add devices', about: names } : { name: 'add place', about: newPlaces }
  return { what, edits, ids }
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

/** Saves a place as a form made it. */
export const savePlace = (place: SitePlace, base: LogPosition): ChangeToMake => ({
  what: changedWhat('change place', 'places', place.id),
  edits: [{ list: 'places', id: place.id, base, value: place }],
})

/** New places by their names, with mains alike. */
export function addPlaces(plan: Plan, names: readonly string[], mains: SitePlace['mains']): ChangeToMake {
  const idOf = freeIds(plan.places.map(({ id }) => id))
  return {
    what: { name: 'add place', about: names },
    edits: names.map((name): Edit => {
      const id = idOf(slugOf(name, 'place'))
      return { list: 'places', id, base: null, value: { id, name, mains } }
    }),
  }
}

export const deletePlace = (place: SitePlace, base: LogPosition): ChangeToMake => ({
  what: { name: 'delete place', about: [place.name] },
  edits: [{ list: 'places', id: place.id, base, value: null }],
})
