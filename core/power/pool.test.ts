import { expect } from 'vitest'
import { practice } from '../../tests/support/figures'
import { planFrom } from '../../tests/support/shorthand'
import { assess } from '../checks/assess'
import { passOn, sharePool, strongerOf } from './pool'

// every value is common practice

const socket = (id: string, more: object) => ({ id, name: id, connector: 'type-c', ...more })

practice('three 27 W ports that share 60 W leave 6 W for the third', () => {
  expect(sharePool({ kind: 'shared', total: 60, ports: [27, 27, 27] }, [0, 1, 2])).toEqual([27, 27, 6])
  expect(sharePool({ kind: 'shared', total: 60, ports: [27, 27, 27] }, [2, 0])).toEqual([27, 0, 27])
})
practice('a 100 W + 18 W charger falls to 60 W on the big port once the other is used', () => {
  const pool = { kind: 'drops', alone: [100, 18], together: [60, 18] } as const
  expect(sharePool(pool, [0])).toEqual([100, 0])
  expect(sharePool(pool, [0, 1])).toEqual([60, 18])
})
practice('assured ports do not mind each other', () => {
  expect(sharePool({ kind: 'assured', ports: [65, 30] }, [0, 1])).toEqual([65, 30])
})
practice('a 100 W hub that keeps 5 W passes on 95 W, and never less than nothing', () => {
  expect(passOn(100, 5)).toBe(95)
  expect(passOn(3, 5)).toBe(0)
})
practice('of two supplies the stronger counts', () => {
  expect(strongerOf([57, 87])).toBe(87)
  expect(strongerOf([])).toBe(0)
})

practice('in a plan, a charger that drops feeds less through each port once both are used', () => {
  const charging = (used: 1 | 2): number | null | undefined => {
    const plan = planFrom({
      devices: [
        {
          id: 'charger',
          name: 'Charger',
          kind: 'charger',
          pool: { kind: 'drops', together: { big: 60 } },
          ports: [socket('big', { role: 'host', gives: 100 }), socket('small', { role: 'host', gives: 18 })],
        },
        ...['one', 'two'].map((id) => ({ id, name: id, kind: 'computer', ports: [socket('c', { takes: 96 })] })),
      ],
      cables: ['c1', 'c2'].map((id) => ({
        id,
        tag: id,
        ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
        length: 1,
        evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'usb2', amps: 5 }],
      })),
      runs: [
        ['big', 'one', 'c1'],
        ['small', 'two', 'c2'],
      ]
        .slice(0, used)
        .map(([port, to, cable]) => ({
          id: port,
          tag: port,
          from: { device: 'charger', port },
          to: { device: to, port: 'c' },
          leads: [{ cable }],
          route: { length: 0.5 },
        })),
      needs: [{ id: 'n', kind: 'power', from: 'charger', to: 'one', watts: 96 }],
    })
    return assess(plan).runs[0]?.findings.find((finding) => finding.check === 'current')?.have
  }
  expect(charging(1)).toBe(100)
  expect(charging(2)).toBe(60)
})
