import type { Device } from '../../plan/device'
import { byId } from '../../plan/lookup'
import type { Plan, Place as SitePlace } from '../../plan/plan'
import { type Run, withLength } from '../../plan/run'
import type { Metres } from '../../quantity/length'
import type { Leg } from '../../route/legs'
import type { Draft, Edit, Place } from '../change'

/** What somebody saw at a place. A run that was measured has its length, and its legs where these were said. */
export type Seen = {
  mains: boolean
  devices: readonly string[]
  runs: readonly { id: string; length: Metres; legs?: readonly Leg[] | undefined }[]
  note?: string | undefined
}

/** Writes down that somebody was at a place on a day, and what they saw there. What is no longer ticked is to be looked at again. */
export function lookAtPlace(plan: Plan, place: SitePlace, seen: Seen, day: string, base: Place): Draft {
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
  for (const { id, length, legs } of seen.runs) {
    const run = byId(plan.runs).get(id)
    if (!run) continue
    const route = { ...withLength(run.route, length), ...(legs ? { legs: [...legs] } : {}), seen: day }
    edits.push({ list: 'runs', id, base, value: { ...run, route } as Run })
  }
  const what = [
    ...(looked.size > 0 ? [`read ${looked.size} ${looked.size === 1 ? 'device' : 'devices'}`] : []),
    ...(seen.runs.length > 0 ? [`measured ${seen.runs.length} ${seen.runs.length === 1 ? 'run' : 'runs'}`] : []),
  ]
  return { what: { name: 'look at place', about: [place.name, ...(what.length > 0 ? what : ['looked round'])] }, edits }
}

/** Keeps a photo with a place, or lets one go. */
export const keepPhotos = (place: SitePlace, photos: NonNullable<SitePlace['photos']>, base: Place): Draft => {
  const { photos: _, ...rest } = place
  return {
    what: { name: 'change place', about: [place.name] },
    edits: [{ list: 'places', id: place.id, base, value: photos.length > 0 ? { ...rest, photos } : rest }],
  }
}
