import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { planFrom, runOf } from '../../tests/support/shorthand'
import { applyChange } from '../change/apply'
import { copyPlace } from '../change/changes/copy-place'
import { copyOf } from '../change/copy'
import { assess, assessAnew } from '../checks/assess'
import { GRADES } from '../checks/finding'
import type { Observation } from '../observe/observation'
import { readPlan } from '../plan/read'
import type { Device } from '../vocabulary/device'
import type { Need } from '../vocabulary/need'
import { finished } from '../work/in-slices'
import { judgeVariants, variantOf } from './need-variants'
import { grown, judgeUpgrade } from './upgrades'
import { desksOf, judgeDesk } from './visitors'

const host = demo.devices.find(({ id }) => id === 'gallery-laptop') as Device

describe('who sits at a desk', () => {
  it('judges the desk as it is for whom it is planned, and names the least able', () => {
    const desk = judgeDesk(assessAnew(demo), host)
    expect(desksOf(demo).map(({ id }) => id)).toEqual(['gallery-laptop'])
    expect(desk.sitters.map(({ device }) => device.id)).toEqual(['gallery-laptop', 'second-laptop'])
    // it has no Thunderbolt, so no picture passes the dock's tunnel
    expect(desk.leastAble?.id).toBe('second-laptop')
    expect(desk.sitters[1]?.short.map(({ label }) => label)).toContain('chart picture')
    expect(desk.hungriest).toBeNull()
  })
  /** Whether it speaks of everybody's sockets alike: what was seen in the host's own says nothing of a visitor's. */
  const ofEverySocket = ({ subject, where }: Observation): boolean =>
    !('run' in subject) && !('device' in subject) && where?.port?.device !== host.id && where?.far?.device !== host.id
  it('a visitor who can do all the host can is never worse off, whatever the plan', () => {
    let judged = 0
    fc.assert(
      fc.property(many, (changes) => {
        // a visitor asks for the power it takes, whatever was stated for the one who sits there
        const made = madeUpCopy(changes).plan
        const plan = {
          ...made,
          needs: made.needs.filter(({ kind }) => kind !== 'power'),
          observations: made.observations.filter(ofEverySocket),
        }
        const own = plan.devices.find(({ id }) => id === host.id)
        fc.pre(own != null)
        const visitor: Device = { ...own, id: 'visitor', name: 'Visitor', visits: own.id }
        const desk = judgeDesk(assessAnew({ ...plan, devices: [...plan.devices, visitor] }), own)
        const [first] = desk.sitters
        const guest = desk.sitters.find(({ device }) => device.id === 'visitor')
        judged += 1
        expect(guest?.noSocket).toEqual([])
        expect(GRADES.indexOf(guest?.grade ?? 'blocked')).toBeGreaterThanOrEqual(
          GRADES.indexOf(first?.grade ?? 'clear'),
        )
        expect(guest?.short.length).toBe(first?.short.length)
      }),
      {
        numRuns: cases(60),
        // a lead that failed in the host's own socket
        examples: [
          [
            [
              [
                { sort: 24, one: 228, other: 423, figure: 11 },
                { sort: 0, one: 0, other: 0, figure: 0 },
              ],
              [{ sort: 0, one: 0, other: 0, figure: 0 }],
            ],
          ],
        ],
      },
    )
    expect(judged).toBeGreaterThan(inProportion(30))
  })
  it('says which run finds no socket, and who takes the most', () => {
    const bare: Device = { ...host, id: 'bare', name: 'Bare', visits: host.id, ports: [] }
    const hungry: Device = {
      ...host,
      id: 'hungry',
      name: 'Hungry',
      visits: host.id,
      ports: host.ports.map((port) => ({ ...port, takes: 140 })),
    }
    const desk = judgeDesk(assessAnew({ ...demo, devices: [...demo.devices, bare, hungry] }), host)
    expect(desk.sitters.find(({ device }) => device.id === 'bare')?.noSocket).toEqual(['R-09'])
    expect(desk.leastAble?.id).toBe('bare')
    expect(desk.hungriest?.id).toBe('hungry')
    // 96 W is what the dock gives
    expect(desk.sitters.find(({ device }) => device.id === 'hungry')?.short.map(({ label }) => label)).toContain(
      'laptop power',
    )
  })
})

describe('a need that may be asked in several ways', () => {
  const asked = (variants: NonNullable<Need['variants']>) => {
    const need = { ...(demo.needs.find(({ id }) => id === 'headset-link') as Need), variants }
    const plan = { ...demo, needs: demo.needs.map((each) => (each.id === need.id ? need : each)) }
    return judgeVariants(assessAnew(plan), need)
  }
  it('is judged in each, and the hungriest is named', () => {
    const answer = asked([
      { name: 'a faster decoder', rate: 3.9e9 },
      { name: 'one too fast', rate: 4.8e9 },
    ])
    expect(answer?.judged.map(({ name, grade }) => [name, grade])).toEqual([
      ['as stated', 'clear'],
      ['a faster decoder', 'tight'],
      ['one too fast', 'blocked'],
    ])
    expect(answer?.hungriest).toBe('one too fast')
  })
  it('whose variants ask less is hungriest as it is stated; without variants there is nothing to say', () => {
    expect(asked([{ name: 'less', rate: 1e9 }])?.hungriest).toBe('as stated')
    expect(asked([])).toBeNull()
  })
})

describe('what if it grows', () => {
  it('what is asked grows and nothing that is laid changes', () => {
    for (const upgrade of demo.upgrades) {
      const after = grown(demo, upgrade)
      expect(after.runs).toBe(demo.runs)
      expect(after.devices).toBe(demo.devices)
      expect(after.needs.length).toBeGreaterThanOrEqual(demo.needs.length)
    }
  })
  it('says which runs it breaks, as judging the grown plan says', () => {
    const site = assessAnew(demo)
    for (const upgrade of demo.upgrades) {
      const answer = finished(judgeUpgrade(site, upgrade))
      const after = assess(grown(demo, upgrade)).runs
      const worse = site.assessment.runs.filter(
        ({ grade }, at) => GRADES.indexOf(after[at]?.grade ?? 'clear') < GRADES.indexOf(grade),
      )
      expect(answer.fallen.map(({ id }) => id)).toEqual(worse.map(({ id }) => id))
      const blocked = site.assessment.runs.filter(({ grade }) => grade === 'blocked').length
      expect(answer).toMatchObject({ survives: demo.runs.length - blocked - worse.length, blocked })
    }
  })
  it('a smaller wish than what is asked already breaks nothing', () => {
    const upgrade = { id: 'u', name: 'less', growth: [{ what: 'power' as const, watts: 1 }] }
    expect(finished(judgeUpgrade(assessAnew(demo), upgrade)).fallen).toEqual([])
  })
})

describe('a place copied', () => {
  it('is so many places more, each judged by itself, and could be a file', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.nat({ max: demo.places.length - 1 }), (count, at) => {
        const place = demo.places[at] as (typeof demo.places)[number]
        const { edits } = copyPlace(demo, place, count)
        const applied = applyChange(start, { edits })
        if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
        const { plan } = applied.copy
        expect(plan.places).toHaveLength(demo.places.length + count)
        const there = demo.devices.filter((device) => device.place === place.id).length
        expect(plan.devices).toHaveLength(demo.devices.length + count * there)
        expect(new Set(plan.runs.map(({ tag }) => tag)).size).toBe(plan.runs.length)
        expect(readPlan(JSON.parse(JSON.stringify(plan))).ok).toBe(true)
        // what stood there before is judged as before
        expect(assess(plan).runs.slice(0, demo.runs.length)).toEqual(assess(demo).runs)
      }),
      { numRuns: cases(25) },
    )
  })
  it('has its leads planned as the original has them, and names after the copy, none of them twice', () => {
    const end = { connector: 'type-c' }
    const plan = planFrom({
      places: [{ id: 'desk', name: 'Desk 1' }],
      devices: ['Desk 1 laptop', 'Screen 1', 'Lamp'].map((name, at) => ({
        id: `d${at}`,
        name,
        kind: at === 0 ? 'computer' : 'display',
        place: 'desk',
        ports: [0, 1].map((port) => ({ id: `p${port}`, name: `p${port}`, connector: 'type-c', usb: 'gen2x1' })),
      })),
      cables: [
        {
          id: 'c1',
          tag: 'C-1',
          ends: [end, end],
          length: 1,
          evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen2', amps: 3 }],
        },
        { id: 'c2', tag: 'C-2', ends: [end, end], length: 2 },
      ],
      runs: [runOf('r1', 'd0/p0', 'd1/p0', 'c1'), runOf('r2', 'd0/p1', 'd2/p0', 'c2')],
      needs: [{ id: 'n', name: 'Desk 1 link', kind: 'data', from: 'd0', to: 'd1', rate: 1e9 }],
    })
    const [place] = plan.places
    if (!place) throw new Error('there is a desk')
    const applied = applyChange(copyOf(plan), { edits: copyPlace(plan, place, 2).edits })
    if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
    const { devices, runs, needs, kinds, places } = applied.copy.plan
    expect(places.map(({ name }) => name)).toEqual(['Desk 1', 'Desk 2', 'Desk 3'])
    expect(devices.slice(3).map(({ name }) => name)).toEqual([
      'Desk 2 laptop',
      'Screen 2',
      'Lamp 2',
      'Desk 3 laptop',
      'Screen 3',
      'Lamp 3',
    ])
    expect(needs.map(({ name }) => name)).toEqual(['Desk 1 link', 'Desk 2 link', 'Desk 3 link'])
    expect(kinds).toMatchObject([{ name: 'as C-1', grade: 'gen2', amps: 3 }])
    // nobody knows what C-2 carries
    const own = { kind: kinds[0]?.id, length: 1, reversed: false }
    expect(runs.slice(2).map(({ leads }) => leads)).toEqual([[own], [], [own], []])
    const { runs: verdicts } = assess(applied.copy.plan)
    expect([0, 2, 4].map((at) => verdicts[at]?.mode)).toEqual(['gen2x1', 'gen2x1', 'gen2x1'])
  })
})

describe('storage that is asked in another way', () => {
  const need: Need = { id: 'n', kind: 'storage', from: 'a', to: 'b', rate: 4e9, back: 8e9 }
  it('is read as fast as it is written, where the variant does not say otherwise', () => {
    expect(variantOf(need, { name: 'quick', rate: 16e9 })).toEqual({
      id: 'n',
      kind: 'storage',
      from: 'a',
      to: 'b',
      name: 'quick',
      rate: 16e9,
    })
    expect(variantOf(need, { name: 'archive', rate: 1e9, back: 16e9 })).toMatchObject({ rate: 1e9, back: 16e9 })
    expect(variantOf(need, { name: 'same' })).toMatchObject({ rate: 4e9, back: 8e9 })
  })
  it('grows both ways', () => {
    const plan = grown(
      { ...demo, needs: [need] },
      { id: 'u', name: 'disks', growth: [{ what: 'rate', kind: 'storage', rate: 6e9 }] },
    )
    expect(plan.needs[0]).toMatchObject({ rate: 6e9, back: 8e9 })
  })
})
