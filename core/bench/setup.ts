import { plugsInto } from '../match/rank'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import { endsMate } from '../standards/connectors'
import type { Cable } from '../vocabulary/cable'
import type { PortAddress } from '../vocabulary/run'
import type { BenchTest } from '../vocabulary/session'

/** Two ports a cable is plugged into, and the tests that are done there. */
export type Setup = { from: PortAddress; to: PortAddress; tests: readonly BenchTest[] }

/** The ports of a setup, by `device/port`. */
export const portsOf = ({ from, to }: Setup): [string, string] => [portKey(from), portKey(to)]

/** Seconds a setup must be watched before its soak can be read; 0 where nothing soaks. */
export const soakOf = ({ tests }: Setup): number =>
  tests.reduce((longest, test) => Math.max(longest, test.kind === 'link' ? test.soak : 0), 0)

/** Plugs that go in anew from one setup to the next: an end that stays where it is costs nothing. */
export const plugsBetween = (one: Setup, next: Setup): number => {
  const [from, to] = portsOf(one)
  const [nextFrom, nextTo] = portsOf(next)
  return Number(from !== nextFrom) + Number(to !== nextTo)
}

/** The setups a cable still has to go through: tests in the same two ports are one, and ports it does not fit are left out. */
export function setupsFor(
  index: SiteIndex,
  tests: readonly BenchTest[],
  cable: Cable,
  isDone: (test: BenchTest) => boolean,
): Setup[] {
  const setups = new Map<string, { from: PortAddress; to: PortAddress; tests: BenchTest[] }>()
  for (const test of tests) {
    if (isDone(test) || !fitsTest(index, cable, test)) continue
    const key = `${portKey(test.from)} ${portKey(test.to)}`
    const setup = setups.get(key)
    if (setup) setup.tests.push(test)
    else setups.set(key, { from: test.from, to: test.to, tests: [test] })
  }
  return [...setups.values()]
}

/** Whether a cable plugs into both ports of a test, either way round. */
export const fitsTest = (index: SiteIndex, cable: Cable, test: BenchTest): boolean =>
  plugsInto(cable, socketAt(index, test.from).port, socketAt(index, test.to).port)

/**
 * The order of setups with the fewest plugs put in, from where the cable is plugged in now or from the bench, exactly: the shortest path through all of them, by dynamic programming over
 * subsets (Held and Karp 1962). A session has at most twelve tests, so at most twelve setups.
 */
export function fewestPlugs(setups: readonly Setup[], at: Setup | null = null): Setup[] {
  const count = setups.length
  if (count < (at ? 2 : 3)) return [...setups]
  const between = setups.map((one) => setups.map((other) => plugsBetween(one, other)))
  const whole = 2 ** count
  const cost = new Float64Array(whole * count).fill(Number.POSITIVE_INFINITY)
  const before = new Int8Array(whole * count).fill(-1)
  for (let last = 0; last < count; last += 1)
    cost[2 ** last * count + last] = at ? plugsBetween(at, setups[last] as Setup) : 0
  for (let visited = 1; visited < whole; visited += 1) {
    for (let last = 0; last < count; last += 1) {
      const so = cost[visited * count + last] as number
      if (so === Number.POSITIVE_INFINITY) continue
      for (let next = 0; next < count; next += 1) {
        const bit = 1 << next
        if (visited & bit) continue
        const at = (visited | bit) * count + next
        const then = so + (between[last]?.[next] ?? 0)
        if (then < (cost[at] as number)) {
          cost[at] = then
          before[at] = last
        }
      }
    }
  }
  let visited = whole - 1
  let last = 0
  for (let end = 1; end < count; end += 1) {
    if ((cost[visited * count + end] as number) < (cost[visited * count + last] as number)) last = end
  }
  const order: Setup[] = []
  while (last >= 0) {
    order.unshift(setups[last] as Setup)
    const earlier = before[visited * count + last] as number
    visited ^= 1 << last
    last = earlier
  }
  return order
}

/** Plugs put in over a whole order: both ends to begin with, unless the cable is plugged in already, then what moves. */
export const plugsOver = (order: readonly Setup[], from: Setup | null = null): number =>
  order.reduce((sum, setup, at) => {
    const before = at === 0 ? from : (order[at - 1] as Setup)
    return sum + (before ? plugsBetween(before, setup) : 2)
  }, 0)

/** Whether a cable goes in with its second end at the host port, because only that way it fits. */
export function goesInTurned(index: SiteIndex, cable: Cable, { from, to }: Pick<Setup, 'from' | 'to'>): boolean {
  const [first, second] = cable.ends
  const [near, far] = [socketAt(index, from).port, socketAt(index, to).port]
  return !(endsMate(near, first) && endsMate(second, far))
}
