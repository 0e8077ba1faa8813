import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import type { BenchTest } from '../vocabulary/session'
import { type BenchOrder, orderBench } from './order'
import { fewestPlugs, plugsOver, portsOf, type Setup } from './setup'

const port = (name: string) => ({ device: name[0] ?? 'x', port: name })
const setup = (from: string, to: string, soak = 0): Setup => {
  const ends = { from: port(from), to: port(to) }
  const test: BenchTest =
    soak > 0 ? { id: `${from}${to}`, kind: 'link', soak, ...ends } : { id: `${from}${to}`, kind: 'write', ...ends }
  return { ...ends, tests: [test] }
}
/** What a sorting bench usually is: a disk, a charger with a load, a display, all on ports of their own or sharing the host's. */
const disk = setup('h1', 'd1', 60)
const charger = setup('c1', 'l1')
const display = setup('h1', 's1')

function permutations<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]]
  return list.flatMap((first, at) =>
    permutations([...list.slice(0, at), ...list.slice(at + 1)]).map((rest) => [first, ...rest]),
  )
}

const anySetups = fc
  .uniqueArray(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('x', 'y', 'z'), fc.constantFrom(0, 0, 60)), {
    minLength: 1,
    maxLength: 5,
    selector: ([from, to]) => from + to,
  })
  .map((list) => list.map(([from, to, soak]) => setup(from, to, soak)))

describe('the order of setups for one cable', () => {
  it('puts in as few plugs as the best of all orders', () => {
    fc.assert(
      fc.property(anySetups, (setups) => {
        const best = Math.min(...permutations(setups).map((order) => plugsOver(order)))
        expect(plugsOver(fewestPlugs(setups))).toBe(best)
      }),
    )
  })
})

/** Replays an order by hand: nothing is plugged into a port that a soak holds, and each soak is read after its time. */
function replay({ steps }: BenchOrder): { plugs: number; done: string[]; early: number } {
  const soaking = new Map<string, { ports: string[]; until: number }>()
  const at = new Map<string, { from?: string; to?: string }>()
  const done: string[] = []
  let plugs = 0
  let early = 0
  for (const step of steps) {
    const [from, to] = portsOf(step.setup)
    if (step.kind === 'read') {
      if ((soaking.get(step.cable)?.until ?? 0) > step.at) early += 1
      soaking.delete(step.cable)
      continue
    }
    for (const [cable, { ports }] of soaking) {
      expect(cable).not.toBe(step.cable)
      expect(ports).not.toContain(from)
      expect(ports).not.toContain(to)
    }
    for (const [cable, ends] of at) {
      if (cable === step.cable) continue
      if (ends.from === from || ends.to === to) at.set(cable, {})
    }
    const before = at.get(step.cable) ?? {}
    const plugged = [...(before.from === from ? [] : ['from']), ...(before.to === to ? [] : ['to'])]
    expect(step.plug).toEqual(plugged)
    plugs += plugged.length
    at.set(step.cable, { from, to })
    done.push(`${step.cable} ${from} ${to}`)
    const soak = Math.max(0, ...step.setup.tests.map((test) => (test.kind === 'link' ? test.soak : 0)))
    if (soak > 0) soaking.set(step.cable, { ports: [from, to], until: step.at + soak })
  }
  expect(soaking.size).toBe(0)
  return { plugs, done, early }
}

describe('the order of a session', () => {
  it('every cable goes through every setup once, with the fewest plugs there can be, and no soak is disturbed or read early', () => {
    fc.assert(
      fc.property(anySetups, fc.integer({ min: 1, max: 6 }), (setups, count) => {
        const cables = Array.from({ length: count }, (_, at) => ({ id: `cable${at}`, setups }))
        const order = orderBench(cables)
        const { plugs, done, early } = replay(order)
        expect(new Set(done).size).toBe(count * setups.length)
        expect(done).toHaveLength(count * setups.length)
        expect(early).toBe(0)
        expect(plugs).toBe(order.plugs)
        // each cable costs both its ends and what moves after: no order of a session can do with less
        expect(order.plugs).toBe(count * Math.min(...permutations(setups).map((order) => plugsOver(order))))
        expect(order.fewest).toBe(order.plugs)
      }),
      { numRuns: cases(60) },
    )
  })
  it('tests another cable while one soaks, where the ports allow', () => {
    const cables = ['a', 'b', 'c'].map((id) => ({ id, setups: [disk, charger] }))
    const together = orderBench(cables)
    expect(together.steps.map(({ kind, cable, setup: { tests } }) => `${kind} ${cable} ${tests[0]?.id}`)).toEqual([
      'attend a h1d1',
      'attend b c1l1',
      'attend c c1l1',
      'read a h1d1',
      'attend a c1l1',
      'attend b h1d1',
      'read b h1d1',
      'attend c h1d1',
      'read c h1d1',
    ])
    expect(together.plugs).toBe(12)
    // one after the other would wait for all three soaks
    expect(together.seconds).toBeLessThan(3 * (60 + 10 + 10 + 10 + 10))
  })
  it('leaves what comes last until all others are done and read, for no plug more', () => {
    fc.assert(
      fc.property(anySetups, fc.array(fc.boolean(), { minLength: 1, maxLength: 5 }), (setups, lasts) => {
        const cables = lasts.map((last, at) => ({ id: `cable${at}`, setups, last }))
        const order = orderBench(cables)
        const { plugs, done } = replay(order)
        expect(done).toHaveLength(cables.length * setups.length)
        expect([plugs, order.plugs]).toEqual([order.fewest, order.fewest])
        const isLast = (id: string): boolean => cables.find((each) => each.id === id)?.last === true
        const first = order.steps.findIndex(({ cable }) => isLast(cable))
        if (first >= 0) expect(order.steps.slice(first).every(({ cable }) => isLast(cable))).toBe(true)
      }),
      { numRuns: cases(60) },
    )
  })
  it('does not let the next cable in where it would need a port that soaks', () => {
    const order = orderBench(['a', 'b'].map((id) => ({ id, setups: [disk, display] })))
    expect(order.steps.map(({ kind, cable }) => `${kind} ${cable}`)).toEqual([
      'attend a',
      'read a',
      'attend a',
      'attend b',
      'read b',
      'attend b',
    ])
    expect(order.plugs).toBe(6)
  })
  it('goes on with a soak that already runs, and has nothing to say where all is done', () => {
    const order = orderBench([{ id: 'a', setups: [disk, charger] }], [{ cable: 'a', setup: disk, secondsLeft: 20 }])
    expect(order.steps.map(({ kind, at }) => [kind, at])).toEqual([
      ['read', 20],
      ['attend', 30],
    ])
    expect(orderBench([{ id: 'a', setups: [] }])).toEqual({ steps: [], plugs: 0, fewest: 0, seconds: 0 })
  })
})
