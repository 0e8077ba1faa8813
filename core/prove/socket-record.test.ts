import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import type { Observation } from '../observe/observation'
import { indexPlan } from '../plan/site-index'
import { type SocketCell, socketRecordOf, socketRows } from './socket-record'

const cell = fc.record({
  kind: fc.constantFrom('plain', 'braided'),
  mode: fc.constantFrom('usb2' as const, 'gen2x1' as const),
  sits: fc.constantFrom('board' as const, 'front' as const, null),
  far: fc.constantFrom('Disk', 'Dock', null),
  chain: fc.constantFrom('plain + braided', null),
  tried: fc.integer({ min: 1, max: 4 }),
  share: fc.double({ min: 0, max: 1, noNaN: true }),
})

describe('the record by socket', () => {
  it('counts every try once at whichever grain, and no told row but the broadest has fewer than three', () => {
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 20 }), (made) => {
        const cells = made.map(({ share, ...each }): SocketCell => ({ ...each, held: Math.floor(share * each.tried) }))
        const rows = socketRows(cells)
        const sum = (list: readonly { tried: number; held: number }[], of: 'tried' | 'held') =>
          list.reduce((all, each) => all + each[of], 0)
        expect(sum(rows, 'tried')).toBe(sum(cells, 'tried'))
        expect(sum(rows, 'held')).toBe(sum(cells, 'held'))
        for (const { rate, held, tried } of rows) {
          expect(rate.share).toBeCloseTo(held / tried, 12)
          expect(rate.low).toBeLessThanOrEqual(rate.share)
          expect(rate.high).toBeGreaterThanOrEqual(rate.share)
        }
      }),
    )
  })
  it('takes what all tries of each cable in each socket come to', () => {
    const [kind] = demo.kinds
    const laptop = demo.devices.find(({ id }) => id === 'gallery-laptop')
    const cables = demo.cables.slice(0, 4).map((cable) => ({ ...cable, kind: kind?.id }))
    const trial = (number: number, cable: string, day: number, held: boolean): Observation => ({
      id: `o-${number}`,
      at: `2026-06-0${day}T10:00:00Z`,
      kind: 'trial',
      basis: 'soaked',
      tried: 'gen2x1',
      cameUp: held ? 'gen2x1' : null,
      // twenty times as long as it took to drop
      seconds: held ? 1200 : 60,
      subject: { cable },
      where: {
        computer: laptop?.id,
        port: { device: laptop?.id ?? '', port: 'right' },
        far: { device: 'replay', port: 'tb' },
      },
    })
    const ids = cables.map(({ id }) => id)
    const observations = ids.flatMap((id, at) => [trial(2 * at, id, 1, false), trial(2 * at + 1, id, 2, at !== 0)])
    const sits = 'front' as const
    const devices = demo.devices.map((device) =>
      device.id === laptop?.id ? { ...device, ports: device.ports.map((port) => ({ ...port, sits })) } : device,
    )
    const index = indexPlan({ ...demo, devices, cables, runs: [], needs: [], observations })
    const rows = socketRows(socketRecordOf(index))
    expect(rows).toMatchObject([{ kind: kind?.name, mode: 'gen2x1', sits: 'front', held: 3, tried: 4 }])
    expect(rows[0]?.far).toBe(demo.devices.find(({ id }) => id === 'replay')?.name)
  })
})
