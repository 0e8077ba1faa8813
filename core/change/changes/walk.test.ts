import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/support/demo-plan'
import { goneSince, type LookedAt } from './walk'

const place = demo.places.find(({ id }) => demo.devices.some((device) => device.place === id))
if (!place) throw new Error('the demo has devices at places')
const here = demo.devices.filter((device) => device.place === place.id)
const runs = demo.runs.filter(({ from, route }) => here.some(({ id }) => id === from.device) && !route.follows)
const seen: LookedAt = {
  mains: true,
  devices: here.map(({ id }) => id),
  runs: runs.map(({ id }) => ({ id, length: 3 })),
}

describe('what somebody saw at a place', () => {
  it('is all there while nobody has taken anything away', () => {
    expect(goneSince(demo, place, seen)).toEqual([])
  })
  it('is told of a device that stands elsewhere by now, and of one that is gone', () => {
    const [moved] = here
    const elsewhere = demo.devices.map((device) =>
      device.id === moved?.id ? { ...device, place: 'elsewhere' } : device,
    )
    const reasons = (devices: typeof demo.devices) =>
      goneSince({ ...demo, devices }, place, { ...seen, runs: [] }).map(({ reason }) => reason)
    expect(reasons(elsewhere)).toEqual([`${moved?.name} is no longer at ${place.name}`])
    expect(reasons(demo.devices.filter(({ id }) => id !== moved?.id))).toEqual([
      `a device is no longer at ${place.name}`,
    ])
  })
  it('is told of a run that is gone, or that follows the pathways by now', () => {
    const [measured] = runs
    if (!measured) throw new Error('a run begins there')
    const reasons = (all: typeof demo.runs) =>
      goneSince({ ...demo, runs: all }, place, seen).map(({ reason }) => reason)
    expect(reasons(demo.runs.filter(({ id }) => id !== measured.id))).toEqual([
      `run ${measured.id} is no longer a run to measure at ${place.name}`,
    ])
    expect(
      reasons(
        demo.runs.map((run) => (run.id === measured.id ? { ...run, route: { ...run.route, follows: true } } : run)),
      ),
    ).toEqual([`run ${measured.tag} is no longer a run to measure at ${place.name}`])
  })
})
