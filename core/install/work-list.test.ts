import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many, took } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { bringUp, installRun, leadsByTags, takeOutRun } from '../change/changes/install'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { observationsOf } from '../observe/learned'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import { laidCables } from '../vocabulary/run'
import { laidAt, runsToLay, workList } from './work-list'

let written = 0
const witnessAt = (at: string) => ({
  at,
  by: 'Ada',
  newId: () => {
    written += 1
    return `l-${written}`
  },
})
const NOON = '2026-11-29T12:00:00.000Z'
const runIn = (plan: Plan, id: string) => {
  const run = byId(plan.runs).get(id)
  if (!run) throw new Error(`no run ${id}`)
  return run
}
const listOf = (plan: Plan) => {
  const { index, assessment } = assessAnew(plan)
  return workList(index, assessment)
}
const lay = (copy: Copy, id: string, at = NOON): Copy => {
  const run = runIn(copy.plan, id)
  return took(copy, installRun(copy.plan, copy.place, run, { leads: run.leads, length: null }, witnessAt(at)))
}

describe('the work list', () => {
  it('has every run with a lead once, whatever the site, at the place of its host end; and names it again where it comes out elsewhere', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        const stops = listOf(plan)
        const jobs = stops.flatMap((stop) => stop.jobs.map(({ run }) => run.id))
        const led = plan.runs.filter(({ leads }) => leads.length > 0).map(({ id }) => id)
        expect(jobs.toSorted()).toEqual(led.toSorted())
        for (const { place, jobs: own, ends } of stops) {
          for (const { run } of own) expect(byId(plan.devices).get(run.from.device)?.place).toBe(place?.id)
          for (const { run } of ends) {
            expect(byId(plan.devices).get(run.to.device)?.place).toBe(place?.id)
            expect(byId(plan.devices).get(run.from.device)?.place).not.toBe(place?.id)
          }
        }
        const waiting = runsToLay(indexPlan(plan)).map(({ id }) => id)
        for (const id of waiting) expect(runIn(plan, id).leads.every((lead) => 'cable' in lead)).toBe(true)
      }),
      { numRuns: cases(40) },
    )
  })
  it('says where a supply goes, which way an arrow points, and the slack at each end', () => {
    const jobs = listOf(demo).flatMap((stop) => stop.jobs)
    for (const { run, leads, slack } of jobs) {
      const span = leads.reduce((sum, { length }) => sum + length, 0)
      expect(2 * slack).toBeCloseTo(Math.max(0, span - run.route.length), 9)
      for (const [at, lead] of run.leads.entries()) {
        const cable = 'cable' in lead ? byId(demo.cables).get(lead.cable) : undefined
        if (!cable) continue
        expect(leads[at]).toMatchObject({ oneWay: cable.oneWay, tag: cable.tag, atHand: true })
        expect(leads[at]?.feed === null).toBe(cable.feed === 'bus')
      }
    }
  })
})

it.each([
  ['far', false, 'device'],
  ['far', true, 'host'],
  ['host', false, 'host'],
  ['host', true, 'device'],
] as const)('a lead fed at its %s end, turned round %s, wants its supply at the %s end', (feedEnd, reversed, at) => {
  const [run] = runsToLay(indexPlan(demo))
  const [cable] = run ? laidCables(run) : []
  const plan: Plan = {
    ...demo,
    cables: demo.cables.map((each) => (each.id === cable ? { ...each, feed: 'required', feedEnd } : each)),
    runs: demo.runs.map((each) =>
      each.id === run?.id ? { ...each, leads: [{ cable: cable ?? '', reversed }] } : each,
    ),
  }
  const job = listOf(plan)
    .flatMap((stop) => stop.jobs)
    .find((each) => each.run.id === run?.id)
  expect(job?.leads[0]?.feed).toEqual({ at, needed: true })
})

describe('what is laid', () => {
  const [first, second] = runsToLay(indexPlan(demo))
  if (!first || !second) throw new Error('the demo has runs to lay')
  const start = copyOf(demo)
  it('lies from then on, until its leads are taken out or others lie there', () => {
    const before = runsToLay(indexPlan(demo)).length
    const laid = lay(start, first.id)
    expect(laidAt(indexPlan(laid.plan), runIn(laid.plan, first.id))).toEqual({ at: NOON, by: 'Ada' })
    expect(runsToLay(indexPlan(laid.plan))).toHaveLength(before - 1)
    const out = took(laid, takeOutRun(runIn(laid.plan, first.id), witnessAt('2026-11-29T12:00:01.000Z')))
    expect(laidAt(indexPlan(out.plan), runIn(out.plan, first.id))).toBeNull()
    const again = lay(out, first.id, '2026-11-29T12:00:02.000Z')
    expect(runsToLay(indexPlan(again.plan))).toHaveLength(before - 1)
    // with another lead it is another run
    const free = demo.cables.find(
      ({ id, standing }) => standing === 'drawer' && !demo.runs.some((run) => laidCables(run).includes(id)),
    )
    const run = runIn(laid.plan, first.id)
    const other = took(laid, {
      what: { name: 'change run', about: [] },
      edits: [
        {
          list: 'runs',
          id: run.id,
          base: laid.place,
          value: { ...run, leads: [{ cable: free?.id ?? '', reversed: false }] },
        },
      ],
    })
    expect(laidAt(indexPlan(other.plan), runIn(other.plan, first.id))).toBeNull()
  })
  it('undone, it does not lie', () => {
    const made = installRun(start.plan, start.place, first, { leads: first.leads, length: null }, witnessAt(NOON))
    const applied = applyChange(start, { edits: made.edits })
    if (applied.outcome !== 'applied') throw new Error('it applies')
    const undone = applyChange(applied.copy, { edits: applied.inverse, undoes: 'x' })
    expect(undone.outcome === 'applied' && undone.copy.plan).toEqual(start.plan)
  })
  it('with another lead and length the plan follows, and the lead comes out of the run where it was planned', () => {
    const leads = leadsByTags(
      start.plan,
      first,
      laidCables(second).map((id) => byId(demo.cables).get(id)?.tag ?? ''),
    )
    if ('unknown' in leads) throw new Error('these tags are known')
    const laid = took(
      start,
      installRun(start.plan, start.place, first, { leads, length: first.route.length + 1 }, witnessAt(NOON)),
    )
    const run = runIn(laid.plan, first.id)
    expect(laidCables(run)).toEqual(laidCables(second))
    expect(run.route.length).toBeCloseTo(first.route.length + 1)
    expect(runIn(laid.plan, second.id).leads).toEqual([])
    expect(laidAt(indexPlan(laid.plan), run)).not.toBeNull()
    expect(leadsByTags(start.plan, first, ['C-9999'])).toEqual({ unknown: 'C-9999' })
  })
  it('brought up part by part, what broke it is written down of the run as it lies', () => {
    const after = took(start, bringUp(first, 'C-0021', witnessAt(NOON)))
    const seen = observationsOf(after.plan, { run: first.id }).at(-1)
    expect(seen).toMatchObject({ kind: 'symptom', saw: 'Brought up part by part: it broke when C-0021 was added' })
  })
})
