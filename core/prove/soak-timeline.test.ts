import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { indexPlan } from '../plan/site-index'
import { isRunSoak } from '../vocabulary/session'
import { soakTable } from './record-sheets'
import { soaksTold } from './soak-timeline'

describe('soaks on a line of time', () => {
  const drop = '2026-11-25T09:00:00Z'
  const soaks = demo.soaks.map((soak) => (isRunSoak(soak) ? { ...soak, drops: [drop] } : soak))
  const plan = { ...demo, soaks }
  const told = soaksTold(plan)
  it('begin where they began; those under way reach to where they are good, with each drop at its instant', () => {
    const [first] = told
    const soak = demo.soaks.find(isRunSoak)
    expect(first).toMatchObject({ run: soak?.run, underWay: true, drops: 1, at: [Date.parse(drop)] })
    expect(first?.from).toBe(Date.parse(soak?.since ?? ''))
    expect((first?.to ?? 0) - (first?.from ?? 0)).toBe((soak?.seconds ?? 0) * 1000)
  })
  it('that ended stand behind them, the newest first, none longer than it was watched', () => {
    const past = told.filter(({ underWay }) => !underWay)
    expect(past.length).toBeGreaterThan(0)
    for (const [at, each] of past.entries()) {
      expect(each.to).toBeGreaterThan(each.from)
      if (at > 0) expect(each.to).toBeLessThanOrEqual(past[at - 1]?.to ?? 0)
    }
    expect(soakTable(indexPlan(plan))).toHaveLength(told.length + 1)
  })
  it('are all told, however often the same came of it', () => {
    const held = demo.observations.find(({ kind, subject }) => kind === 'trial' && 'run' in subject)
    if (!held) throw new Error('the demo has a run that was soaked')
    const nights = [1, 2, 3].map((night) => ({ ...held, id: `night-${night}`, at: `2026-11-0${night}T06:00:00.000Z` }))
    expect(soaksTold({ ...plan, observations: [...plan.observations, ...nights] })).toHaveLength(told.length + 3)
  })
})
