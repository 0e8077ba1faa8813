import type { Place } from '../plan/plan'
import { devicesByPlace, type SiteIndex } from '../plan/site-index'
import type { Device } from '../vocabulary/device'
import type { Floor } from '../vocabulary/floor'
import type { Run } from '../vocabulary/run'

/** A place to go to, with what is to be looked at there. */
export type Stop = {
  place: Place
  floor: Floor | null
  devices: readonly Device[]
  /** Runs that begin here and whose length is typed: it is measured along the real way. */
  runs: readonly Run[]
  /** Things to look at, and those that somebody has. */
  things: number
  done: number
}

/** A walk through the site in the order of the building: floor by floor from the lowest, places in their order, then those that are on no floor. */
export function walkOf(index: SiteIndex): Stop[] {
  const { plan } = index
  const floors = new Map(plan.floors.map((floor) => [floor.id, floor]))
  const there = devicesByPlace(plan.devices)
  const level = (floor: Floor | null): number => floor?.level ?? Number.POSITIVE_INFINITY
  return plan.places
    .map((place): Stop => {
      const devices = (there.get(place.id) ?? []).filter(({ visits }) => visits === undefined)
      const here = new Set(devices.map(({ id }) => id))
      const runs = devices.flatMap(({ id }) =>
        (index.runsAt.get(id) ?? []).filter(({ from, route }) => from.device === id && here.has(id) && !route.follows),
      )
      const seen = [place.seen, ...devices.map((device) => device.seen), ...runs.map(({ route }) => route.seen)]
      return {
        place,
        floor: (place.at && floors.get(place.at.floor)) ?? null,
        devices,
        runs,
        things: seen.length,
        done: seen.filter(Boolean).length,
      }
    })
    .sort((one, other) => level(one.floor) - level(other.floor) || 0)
}
