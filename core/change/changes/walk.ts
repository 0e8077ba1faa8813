import type { Fault } from '../../plan/entity'
import { byId } from '../../plan/lookup'
import type { Plan, Place as SitePlace } from '../../plan/plan'
import { type Metres, sameLength } from '../../quantity/length'
import type { Leg } from '../../route/legs'
import type { Device } from '../../vocabulary/device'
import { withLength } from '../../vocabulary/run'
import type { ChangeToMake, Edit, LogPosition } from '../change'

/** What somebody saw at a place. A run that was measured has its length, and its legs where these were said. */
export type LookedAt = {
  mains: SitePlace['mains']
  devices: readonly string[]
  runs: readonly { id: string; length: Metres; legs?: readonly Leg[] | undefined }[]
  note?: string | undefined
}

/** What somebody saw at a place that is not there any more: a device that was taken elsewhere, a run that is gone or follows the pathways by now. */
export function goneSince(plan: Plan, place: SitePlace, seen: LookedAt): Fault[] {
  const here = new Set(plan.devices.flatMap((device) => (device.place === place.id ? device.id : [])))
  const runs = byId(plan.runs)
  const measurable = (id: string): boolean => {
    const run = runs.get(id)
    return run !== undefined && !run.route.follows && here.has(run.from.device)
  }
  const name = (id: string): string => byId(plan.devices).get(id)?.name ?? 'a device'
  return [
    ...seen.devices.filter((id) => !here.has(id)).map((id) => `${name(id)} is no longer at ${place.name}`),
    ...seen.runs
      .filter(({ id }) => !measurable(id))
      .map(({ id }) => `run ${runs.get(id)?.tag ?? id} is no longer a run to measure at ${place.name}`),
  ].map((reason) => ({ path: 'place', reason }))
}

/** Writes down that somebody was at a place on a day, and what they saw there. What is no longer ticked is to be looked at again. */
export function lookAtPlace(
  plan: Plan,
  place: SitePlace,
  seen: LookedAt,
  day: string,
  base: LogPosition,
): ChangeToMake {
  const edits: Edit[] = []
  const { note: _, ...rest } = place
  const value: SitePlace = { ...rest, mains: seen.mains, seen: day, ...(seen.note ? { note: seen.note } : {}) }
  edits.push({ list: 'places', id: place.id, base, value })
  const looked = new Set(seen.devices)
  for (const device of plan.devices) {
    if (device.place !== place.id || looked.has(device.id) === (device.seen !== undefined)) continue
    const { seen: __, ...unseen } = device
    const now: Device = looked.has(device.id) ? { ...unseen, seen: day } : unseen
    edits.push({ list: 'devices', id: device.id, base, value: now })
  }
  const measured = new Map(seen.runs.map((run) => [run.id, run]))
  const here = new Set(plan.devices.flatMap((device) => (device.place === place.id ? device.id : [])))
  for (const run of plan.runs) {
    if (run.route.follows || !here.has(run.from.device)) continue
    const now = measured.get(run.id)
    if (!now && run.route.seen === undefined) continue
    // what was measured before and is said the same again was not measured again
    if (now && run.route.seen !== undefined && sameLength(now.length, run.route.length)) continue
    const { seen: __, ...unseen } = run.route
    const route = now
      ? { ...withLength(unseen, now.length), ...(now.legs ? { legs: [...now.legs] } : {}), seen: day }
      : unseen
    edits.push({ list: 'runs', id: run.id, base, value: { ...run, route } })
  }
  const what = [
    ...(looked.size > 0 ? [`read ${looked.size} ${looked.size === 1 ? 'device' : 'devices'}`] : []),
    ...(seen.runs.length > 0 ? [`measured ${seen.runs.length} ${seen.runs.length === 1 ? 'run' : 'runs'}`] : []),
  ]
  return { what: { name: 'look at place', about: [place.name, ...(what.length > 0 ? what : ['looked round'])] }, edits }
}

/** Keeps a photo with a place, or lets one go. */
export const keepPhotos = (
  place: SitePlace,
  photos: NonNullable<SitePlace['photos']>,
  base: LogPosition,
): ChangeToMake => {
  const { photos: _, ...rest } = place
  return {
    what: { name: 'change place', about: [place.name] },
    edits: [{ list: 'places', id: place.id, base, value: photos.length > 0 ? { ...rest, photos } : rest }],
  }
}
