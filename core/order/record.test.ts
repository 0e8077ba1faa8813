import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo as whole } from '../../tests/support/demo-plan'
import { took } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import type { Copy } from '../change/change'
import { sendBack, sendOrder, tagArrived, takeArrival, takeOrder } from '../change/changes/orders'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import type { CableGrade } from '../standards/grades'
import { countsOf, type OrderLine, toCome, waitingToTag } from '../vocabulary/order'
import { finished } from '../work/in-slices'
import { articlesOf, missingParts } from './articles'
import { choicesOf, wantingRuns } from './choices'
import { addDays, daysFrom } from './days'
import { deliveredBy } from './delivery'
import { lineState, trialOf } from './follow'
import { kindsDone, together } from './kind-record'
import { differencesOf } from './unpacked'
import { waited } from './waiting'

const shop = { id: 'shop', name: 'Pier supply', leadDays: 3, returnDays: 14 }
const kind = whole.kinds.find(({ id }) => id === 'kind-c-40')
if (!kind) throw new Error('the demo has this kind')
const demo: Plan = { ...whole, suppliers: [shop], offers: [], orders: [], orderLines: [] }
let written = 0
const witness = {
  at: '2026-11-23T09:00:00.000Z',
  by: 'tester',
  newId: () => {
    written += 1
    return `w-${written}`
  },
}
const lineIn = (copy: Copy, at = 0): OrderLine => copy.plan.orderLines[at] as OrderLine

/** So many of a kind, ordered on a day. */
function ordered(count: number, on = '2026-11-20', part?: 'try'): Copy {
  const planned = took(
    copyOf(demo),
    takeOrder(demo, 1, {
      runs: [],
      lines: [
        {
          supplier: 'shop',
          kind: 'kind-c-40',
          length: 0.8,
          count,
          price: 9,
          ...(part ? { part, decide: '2026-12-01' } : {}),
        },
      ],
    }),
  )
  const [order] = planned.plan.orders
  if (!order) throw new Error('an order is planned')
  const promised = new Map([[lineIn(planned).id, addDays(on, 3)]])
  return took(planned, sendOrder(planned.plan, planned.place, order, { on, promised }))
}
const come = (copy: Copy, on: string, count: number): Copy =>
  took(copy, takeArrival(copy.plan, copy.place, lineIn(copy), { on, count }))

describe('how a supplier has delivered', () => {
  it('is counted from the order to the last piece, and is late by the day it was promised for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 20 }), (first, more) => {
        const half = come(ordered(2), addDays('2026-11-20', first), 1)
        expect(deliveredBy(half.plan, 'shop')).toMatchObject({ lines: 0, here: 1 })
        const last = addDays('2026-11-20', first + more)
        const all = come(half, last, 1)
        const days = daysFrom('2026-11-20', last)
        expect(deliveredBy(all.plan, 'shop')).toEqual({
          lines: 1,
          least: days,
          most: days,
          mean: days,
          late: days > 3 ? 1 : 0,
          promised: 1,
          back: 0,
          here: 2,
        })
      }),
    )
    expect(deliveredBy(ordered(1).plan, 'shop')).toBeNull()
  })
})

describe('what comes in the place of what went back', () => {
  it('is waited for, and the line is whole again once it is here', () => {
    let copy = come(ordered(2), '2026-11-22', 2)
    copy = took(
      copy,
      sendBack(copy.plan, copy.place, lineIn(copy), { on: '2026-11-23', count: 1, cables: [], replaced: true }),
    )
    expect(toCome(lineIn(copy))).toBe(3)
    expect(lineState(lineIn(copy), { ordered: '2026-11-20' })).toBe('partly here')
    copy = come(copy, '2026-11-25', 1)
    expect(countsOf(lineIn(copy))).toMatchObject({ here: 3, back: 1 })
    expect(waitingToTag(lineIn(copy))).toBe(2)
    expect(
      applyChange(copy, {
        edits: takeArrival(copy.plan, copy.place, lineIn(copy), { on: '2026-11-26', count: 1 }).edits,
      }).outcome,
    ).toBe('refused')
  })
})

describe('what is unpacked', () => {
  it.each([
    [0.8, undefined, undefined, []],
    [0.784, undefined, undefined, []],
    [0.78, undefined, undefined, ['shorter']],
    [0.8, 'usb4-40', undefined, []],
    [0.8, 'gen2', undefined, ['marked less']],
    [0.8, null, undefined, ['marked less']],
    [0.8, 'usb4-80', 'no supply in the box', ['as somebody says']],
    [0.5, 'usb2', 'one end is A', ['shorter', 'marked less', 'as somebody says']],
  ] as const)('%s m, marked %s, %s: %j', (length, mark, differs, is) => {
    const here = come(ordered(1), '2026-11-22', 1)
    const unpacked = {
      lengths: [length],
      ...(mark === undefined ? {} : { mark: mark as CableGrade | null }),
      ...(differs === undefined ? {} : { differs }),
    }
    const tagged = took(here, tagArrived(here.plan, here.place, lineIn(here), unpacked, witness))
    expect(differencesOf(indexPlan(tagged.plan), lineIn(tagged)).map((each) => each.is)).toEqual(is)
    // what went back is nobody's trouble any more
    const cables = lineIn(tagged).tagged ?? []
    const gone = took(
      tagged,
      sendBack(tagged.plan, tagged.place, lineIn(tagged), { on: '2026-11-24', count: 1, cables }),
    )
    expect(differencesOf(indexPlan(gone.plan), lineIn(gone))).toEqual([])
  })
})

describe('an order that waits for samples', () => {
  const tried = (cameUp: 'usb4-40' | 'gen2x1' | null) => {
    const here = come(ordered(1, '2026-11-20', 'try'), '2026-11-22', 1)
    const tagged = took(here, tagArrived(here.plan, here.place, lineIn(here), {}, witness))
    const [cable = ''] = lineIn(tagged).tagged ?? []
    const observation = {
      id: 'seen-here',
      at: witness.at,
      subject: { cable },
      kind: 'trial' as const,
      basis: 'measured' as const,
      tried: 'usb4-40' as const,
      cameUp,
      seconds: 120,
    }
    return {
      tagged,
      after: took(tagged, {
        what: { name: 'write down', about: [] },
        edits: [{ list: 'observations', id: 'seen-here', base: null, value: observation }],
      }),
    }
  }
  const state = (copy: Copy) => trialOf(indexPlan(copy.plan), { after: [lineIn(copy).id] })
  it('is open until one is tried, then passed or failed', () => {
    expect(trialOf(indexPlan(demo), {})).toBeNull()
    expect(state(ordered(1, '2026-11-20', 'try'))).toBe('open')
    expect(state(tried('usb4-40').tagged)).toBe('open')
    expect(state(tried('usb4-40').after)).toBe('passed')
    expect(state(tried('gen2x1').after)).toBe('failed')
    expect(state(tried(null).after)).toBe('failed')
  })
})

describe('a run that waits for a lead that is not sold yet', () => {
  const [first] = wantingRuns(assessAnew(demo))
  const waits = { why: 'a longer passive lead', on: '2026-11-01' }
  const waiting = (plan: Plan): Plan => ({
    ...plan,
    runs: plan.runs.map((run) => (run.id === first ? { ...run, waits } : run)),
  })
  it('is not decided for, and is told once the catalogue makes it clear', () => {
    for (const run of wantingRuns(assessAnew(demo))) {
      const one = (plan: Plan): Plan => ({
        ...plan,
        runs: plan.runs.map((each) => (each.id === run ? { ...each, waits } : each)),
      })
      const bare = assessAnew(one({ ...demo, kinds: demo.kinds.map((each) => ({ ...each, stock: [] })) }))
      expect(wantingRuns(bare)).not.toContain(run)
      expect(waited(bare)).toMatchObject([{ run: { id: run }, now: null }])
      const [now] = waited(assessAnew(one(demo)))
      const choices = finished(choicesOf(assessAnew(demo), [run], 1)).flatMap((each) => each.choices)
      // as the order would have it: what it would buy and call clear is what has come
      const sold = choices.some(
        ({ grade, articles, cables, leads, setUp }) =>
          grade === 'clear' && articles.length === 1 && cables.length === 0 && leads.length === 1 && !setUp,
      )
      expect(now?.now !== null).toBe(sold)
    }
    expect(waited(assessAnew(waiting(demo)))).toHaveLength(1)
  })
})

describe('parts that are not in the box', () => {
  it('are those it needs and does not bring, whatever their letters, and are in its price once', () => {
    expect(missingParts({ wants: ['12 V supply', 'ties'], includes: ['Ties'] })).toEqual(['12 V supply'])
    const wants = ['12 V supply']
    const plan = (more: object): Plan => ({
      ...demo,
      kinds: demo.kinds.map((each) => (each.id === 'kind-c-40' ? { ...each, ...more } : each)),
    })
    const extra = (more: object) =>
      [...articlesOf(indexPlan(plan(more))).values()].find(({ kind: { id } }) => id === 'kind-c-40')?.extra
    expect(extra({ wants, wantsPrice: 9 })).toBe(9)
    expect(extra({ wants, wantsPrice: 9, includes: wants })).toBe(0)
    expect(extra({ wantsPrice: 9 })).toBe(0)
    expect(extra({ wants })).toBe(0)
  })
})

it('what kinds did on several sites adds up, by their names', () => {
  const here = kindsDone(indexPlan(demo))
  expect(here.size).toBeGreaterThan(0)
  const both = together([here, here])
  for (const [name, { tried, held, hot }] of here)
    expect(both[name]).toMatchObject({ sites: 2, tried: 2 * tried, held: 2 * held, hot: 2 * hot })
  for (const { tried, held } of here.values()) expect(held).toBeLessThanOrEqual(tried)
})

it('of two who plan an order from the same page one is told, and nothing of the other is lost', () => {
  const [run] = demo.runs
  if (!run) throw new Error('the demo has runs')
  const decided = (length: number) => ({
    runs: [{ run: run.id, leads: [{ kind: 'kind-c-40', length, reversed: false }] }],
    lines: [{ supplier: 'shop', kind: 'kind-c-40', length, count: 1, price: 9 }],
  })
  const copy = copyOf(demo)
  const one = takeOrder(copy.plan, copy.place, decided(0.8))
  const two = takeOrder(copy.plan, copy.place, decided(0.5))
  const first = took(copy, one)
  expect(applyChange(first, { edits: two.edits }).outcome).toBe('conflict')
  expect(first.plan.orderLines).toMatchObject([{ length: 0.8, runs: [run.id] }])
  expect(byId(first.plan.runs).get(run.id)?.leads).toEqual(decided(0.8).runs[0]?.leads)
})
