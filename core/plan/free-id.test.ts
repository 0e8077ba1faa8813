import { describe, expect, it } from 'vitest'
import { freeIds, slugOf } from './free-id'

describe('ids from names', () => {
  it.each([
    ['Übungsdeck 2', 'ubungsdeck-2'],
    ['C-0042', 'c-0042'],
    ['⚓⚓', 'cable'],
    ['--', 'cable'],
  ])('%s', (name, id) => expect(slugOf(name, 'cable')).toBe(id))
  it('are short enough to get a number', () => expect(slugOf('x'.repeat(200), 'cable')).toHaveLength(58))
  it('get a number where they are taken, by others or by themselves', () => {
    const idOf = freeIds(['c-1', 'c-1-2'])
    expect(['c-1', 'c-1', 'c-2', 'c-2'].map(idOf)).toEqual(['c-1-3', 'c-1-4', 'c-2', 'c-2-2'])
  })
})
