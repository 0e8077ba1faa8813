import { describe, expect, it } from 'vitest'
import { isWithinUndo, UNDO_CHANGES, UNDO_DAYS } from './undo-ends'

const at = '2026-11-28T12:00:00.000Z'
const later = (days: number, ms = 0) => new Date(Date.parse(at) + days * 86_400_000 + ms).toISOString()

describe('undo ends', () => {
  it('with the change that puts it a thousand back, and not with the one before', () => {
    expect(isWithinUndo({ place: 7, at }, { place: 7 + UNDO_CHANGES - 1, at })).toBe(true)
    expect(isWithinUndo({ place: 7, at }, { place: 7 + UNDO_CHANGES, at })).toBe(false)
  })
  it('with its last day, to the millisecond', () => {
    expect(isWithinUndo({ place: 7, at }, { place: 8, at: later(UNDO_DAYS, -1) })).toBe(true)
    expect(isWithinUndo({ place: 7, at }, { place: 8, at: later(UNDO_DAYS) })).toBe(false)
  })
})
