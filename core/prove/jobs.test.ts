import { describe, expect, it } from 'vitest'
import { observationSchema, observationText } from '../observe/observation'
import { emptyPlan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import type { Run } from '../vocabulary/run'
import { type JobSeen, jobTold } from './jobs'

const run: Run = {
  id: 'r1',
  tag: 'R-01',
  from: { device: 'pc', port: 'p' },
  to: { device: 'disk', port: 'p' },
  leads: [],
  route: { length: 1 },
}
const index = indexPlan({ ...emptyPlan({ id: 's', name: 'S' }), runs: [run] })
const every = {
  id: 'o1',
  at: '2026-04-01T09:00:00.000Z',
  subject: { run: 'r1', leads: [] },
  kind: 'reading',
  measure: 'job',
  what: 'copy',
}
const job = (more: object): JobSeen => observationSchema.parse({ ...every, ...more }) as JobSeen
const told = (more: object) => jobTold(index, run, job(more), String)

describe('a real job', () => {
  it('that broke off says how often, beside the times it got through', () => {
    expect(told({ figures: [61, 63] }).cost).toBe('copy: 62 s, the mean of 2')
    expect(told({ figures: [61, 63], brokeOff: 1 }).cost).toBe('copy: 62 s, the mean of 2, broke off once')
    expect(observationText(job({ figures: [61, 63], brokeOff: 2 }))).toBe('copy: 61, 63 s, broke off 2 times')
  })
  it('that never got through has nothing to be held against', () => {
    const against = { what: 'the direct way', figures: [60, 61, 62], length: 0.5 }
    expect(told({ figures: [], brokeOff: 3, against })).toMatchObject({
      cost: 'copy: broke off 3 times',
      gain: null,
      verdict: [],
    })
    expect(observationText(job({ figures: [], brokeOff: 1 }))).toBe('copy: broke off once')
  })
  it('of which nothing is told is refused', () => {
    const read = (more: object) => observationSchema.safeParse({ ...every, ...more }).success
    expect([read({ figures: [] }), read({ figures: [], brokeOff: 0 }), read({ figures: [], brokeOff: 61 })]).toEqual([
      false,
      false,
      false,
    ])
    expect([read({ figures: [1] }), read({ figures: [], brokeOff: 60 })]).toEqual([true, true])
  })
})
