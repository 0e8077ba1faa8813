import fc from 'fast-check'
import { describe, expect } from 'vitest'
import { practice, remembered } from '../../tests/support/figures'
import { cases } from '../../tests/support/laws'
import { judge, type OneRun } from '../../tests/support/one-run'
import { planFrom, portOf, runOf } from '../../tests/support/shorthand'
import { drawn, smallSite } from '../../tests/support/small-site'
import { controllerOf } from '../link/controller'
import type { Plan } from '../plan/plan'
import { atMost } from '../quantity/limit'
import { assess, assessAnew } from './assess'
import type { Finding } from './checks'
import { sentence } from './sentences'
import { situationOf } from './situation'

// Ports on one controller share what it carries (common practice); the rates are made up so that the sums are plain.

const socket = (id: string, controller: string) => portOf(id, 'type-c', { role: 'host', usb: 'gen2x1', controller })
const camera = (id: string) => ({
  id,
  name: id,
  kind: 'camera',
  ports: [portOf('p', 'type-c', { role: 'device', usb: 'gen2x1' })],
})
/** A computer with three ports on one controller and one on another, and a camera at each. */
const site = (carries: number | null, rates: readonly number[], more: object = {}): Plan =>
  planFrom({
    devices: [
      {
        id: 'pc',
        name: 'Tower',
        kind: 'computer',
        ...(carries === null ? {} : { controllers: [{ name: 'Rear', carries }] }),
        ports: [socket('a', 'rear'), socket('b', 'rear'), socket('c', 'rear'), socket('d', 'card')],
      },
      ...['one', 'two', 'three', 'four'].map(camera),
    ],
    cables: ['c1', 'c2', 'c3', 'c4'].map((id) => ({
      id,
      tag: id,
      ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
      length: 0.5,
      evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen2', amps: 3 }],
    })),
    runs: [
      runOf('r1', 'pc/a', 'one/p', 'c1'),
      // drawn from the far end, which changes nothing
      runOf('r2', 'two/p', 'pc/b', 'c2'),
      runOf('r3', 'pc/c', 'three/p', 'c3'),
      runOf('r4', 'pc/d', 'four/p', 'c4'),
    ],
    needs: rates.map((rate, at) => ({
      id: `n${at + 1}`,
      kind: 'camera',
      from: ['one', 'two', 'three', 'four'][at],
      to: 'pc',
      rate,
      ...(at === 0 ? more : {}),
    })),
  })
const room = (plan: Plan, need: string): Finding | undefined =>
  assess(plan)
    .needs.find(({ id }) => id === need)
    ?.findings.find(({ check }) => check === 'rate')
const grades = (plan: Plan): (string | undefined)[] => plan.needs.map(({ id }) => room(plan, id)?.grade)

describe('ports on one controller', () => {
  practice('share what it carries, in the order of service, and the finding names the controller and its port', () => {
    const plan = site(8e9, [4e9, 4e9, 4e9, 4e9])
    expect(grades(plan)).toEqual(['clear', 'tight', 'blocked', 'clear'])
    const refused = room(plan, 'n3') as Finding
    expect(refused).toMatchObject({ have: 0, need: 4e9, part: { id: 'pc/c' }, reason: { cause: 'controller' } })
    expect(sentence(refused)).toBe(
      'The camera needs 4 Gb/s, and the controller Rear leaves nothing after 8 Gb/s for what goes before it. All ports on it share that, whatever lead lies here.',
    )
    expect(refused.remedies.map(({ code }) => code)).toContain('other-port')
  })
  practice('have all that they ask where nobody said what it carries', () => {
    expect(grades(site(null, [4e9, 4e9, 4e9, 4e9]))).toEqual(['clear', 'clear', 'clear', 'clear'])
  })
  practice('leave what a refused one asked to those behind it', () => {
    // the second does not fit beside the first; the third does
    expect(grades(site(6e9, [3e9, 4e9, 2e9]))).toEqual(['clear', 'blocked', 'clear'])
    // the first asks more than its own link carries, and takes nothing of the controller
    expect(grades(site(6e9, [11e9, 5e9]))).toEqual(['blocked', 'clear'])
  })
  practice('are served by their stated priority first', () => {
    expect(grades(site(5e9, [4e9, 4e9]))).toEqual(['clear', 'blocked'])
    const second = site(5e9, [4e9, 4e9], { priority: 9 })
    const first = { ...second, needs: second.needs.map((need) => (need.id === 'n2' ? { ...need, priority: 1 } : need)) }
    expect(grades(first)).toEqual(['blocked', 'clear'])
  })
  practice('never send more than it carries together, and hold all that one of them could have', () => {
    fc.assert(
      fc.property(drawn.map(smallSite), (plan) => {
        const { index, walks } = assessAnew(plan)
        const sums = new Map<string, { carries: number; out: number; back: number }>()
        for (const run of plan.runs) {
          const controller = controllerOf(index, run)
          if (!controller) continue
          const key = `${controller.device}/${controller.name}`
          const sum = sums.get(key) ?? { carries: controller.carries, out: 0, back: 0 }
          const { admissions } = situationOf(index, run, walks.crossings.get(run.id) ?? []).uplink
          for (const { need, sent, overUsb } of admissions) {
            if (need.kind === 'picture' && !overUsb) continue
            sum.out += sent[controller.away]
            sum.back += sent[controller.away === 'down' ? 'up' : 'down']
          }
          sums.set(key, sum)
        }
        for (const { carries, out, back } of sums.values())
          expect(atMost(out, carries) && atMost(back, carries)).toBe(true)
      }),
      { numRuns: cases(200) },
    )
  })
})

describe("a laptop's own screen, sent back from a graphics box", () => {
  const back = (rate: number, host: Partial<OneRun['from']> = {}, far: Partial<OneRun['to']> = {}) =>
    judge({
      from: { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 4, ...host },
      to: { connector: 'type-c', role: 'device', usb: 'gen2x1', thunderbolt: 4, ...far },
      leads: [{ grade: 'usb4-40', length: 0.7, amps: 5 }],
      need: { kind: 'own screen', rate, upstream: true },
    })
  practice('comes back through a tunnel, and costs frames that a display on the box does not', () => {
    const { finding, need } = back(10e9)
    expect(need?.grade).toBe('clear')
    expect(finding('own screen')).toMatchObject({ grade: 'note', remedies: [{ code: 'outboard-display' }] })
  })
  practice('does not come back over plain USB, however little it asks', () => {
    const { finding, need } = back(1e8, { thunderbolt: undefined })
    expect(need?.grade).toBe('blocked')
    expect(finding('own screen')?.reason).toEqual({ code: 'needs-tunnel', mode: 'gen2x1' })
  })
  remembered('Thunderbolt 3, early hosts')('is held to the 22 Gb/s of PCIe that early Thunderbolt hosts carry', () => {
    expect(back(22e9, { thunderbolt: 3 }).need?.grade).toBe('clear')
    expect(back(22.1e9, { thunderbolt: 3 }).need?.grade).toBe('blocked')
    expect(back(22.1e9).need?.grade).toBe('clear')
  })
})
