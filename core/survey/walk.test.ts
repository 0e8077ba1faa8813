import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { applyChange } from '../change/apply'
import { lookAtPlace } from '../change/changes/walk'
import { copyOf } from '../change/copy'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import { walkOf } from './walk'

const stopAt = (plan: Plan, id: string) => {
  const stop = walkOf(indexPlan(plan)).find(({ place }) => place.id === id)
  if (!stop) throw new Error(`no stop at ${id}`)
  return stop
}
const gallery = demo.places.find(({ id }) => id === 'gallery')
if (!gallery) throw new Error('the demo has a gallery')
const looked = (plan: Plan, seen: Partial<Parameters<typeof lookAtPlace>[2]>, day: string): Plan => {
  const place = plan.places.find(({ id }) => id === 'gallery') ?? gallery
  const draft = lookAtPlace(plan, place, { mains: true, devices: [], runs: [], ...seen }, day, 1)
  const outcome = applyChange(copyOf(plan), { edits: draft.edits })
  if (outcome.outcome !== 'applied') throw new Error(JSON.stringify(outcome))
  return outcome.copy.plan
}

describe('a walk', () => {
  it('goes floor by floor from the lowest up, and has every device and every typed length once', () => {
    const stops = walkOf(indexPlan(demo))
    const levels = stops.map(({ floor }) => floor?.level ?? Number.POSITIVE_INFINITY)
    expect(levels).toEqual(levels.toSorted((one, other) => one - other))
    const devices = stops.flatMap((stop) => stop.devices.map(({ id }) => id))
    expect(devices.toSorted()).toEqual(
      demo.devices
        .filter(({ visits, place }) => visits === undefined && place)
        .map(({ id }) => id)
        .toSorted(),
    )
    const runs = stops.flatMap((stop) => stop.runs.map(({ id }) => id))
    expect(runs.toSorted()).toEqual(
      demo.runs
        .filter(({ route }) => !route.follows)
        .map(({ id }) => id)
        .toSorted(),
    )
  })
  it('counts what is ticked and measured, and what is no longer ticked as still to be done', () => {
    const before = stopAt(demo, 'gallery')
    const seen = { devices: ['gallery-dock'], runs: [{ id: 'r-09', length: 1.6 }] }
    const after = looked(demo, seen, '2026-06-03')
    expect(stopAt(after, 'gallery').done).toBe(before.done + 3)
    expect(after.runs.find(({ id }) => id === 'r-09')?.route).toMatchObject({ length: 1.6, seen: '2026-06-03' })
    const again = looked(after, {}, '2026-06-04')
    // somebody was there, and read and measured nothing
    expect(stopAt(again, 'gallery').done).toBe(before.done + 1)
    const unseen = again.runs.find(({ id }) => id === 'r-09')?.route
    expect([unseen?.length, unseen?.seen]).toEqual([1.6, undefined])
  })
  it('keeps the day on which something was measured when it is only said again', () => {
    const seen = { devices: ['gallery-dock'], runs: [{ id: 'r-09', length: 1.6 }] }
    const again = looked(looked(demo, seen, '2026-06-03'), seen, '2026-06-09')
    expect(again.runs.find(({ id }) => id === 'r-09')?.route.seen).toBe('2026-06-03')
    expect(again.devices.find(({ id }) => id === 'gallery-dock')?.seen).toBe('2026-06-03')
    expect(again.places.find(({ id }) => id === 'gallery')?.seen).toBe('2026-06-09')
    // and what is measured anew has the new day
    const anew = looked(again, { ...seen, runs: [{ id: 'r-09', length: 1.8 }] }, '2026-06-10')
    expect(anew.runs.find(({ id }) => id === 'r-09')?.route).toMatchObject({ length: 1.8, seen: '2026-06-10' })
  })
})
