import { describe, expect } from 'vitest'
import { practice, remembered } from '../../tests/support/figures'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { EARLY_TUNNEL_PCIE, jobSeconds, predictStorage, type StorageChain } from './storage'

const megabytes = (chain: StorageChain, way: 'write' | 'read' = 'write') => {
  const { low, high, limitedBy } = predictStorage(chain)[way]
  return [Math.round(low / 8e6), Math.round(high / 8e6), limitedBy]
}
const drive = (write: number, read = write) => ({ write: write * 8e6, read: read * 8e6 })

describe('what a disk will do', () => {
  practice('four Gen 3 lanes behind 40 Gb/s come to about 3 GB/s', () => {
    const [low, high, limit] = megabytes({ mode: 'tbt3-40', pcie: { generation: 3, lanes: 4 } })
    expect(limit).toBe('pcie')
    expect(low).toBeGreaterThan(2900)
    expect(high).toBeLessThan(3250)
  })
  // common practice, as seen
  practice.each([
    ['usb2', 30, 42],
    ['gen1x1', 400, 460],
    ['gen2x1', 950, 1060],
    ['gen2x2', 1900, 2100],
  ] as const)('a fast disk over %s does %d to %d MB/s', (mode, low, high) => {
    expect(megabytes({ mode, drive: drive(3500) })).toEqual([low, high, 'link'])
  })
  practice('a hard disk is its own limit, and a poor bridge takes a fifth', () => {
    expect(megabytes({ mode: 'gen1x1', drive: drive(110) })).toEqual([110, 110, 'drive'])
    expect(megabytes({ mode: 'gen2x1', bridge: 'poor' })).toEqual([760, 848, 'link'])
  })
  practice('write and read differ where the share left for them does', () => {
    const chain: StorageChain = {
      mode: 'usb4-40',
      share: { write: 13e9, read: 38e9 },
      pcie: { generation: 3, lanes: 4 },
    }
    expect(megabytes(chain, 'write')[2]).toBe('share')
    expect(megabytes(chain, 'read')[2]).toBe('pcie')
  })
  practice('two copies at once take twice as long, whatever the limit', () => {
    for (const chain of [
      { mode: 'gen2x1' },
      { mode: 'usb4-40', pcie: { generation: 4, lanes: 4 } },
    ] as StorageChain[]) {
      expect(predictStorage({ ...chain, users: 2 }).write.high).toBeCloseTo(predictStorage(chain).write.high / 2, 3)
    }
  })
  practice('never exceeds what the link itself carries', () => {
    for (const mode of LINK_MODES) {
      const { write } = predictStorage({ mode })
      expect(write.low).toBeGreaterThan(0)
      expect(write.low).toBeLessThanOrEqual(write.high)
      expect(write.high).toBeLessThanOrEqual(linkModeFacts[mode].payload)
    }
  })
  remembered('Thunderbolt 3, early hosts')('an early host gives PCIe 22 Gb/s of its tunnel and no more', () => {
    const chain: StorageChain = { mode: 'tbt3-40', pcie: { generation: 3, lanes: 4 } }
    expect(megabytes({ ...chain, ceiling: EARLY_TUNNEL_PCIE })).toEqual([2750, 2750, 'pcie'])
    expect(megabytes({ ...chain, ceiling: EARLY_TUNNEL_PCIE, drive: drive(1000) })[2]).toBe('drive')
  })
  practice('100 GB takes as long as the band says, in decimal units', () => {
    expect(jobSeconds(100e9, { low: 8e9, high: 16e9 })).toEqual({ quickest: 50, slowest: 100 })
    expect(jobSeconds(1, { low: 0, high: 0 })).toEqual({ quickest: null, slowest: null })
  })
})
