import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { emptyPlan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import { proposeTests } from './propose'
import { fitsTest } from './setup'

const index = indexPlan(demo)
const cables = (...connectors: string[]) =>
  demo.cables.filter(({ ends }) => ends.every((end) => connectors.includes(end.connector) && end.gender === 'plug'))

describe('tests that would sort a heap of cables', () => {
  it('for type-C leads: a soak, copies to a disk, plug warmth and a charger', () => {
    const heap = cables('type-c')
    const tests = proposeTests(index, heap)
    expect(tests.map(({ kind }) => kind)).toEqual(['link', 'write', 'read', 'warmth', 'watts'])
    for (const test of tests) for (const cable of heap) expect(fitsTest(index, cable, test)).toBe(true)
    const [link] = tests
    const disk = index.devices.get(link?.to.device ?? '')
    expect(disk?.disk).toBeDefined()
    // the charger is tried on another port, so that it can be while the first lead soaks
    const watts = tests.at(-1)
    expect([link?.from, link?.to]).not.toContainEqual(watts?.to)
  })
  it('for display leads: the picture that is wanted on such a display', () => {
    const tests = proposeTests(index, cables('displayport'))
    expect(tests.map(({ kind }) => kind)).toEqual(['picture'])
  })
  it('nothing where nothing fits', () => {
    expect(proposeTests(index, [])).toEqual([])
    expect(proposeTests(indexPlan(emptyPlan({ id: 's', name: 'S' })), demo.cables)).toEqual([])
  })
})
