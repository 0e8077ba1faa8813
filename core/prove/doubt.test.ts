import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import type { Observation } from '../observe/observation'
import { indexPlan } from '../plan/site-index'
import { doubtsOf } from './doubt'

const cables = demo.cables.slice(0, 6).map((cable, at) => ({ ...cable, kind: 'plain', length: at + 1 }))
const read = (at: number, watts: number, more: Partial<Observation> = {}) =>
  ({
    id: `o-${at}`,
    at: '2026-11-20T10:00:00Z',
    kind: 'reading',
    measure: 'watts',
    watts,
    subject: { cable: cables[at]?.id ?? '' },
    instrument: { name: 'small meter', simulated: false },
    ...more,
  }) as Observation
const doubts = (observations: Observation[]) =>
  doubtsOf(indexPlan({ ...demo, runs: [], cables, observations })).map(
    ({ instrument, words }) => `${instrument}: ${words}`,
  )

describe('an instrument is doubted', () => {
  it('where no change moves what it reads', () => {
    const [doubt] = doubts([0, 1, 2, 3].map((at) => read(at, 60)))
    expect(doubt).toMatch(/^small meter: .*60 W on 4 different cables/)
    // three may read alike by chance
    expect(doubts([0, 1, 2].map((at) => read(at, 60)))).toEqual([])
  })
  it('where the longer of a kind reads better than the shorter', () => {
    expect(doubts([read(0, 60), read(5, 90)])[0]).toMatch(
      /90 W on the longer cable of a kind and 60 W on the shorter one/,
    )
  })
  it('not where it reads as leads do, where something else was the limit, or where nobody said what it was read with', () => {
    expect(doubts([read(0, 90), read(1, 80), read(2, 71), read(5, 60)])).toEqual([])
    expect(doubts([0, 1, 2, 3].map((at) => read(at, 60, { limit: 'charger' })))).toEqual([])
    expect(doubts([0, 1, 2, 3].map((at) => read(at, 60, { instrument: undefined })))).toEqual([])
  })
})
