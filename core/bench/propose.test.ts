import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { portModes } from '../link/port-modes'
import { plugsInto } from '../match/rank'
import { emptyPlan } from '../plan/plan'
import { indexPlan, portKey, type SiteIndex, socketAt } from '../plan/site-index'
import { LINK_MODES } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { Device } from '../vocabulary/device'
import type { Run } from '../vocabulary/run'
import { proposeTests } from './propose'
import { fitsTest } from './setup'

const index = indexPlan(demo)
const cables = (...connectors: string[]) =>
  demo.cables.filter(({ ends }) => ends.every((end) => connectors.includes(end.connector) && end.gender === 'plug'))

describe('tests that would sort a heap of cables', () => {
  it('for type-C leads: a soak, copies to a disk, plug warmth and a charger', () => {
    const heap = cables('type-c')
    const tests = proposeTests(index, heap)
    expect(tests.slice(0, 5).map(({ kind }) => kind)).toEqual(['link', 'write', 'read', 'warmth', 'watts'])
    // then each other controller of the same computer, and each other charger
    const controllers = tests.flatMap(({ kind, from }) =>
      kind === 'link' ? [socketAt(index, from).port.controller] : [],
    )
    expect(new Set(controllers).size).toBe(controllers.length)
    const chargers = tests.flatMap(({ kind, from }) => (kind === 'watts' ? [from.device] : []))
    expect(new Set(chargers).size).toBe(chargers.length)
    for (const test of tests) for (const cable of heap) expect(fitsTest(index, cable, test)).toBe(true)
    const [link] = tests
    const disk = index.devices.get(link?.to.device ?? '')
    expect(disk?.disk).toBeDefined()
    // the charger is tried on another port, so that it can be while the first lead soaks
    const watts = tests.find(({ kind }) => kind === 'watts')
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
  it('the pair that comes first among the best, whatever the site has many of', () => {
    const heap = cables('type-c')
    const devices = fc.array(fc.record({ of: fc.nat({ max: demo.devices.length - 1 }), laid: fc.boolean() }), {
      minLength: 2,
      maxLength: 25,
    })
    fc.assert(
      fc.property(devices, (chosen) => {
        const copies = chosen.map(
          ({ of }, at): Device => ({ ...(demo.devices[of] as Device), id: `d${at}`, name: `${at}` }),
        )
        const laid = copies.filter((_, at) => chosen[at]?.laid)
        const runs = laid.flatMap((device, at) =>
          device.ports.slice(0, 1).map(({ id }): Run => {
            const end = { device: device.id, port: id }
            return { id: `r${at}`, tag: `R-${at}`, from: end, to: end, leads: [], route: { length: 1 } }
          }),
        )
        const made = indexPlan({ ...emptyPlan({ id: 's', name: 'S' }), devices: copies, runs })
        const [first] = proposeTests(made, heap)
        const link = first?.kind === 'link' ? [portKey(first.from), portKey(first.to)] : null
        expect(link).toEqual(bestPairPlainly(made, heap))
      }),
      { numRuns: cases(200) },
    )
  })
})

/** Every port against every other: most leads that fit, then the best mode and a disk, then ports in which nothing is plugged. */
function bestPairPlainly(index: SiteIndex, heap: readonly Cable[]): [string, string] | null {
  const sockets = index.plan.devices.flatMap((device) => device.ports.map((port) => ({ device, port })))
  const keyOf = ({ device, port }: (typeof sockets)[number]) => portKey({ device: device.id, port: port.id })
  let best: [string, string] | null = null
  let highest = 0
  for (const from of sockets) {
    for (const to of sockets) {
      const [near, far] = [portModes(from.port), portModes(to.port)]
      if (from.device === to.device || from.port.role === 'device' || to.port.role === 'host') continue
      if (near.size === 0 || far.size === 0) continue
      const fits = heap.filter((cable) => plugsInto(cable, from.port, to.port)).length
      const mode = LINK_MODES.findLastIndex((each) => near.has(each) && far.has(each))
      const free = [from, to].filter((each) => !index.runsIn.has(keyOf(each))).length
      const worth = fits === 0 ? 0 : fits * 1000 + (mode + (to.device.disk ? 20 : 0)) * 10 + 6 + free
      if (worth > highest) {
        highest = worth
        best = [keyOf(from), keyOf(to)]
      }
    }
  }
  return best
}
