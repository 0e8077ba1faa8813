import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { took } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { endRunSoak, noteDrop, soakOfRun, startRunSoak, stopRunSoak } from '../change/changes/prove'
import { copyOf } from '../change/copy'
import { byId } from '../plan/lookup'
import { readPlan } from '../plan/read'
import { runSoaksOf, soakStanding } from './run-soak'
import { soakPromise } from './soak-promise'

const start = copyOf(demo)
const run = byId(demo.runs).get('r-07') as (typeof demo.runs)[number]
let number = 0
const witness = (at: number) => ({
  at: new Date(at).toISOString(),
  by: 'Ada',
  newId: () => {
    number += 1
    return `s-${number}`
  },
})
const begun = (at: number, seconds = 600) =>
  took(
    start,
    startRunSoak(start.plan, start.place, run, { socket: run.from, seconds, hard: true, rests: {} }, witness(at)),
  )
const soakIn = (copy: Copy) => {
  const soak = soakOfRun(copy.plan, run.id)
  if (!soak) throw new Error('it soaks')
  return soak
}
const BEGAN = Date.UTC(2026, 9, 24, 22, 0, 0)

describe('a soak of a run', () => {
  it('lasts as many seconds as went by, over any change of the clock, and never fewer than none', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 6e6 }), fc.integer({ min: 60, max: 5_184_000 }), (gone, asked) => {
        // the night in which clocks go back an hour in much of Europe: instants know nothing of it
        const { seconds, over } = soakStanding(soakIn(begun(BEGAN, asked)), new Date(BEGAN + gone * 1000))
        expect(seconds).toBe(Math.max(0, gone))
        expect(over).toBe(gone >= asked)
      }),
    )
  })
  it('ends as a trial with each of its drops, and is gone; undone, it goes on as if nothing had been', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { maxLength: 6 }), (moments) => {
        let copy = begun(BEGAN)
        for (const at of moments.sort((one, other) => one - other))
          copy = took(copy, noteDrop(soakIn(copy), copy.place, run.tag, new Date(BEGAN + at * 1000).toISOString()))
        const where = { port: run.from, far: run.to }
        const end = endRunSoak(soakIn(copy), copy.place, run, { what: { link: 'usb2' }, where }, witness(BEGAN + 1e6))
        const applied = applyChange(copy, { edits: end.edits })
        if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
        const trial = applied.copy.plan.observations.at(-1)
        expect(trial).toMatchObject({
          kind: 'trial',
          basis: 'soaked',
          seconds: 1000,
          cameUp: moments.length > 0 ? null : 'usb2',
          circumstances: { hard: true },
        })
        if (trial?.kind === 'trial') expect(trial.drops?.length ?? 0).toBe(moments.length)
        expect(soakOfRun(applied.copy.plan, run.id)).toBeUndefined()
        expect(readPlan(JSON.parse(JSON.stringify(applied.copy.plan))).ok).toBe(true)
        const undone = applyChange(applied.copy, { edits: applied.inverse, undoes: 'x' })
        if (undone.outcome !== 'applied') throw new Error(JSON.stringify(undone))
        expect(soakIn(undone.copy)).toEqual(soakIn(copy))
      }),
      { numRuns: cases(40) },
    )
  })
  it('of less than a minute is no soak', () => {
    const copy = begun(BEGAN)
    const end = endRunSoak(
      soakIn(copy),
      copy.place,
      run,
      { what: { link: 'usb2' }, where: {} },
      witness(BEGAN + 59_999),
    )
    expect(took(copy, end).plan.observations.at(-1)).toMatchObject({ basis: 'measured', seconds: 59, cameUp: 'usb2' })
  })
  it('a run soaks once: begun again it begins anew, and stopped it leaves nothing', () => {
    const copy = begun(BEGAN)
    const again = took(
      copy,
      startRunSoak(
        copy.plan,
        copy.place,
        run,
        { socket: run.from, seconds: 60, hard: false, rests: {} },
        witness(BEGAN + 5000),
      ),
    )
    expect(again.plan.soaks.length).toBe(copy.plan.soaks.length)
    expect(soakIn(again)).toMatchObject({ seconds: 60, since: new Date(BEGAN + 5000).toISOString() })
    const stopped = took(again, stopRunSoak(soakIn(again), again.place, run.tag))
    expect(stopped.plan.soaks.length).toBe(start.plan.soaks.length)
    expect(stopped.plan.observations.length).toBe(start.plan.observations.length)
  })
  it('those that are long enough come first', () => {
    const copy = begun(BEGAN, 60)
    const now = new Date(Date.parse('2026-11-26T08:00:00.000Z'))
    expect(runSoaksOf(copy.plan.soaks, now).map(({ soak, over }) => [soak.run, over])).toEqual([
      ['r-07', true],
      ['r-06', false],
    ])
  })
  it('promises what the rule of three and the Poisson table say, and nothing of less than a minute', () => {
    expect(soakPromise(0, 59)).toMatch(/proves nothing/)
    expect(soakPromise(0, 864_000)).toBe('No drop in 10 days: on average at most one in 3.3 days, 95 % sure.')
    expect(soakPromise(10, 86_400)).toBe('10 drops in 24 h: 4.8 to 18.39 a day, 95 % sure.')
  })
})
