import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { planFrom } from '../../tests/support/shorthand'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { copyOf } from '../change/copy'
import { followed } from '../change/followed'
import { type Assessment, assess, assessAnew } from '../checks/assess'
import { GRADES, type Verdict } from '../checks/finding'
import { assortment } from '../match/assortment'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { laidCables } from '../vocabulary/run'
import { finished } from '../work/in-slices'
import { withKind, withKindsOf } from './best-lead'
import { wayForEach } from './each'
import { roomOf } from './room'
import { findWaysOut, type WayOut } from './search'
import { moveSentence } from './words'

const waysOf = (copy: Copy, run: string, wanted?: 'all' | 'one') =>
  finished(findWaysOut(assessAnew(copy.plan), run, copy.place, wanted))

const gradesOf = ({ runs, needs }: Assessment): Map<string, Verdict> =>
  new Map([
    ...runs.map(({ id, grade }) => [`run ${id}`, grade] as const),
    ...needs.map(({ id, grade }) => [`need ${id}`, grade] as const),
  ])

/** What a change makes worse, counted without any help from the search. */
function worseIn(before: Plan, after: Plan): number {
  const [was, is] = [gradesOf(assess(before)), gradesOf(assess(after))]
  return [...is].filter(([key, grade]) => {
    const old = was.get(key)
    return old === undefined ? grade === 'blocked' : GRADES.indexOf(grade) < GRADES.indexOf(old)
  }).length
}

function takes(copy: Copy, run: string, way: WayOut): void {
  // as whoever takes it saves it: with the runs that follow the pathways brought along
  const applied = applyChange(copy, { edits: followed(copy, way.edits) })
  if (applied.outcome !== 'applied')
    throw new Error(`${way.moves.map((move) => moveSentence(move)).join(' ')}: ${JSON.stringify(applied)}`)
  const { plan } = applied.copy
  const grade = assess(plan).runs.find(({ id }) => id === run)?.grade ?? 'blocked'
  const was = assess(copy.plan).runs.find(({ id }) => id === run)?.grade ?? 'clear'
  expect(grade).toBe(way.after)
  expect(GRADES.indexOf(grade)).toBeGreaterThan(GRADES.indexOf(was))
  expect(way.worse).toHaveLength(worseIn(copy.plan, plan))
  // what is offered could be a file
  expect(readPlan(JSON.parse(JSON.stringify(plan))).ok).toBe(true)
}

describe('what would make a run clear', () => {
  it('whatever the plan: each way offered can be taken, betters the run as it says, and says all that gets worse', () => {
    let offered = 0
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const copy = madeUpCopy(changes)
        const wanting = assess(copy.plan).runs.filter(({ grade }) => grade !== 'clear')
        const run = wanting[turn % Math.max(1, wanting.length)]
        fc.pre(run != null)
        const { ways, closest } = waysOf(copy, run.id)
        for (const way of ways) takes(copy, run.id, way)
        offered += ways.length
        if (ways.length > 0) expect(closest).toBeNull()
      }),
      { numRuns: cases(40) },
    )
    expect(offered).toBeGreaterThan(inProportion(60))
  })

  it('whatever the plan: judging the room of a run gives what judging the site gives', () => {
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const { plan } = madeUpCopy(changes)
        const run = plan.runs[turn % Math.max(1, plan.runs.length)]
        fc.pre(run != null)
        const site = assessAnew(plan)
        const room = assess(roomOf(site.index, run.id))
        expect(room.runs.length).toBeGreaterThan(0)
        for (const verdict of room.runs)
          expect(verdict).toEqual(site.assessment.runs.find(({ id }) => id === verdict.id))
        for (const verdict of room.needs)
          expect(verdict).toEqual(site.assessment.needs.find(({ id }) => id === verdict.id))
      }),
      { numRuns: cases(60) },
    )
  })

  it('two changes may each bring a kind into the catalogue: neither loses the other', () => {
    const [one, other] = assortment.map(({ kind }) => kind)
    if (!one || !other) throw new Error('something is commonly sold')
    const first = { ...demo, kinds: withKindsOf(demo, withKind(demo, one)) }
    const both = withKindsOf(first, withKind(demo, other)).map(({ id }) => id)
    expect(both).toEqual([...demo.kinds.map(({ id }) => id), one.id, other.id])
    expect(withKindsOf(first, demo)).toBe(first.kinds)
  })

  it('offers the least disruptive first: what lies in the drawer before what is bought', () => {
    const { ways } = waysOf(start, 'r-09')
    expect(ways.map(({ after, price, effort }) => [after, effort, price])).toEqual([
      ['clear', 'lead', 0],
      ['clear', 'lead', 0],
      ['clear', 'bought', 69],
      ['tight', 'lead', 0],
    ])
    expect(moveSentence(ways[0]?.moves[0] as WayOut['moves'][number])).toBe('Lay C-0021 from the drawer (2 m) in R-09.')
  })

  it('asked for one way only it stops at the first that harms nothing', () => {
    const one = waysOf(start, 'r-09', 'one')
    expect(one.ways).toHaveLength(1)
    expect(one.tried).toBeLessThan(waysOf(start, 'r-09').tried)
    takes(start, 'r-09', one.ways[0] as WayOut)
  })

  it('has nothing to say of a run that is clear, or that is not there', () => {
    const nothing = { ways: [], tried: 0, prove: [], elsewhere: null, closest: null }
    expect(waysOf(start, 'r-18')).toEqual(nothing)
    expect(waysOf(start, 'r-99')).toEqual(nothing)
  })

  const changed = (change: (plan: Plan) => Plan): Copy => ({ ...start, plan: change(demo) })
  const codes = (copy: Copy, run: string) => waysOf(copy, run).ways.map(({ moves }) => moves.map(({ code }) => code))
  const longWay = (plan: Plan, run: string, length: number): Plan => ({
    ...plan,
    runs: plan.runs.map((each) => (each.id === run ? { ...each, route: { length } } : each)),
  })

  it('moves the dock where its own lead would be too long', () => {
    const far = changed((plan) =>
      longWay({ ...plan, cables: plan.cables.filter(({ id }) => id !== 'c-0021') }, 'r-09', 4),
    )
    expect(codes(far, 'r-09').flat()).toContain('dock to host side')
  })
  it('thinks of a pair of extenders where data has to go further than leads do', () => {
    const far = changed((plan) => longWay(plan, 'r-17', 40))
    expect(codes(far, 'r-17').flat()).toContain('extender pair')
  })
  it('asks for less where two pictures are more than the uplink has, and says whom another order would cost', () => {
    const large = changed((plan) => ({
      ...plan,
      runs: plan.runs.map((run) =>
        run.id === 'r-09' ? { ...run, leads: [{ cable: 'c-0021', reversed: false }] } : run,
      ),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.from === 'gallery-laptop'
          ? { ...need, mode: { ...need.mode, width: 5120, height: 2880 } }
          : need,
      ),
    }))
    expect(codes(large, 'r-09')).toContainEqual(['lesser picture'])
  })
  it('allows the compression that somebody forbade', () => {
    const strict = changed((plan) => ({
      ...plan,
      devices: plan.devices.map((device) => ({
        ...device,
        ports: device.ports.map((port) =>
          port.displayport ? { ...port, displayport: { ...port.displayport, compression: true } } : port,
        ),
      })),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.to === 'view-1'
          ? { ...need, uncompressed: true, mode: { ...need.mode, refresh: 144 } }
          : need,
      ),
    }))
    expect(codes(strict, 'r-01')[0]).toEqual(['allow compression'])
  })
  it('gives a laptop a larger charger, or one of its own, at what the site says it costs', () => {
    const hungry = (equipment: Plan['policy']['equipment'] = {}) =>
      changed((plan) => ({
        ...plan,
        policy: { ...plan.policy, equipment },
        devices: plan.devices.map((device) =>
          device.id === 'desk-charger'
            ? { ...device, ports: device.ports.map((port) => ({ ...port, gives: 45 })) }
            : device,
        ),
      }))
    expect(codes(hungry(), 'r-13').flat()).toContain('larger charger')
    const charger = (copy: Copy) =>
      waysOf(copy, 'r-13').ways.find(({ moves: [move] }) => move?.code === 'larger charger')?.price
    expect([charger(hungry()), charger(hungry({ charger: 44.5 })), charger(hungry({ charger: 0 }))]).toEqual([
      null,
      44.5,
      0,
    ])
  })
  it('takes a lead that does not do it alone, with something else beside it', () => {
    // two large pictures and nothing in the drawer: whatever lead there is, the first picture holds what the second would need
    const bare = changed((plan) => ({
      ...plan,
      cables: [],
      kinds: [],
      offers: [],
      orders: [],
      orderLines: [],
      observations: [],
      sessions: [],
      soaks: [],
      runs: plan.runs.map((run) => ({ ...run, leads: [] })),
      needs: plan.needs.map((need) =>
        need.kind === 'picture' && need.from === 'gallery-laptop'
          ? { ...need, mode: { ...need.mode, width: 3840, height: 2160, refresh: 60 } }
          : need,
      ),
    }))
    const { ways } = waysOf(bare, 'r-09')
    expect(ways[0]).toMatchObject({ after: 'clear', worse: [] })
    for (const way of ways) {
      const [lead, other] = way.moves.map(({ code }) => code)
      expect(lead).toBe('bought lead')
      expect(['lesser picture', 'host by stream']).toContain(other)
      takes(bare, 'r-09', way)
    }
  })
  it('says what comes nearest where nothing helps', () => {
    const retired = changed((plan) => ({
      ...plan,
      devices: plan.devices.map((device) =>
        device.id === 'helm'
          ? { ...device, ports: device.ports.map((port) => ({ ...port, connector: 'lc' as const })) }
          : device,
      ),
    }))
    const { ways, closest, tried } = waysOf(retired, 'r-08')
    expect(ways).toEqual([])
    expect(tried).toBe(0)
    expect(closest?.leading.reason.code).toBe('ends-do-not-mate')
  })

  it('whatever the plan: a cable of the drawer or a free port that makes the run clear by itself is offered, or something as good', () => {
    let found = 0
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const copy = madeUpCopy(changes)
        const { plan } = copy
        const before = assess(plan)
        const wanting = before.runs.filter(({ grade }) => grade !== 'clear')
        const run = plan.runs.find(({ id }) => id === wanting[turn % Math.max(1, wanting.length)]?.id)
        fc.pre(run != null)
        const used = new Set(
          plan.runs.flatMap(({ leads }) => leads.flatMap((lead) => ('cable' in lead ? lead.cable : []))),
        )
        const ports = new Set(
          plan.runs.flatMap(({ from, to }) => [from, to].map(({ device, port }) => `${device}/${port}`)),
        )
        const single: Plan['runs'][number][] = [
          ...plan.cables
            .filter(({ id, standing }) => !used.has(id) && standing === 'drawer')
            .map(({ id }) => ({ ...run, leads: [{ cable: id, reversed: false }] })),
          ...(['from', 'to'] as const).flatMap((end) =>
            (plan.devices.find(({ id }) => id === run[end].device)?.ports ?? [])
              .filter(({ id }) => !ports.has(`${run[end].device}/${id}`))
              .map(({ id }) => ({ ...run, [end]: { ...run[end], port: id } })),
          ),
        ]
        const clear = single.some((moved) => {
          const after = assess({ ...plan, runs: plan.runs.map((each) => (each.id === run.id ? moved : each)) })
          return after.runs.find(({ id }) => id === run.id)?.grade === 'clear'
        })
        fc.pre(clear)
        found += 1
        expect(waysOf(copy, run.id).ways[0]?.after, run.tag).toBe('clear')
      }),
      { numRuns: cases(40) },
    )
    expect(found).toBeGreaterThan(inProportion(3))
  })

  it('of two changes together neither comes as far alone', () => {
    fc.assert(
      fc.property(many, fc.nat(), (changes, turn) => {
        const copy = madeUpCopy(changes)
        const wanting = assess(copy.plan).runs.filter(({ grade }) => grade !== 'clear')
        const run = wanting[turn % Math.max(1, wanting.length)]
        fc.pre(run != null)
        const { ways } = waysOf(copy, run.id)
        const single = ways.filter(({ moves }) => moves.length === 1)
        for (const pair of ways.filter(({ moves }) => moves.length === 2))
          for (const { moves, after } of single) {
            const isPart = pair.moves.some((move) => JSON.stringify(move) === JSON.stringify(moves[0]))
            if (isPart) expect(GRADES.indexOf(after)).toBeLessThan(GRADES.indexOf(pair.after))
          }
      }),
      { numRuns: cases(30) },
    )
  })

  it('for many runs gives no lead to two of them', () => {
    const bare = { ...demo, runs: demo.runs.map((run) => ({ ...run, leads: [] })) }
    const site = assessAnew(bare)
    const ways = finished(
      wayForEach(
        site,
        bare.runs.map(({ id }) => id),
        1,
      ),
    )
    const laid = ways.flatMap(({ found }) =>
      (found.ways[0]?.edits ?? []).flatMap(({ list, value }) =>
        list === 'runs' && value !== null ? laidCables(value as Plan['runs'][number]) : [],
      ),
    )
    expect(laid.length).toBeGreaterThan(5)
    expect(new Set(laid).size).toBe(laid.length)
  })

  describe('small moves', () => {
    const port = (id: string, connector: string, more: object = {}) => ({ id, name: id, connector, ...more })
    const piece = { basis: 'claimed', on: '2026-01-01', grade: 'gen1', amps: 3 }
    const a = { connector: 'type-a' }
    const b = { connector: 'type-b' }
    const camera = {
      id: 'cam',
      name: 'Camera',
      kind: 'camera',
      ports: [port('b', 'type-b', { role: 'device', usb: 'gen1x1' })],
    }
    const computer = {
      id: 'pc',
      name: 'Computer',
      kind: 'computer',
      ports: [port('a', 'type-a', { role: 'host', usb: 'gen1x1', gives: 7.5 })],
    }
    const judgedCopy = (parts: Record<string, unknown>): Copy => copyOf(planFrom(parts))
    const laid = (id: string, from: [string, string], to: [string, string], cable: string, length: number) => ({
      id,
      tag: id,
      from: { device: from[0], port: from[1] },
      to: { device: to[0], port: to[1] },
      leads: [{ cable }],
      route: { length },
    })
    it('an extension before the lead that lies there, from the drawer before a bought one', () => {
      const copy = judgedCopy({
        devices: [computer, camera],
        cables: [
          { id: 'own', tag: 'OWN', ends: [a, b], length: 1.8, evidence: [piece] },
          { id: 'ext', tag: 'EXT', ends: [a, { ...a, gender: 'socket' }], length: 1, evidence: [piece] },
        ],
        runs: [laid('r', ['pc', 'a'], ['cam', 'b'], 'own', 2.5)],
        needs: [{ id: 'n', kind: 'camera', from: 'cam', to: 'pc', rate: 1e9 }],
      })
      const { ways } = waysOf(copy, 'r')
      const extended = ways.find(({ moves }) => moves[0]?.code === 'extension')
      expect(extended).toMatchObject({
        after: 'clear',
        price: 0,
        moves: [{ lead: 'EXT', before: 'OWN', bought: false }],
      })
      for (const way of ways) takes(copy, 'r', way)
    })
    it('a longer own lead where a bracket holds it, and leads of its sort go that far', () => {
      const copy = (length: number, swappable: boolean) =>
        judgedCopy({
          devices: [
            computer,
            {
              ...camera,
              ports: [
                port('p', 'type-a', {
                  gender: 'plug',
                  role: 'device',
                  usb: 'gen1x1',
                  captive: { length: 1, ...(swappable ? { swappable } : {}) },
                }),
              ],
            },
          ],
          runs: [{ ...laid('r', ['pc', 'a'], ['cam', 'p'], '', length), leads: [] }],
          needs: [{ id: 'n', kind: 'camera', from: 'cam', to: 'pc', rate: 1e9 }],
        })
      const swapped = (length: number, swappable = true) =>
        waysOf(copy(length, swappable), 'r').ways.find(({ moves }) => moves[0]?.code === 'swap own lead')
      expect(swapped(2)).toMatchObject({ after: 'clear', moves: [{ device: 'Camera', length: 2.2 }] })
      expect(swapped(2, false)).toBeUndefined()
      // a passive lead carries 5 Gb/s over 3 m (common practice)
      expect(swapped(4)).toBeUndefined()
      for (const way of waysOf(copy(2, true), 'r').ways) takes(copy(2, true), 'r', way)
    })
    it('a feed adapter before a lead that brings too few watts', () => {
      const copy = judgedCopy({
        devices: [computer, camera],
        cables: [
          { id: 'own', tag: 'OWN', ends: [a, b], length: 0.8, evidence: [piece] },
          {
            id: 'feed',
            tag: 'FEED',
            ends: [a, { ...a, gender: 'socket' }],
            length: 0.2,
            passesOn: 15,
            evidence: [piece],
          },
        ],
        runs: [laid('r', ['pc', 'a'], ['cam', 'b'], 'own', 0.5)],
        needs: [{ id: 'n', kind: 'camera', from: 'cam', to: 'pc', rate: 1e9, watts: 12 }],
      })
      const { ways } = waysOf(copy, 'r')
      expect(ways.find(({ moves }) => moves[0]?.code === 'feed adapter')).toMatchObject({
        after: 'clear',
        price: 0,
        moves: [{ lead: 'FEED', before: 'OWN', watts: 15 }],
      })
      for (const way of ways) takes(copy, 'r', way)
    })
    it('a powered hub where the bus is not enough', () => {
      const hub = {
        id: 'hub',
        name: 'Hub',
        kind: 'hub',
        busPowered: true,
        ports: [
          port('b', 'type-b', { role: 'device', usb: 'gen1x1' }),
          port('a', 'type-a', { role: 'host', usb: 'gen1x1', gives: 4.5 }),
        ],
      }
      const copy = judgedCopy({
        devices: [computer, hub, camera],
        cables: ['one', 'two'].map((id) => ({ id, tag: id, ends: [a, b], length: 1, evidence: [piece] })),
        runs: [laid('up', ['pc', 'a'], ['hub', 'b'], 'one', 0.5), laid('r', ['hub', 'a'], ['cam', 'b'], 'two', 0.5)],
        needs: [{ id: 'n', kind: 'camera', from: 'cam', to: 'pc', rate: 1e9, watts: 8 }],
      })
      const { ways } = waysOf(copy, 'up')
      expect(ways.flatMap(({ moves }) => moves.map(({ code }) => code))).toContain('powered hub')
      for (const way of ways) takes(copy, 'up', way)
    })
    it('a charger that stands there already, and none where there is no mains', () => {
      const charger = (id: string, gives: number) => ({
        id,
        name: id,
        kind: 'charger',
        place: 'desk',
        ports: [port('c', 'type-c', { role: 'host', gives })],
      })
      const c = { connector: 'type-c' }
      const copy = (mains: boolean) =>
        judgedCopy({
          places: [{ id: 'desk', name: 'Desk', mains }],
          devices: [
            { ...charger('small', 30), place: undefined },
            charger('large', 100),
            {
              id: 'laptop',
              name: 'Laptop',
              kind: 'computer',
              place: 'desk',
              ports: [
                port('l', 'type-c', { takes: 96, usb: 'gen1x1' }),
                port('r', 'type-c', { takes: 96, usb: 'gen1x1' }),
              ],
            },
          ],
          cables: ['one', 'two'].map((id) => ({
            id,
            tag: id,
            ends: [c, c],
            length: 2,
            evidence: [{ ...piece, amps: 5 }],
          })),
          runs: [laid('r', ['small', 'c'], ['laptop', 'l'], 'one', 1)],
          needs: [{ id: 'n', kind: 'power', from: 'small', to: 'laptop', watts: 96 }],
        })
      const codes = (mains: boolean) =>
        waysOf(copy(mains), 'r').ways.flatMap(({ moves }) => moves.map(({ code }) => code))
      expect(codes(true)).toContain('other charger')
      for (const code of ['other charger', 'power lead']) expect(codes(false)).not.toContain(code)
      for (const way of waysOf(copy(true), 'r').ways) takes(copy(true), 'r', way)
    })
  })
})
