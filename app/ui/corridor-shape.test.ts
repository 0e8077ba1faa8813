import { describe, expect, it } from 'vitest'
import { judge, type OneRun } from '../../tests/support/one-run'
import { corridorShape, HALL_HEIGHT, widthOf } from './corridor-shape'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', thunderbolt: 4, gives: 15 }
const disk: OneRun['to'] = { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1', takes: 4.5 }
const shapeOf = (input: Partial<OneRun>) =>
  corridorShape(judge({ from: host, to: disk, leads: [{ grade: 'gen2', length: 1 }], ...input }).run)

describe('the corridor', () => {
  it('has a doorway as wide as what passes: one decade is one step, nothing is shut', () => {
    expect(widthOf(0)).toBe(0)
    expect(widthOf(1)).toBeGreaterThan(0)
    expect(widthOf(10e9) - widthOf(1e9)).toBeCloseTo(widthOf(100e9) - widthOf(10e9), 9)
    expect(widthOf(1e12)).toBe(HALL_HEIGHT)
  })

  it('marks the narrowest door, and chambers stand in order without touching', () => {
    const { chambers, width } = shapeOf({ leads: [{ grade: 'gen1', length: 1 }] })
    expect(chambers.map((chamber) => chamber.narrowest)).toEqual([false, true, false])
    for (const [at, chamber] of chambers.entries()) {
      expect(chamber.x + chamber.width).toBeLessThan(chambers[at + 1]?.x ?? width)
    }
  })

  it('lets a ribbon run through where it passes, and ends it at the door that stops it', () => {
    const need = { kind: 'storage', rate: 6.4e9 } as const
    const through = shapeOf({ need })
    expect(through.ribbons[0]).toMatchObject({ from: 0, to: through.width, stopped: false })
    const stopped = shapeOf({ need, leads: [{ grade: 'gen1', length: 1 }] })
    expect(stopped.ribbons[0]).toMatchObject({ from: 0, to: stopped.chambers[1]?.x, stopped: true })
    expect(stopped.ribbons[0]?.width).toBeGreaterThan(stopped.chambers[1]?.opening ?? 0)
  })

  it('walks the other way for what flows towards the host', () => {
    const up = shapeOf({ need: { kind: 'camera', rate: 6e9, upstream: true }, leads: [{ grade: 'gen1', length: 1 }] })
    expect(up.ribbons[0]).toMatchObject({ from: up.width, stopped: true })
    expect(up.ribbons[0]?.to).toBeCloseTo((up.chambers[1]?.x ?? 0) + (up.chambers[1]?.width ?? 0), 9)
  })

  it('does not stop a ribbon for want of power: the power line shows that', () => {
    const shape = shapeOf({
      leads: [{ grade: 'gen2', construction: 'optical', length: 5 }],
      route: 4,
      need: { kind: 'camera', rate: 4e9, watts: 4.5, upstream: true },
    })
    expect(shape.ribbons[0]?.stopped).toBe(false)
    expect(shape.powered).toBe(true)
    expect(shape.chambers[1]?.door.watts).toBe(0)
  })

  it('grows longer with many leads rather than its chambers narrower', () => {
    const lead = { grade: 'gen1', length: 0.2, ends: ['type-a', 'type-a socket'] } as OneRun['leads'][number]
    const shape = shapeOf({
      from: { connector: 'type-a', role: 'host', usb: 'gen1x1' },
      leads: Array.from({ length: 6 }, () => lead),
    })
    expect(shape.chambers).toHaveLength(8)
    expect(Math.min(...shape.chambers.map((chamber) => chamber.width))).toBeGreaterThanOrEqual(150)
  })
})
