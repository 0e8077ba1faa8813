import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { choice, madeUpEdit } from '../../tests/support/made-up-changes'
import { many, start, walk } from '../../tests/support/made-up-walk'
import type { Edit } from '../change/change'
import { entityAt } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { LIST_NAMES } from '../plan/entity'
import { type Plan, planSchema } from '../plan/plan'
import { readPlan } from '../plan/read'
import { proofsOf } from '../prove/proof'
import { readers } from '../vocabulary/fields'
import { beyond, covers, RIGHTS, rightToChange } from './rights'
import { DETAILS, type Detail, planWithout } from './shown'
import { signed } from './signed'

describe('a right', () => {
  it('covers itself and what is less, and nobody without one may do anything', () => {
    for (const [at, held] of RIGHTS.entries())
      for (const [other, asked] of RIGHTS.entries()) expect(covers(held, asked)).toBe(at >= other)
    for (const asked of RIGHTS) expect(covers(null, asked)).toBe(false)
  })
  it('to look changes nothing, and to lead everything, in every list there is', () => {
    for (const list of LIST_NAMES) {
      const edits = [{ list, id: 'x', base: 1, value: null }] as Edit[]
      expect(beyond('lead', edits)).toEqual([])
      for (const held of [null, 'look'] as const) expect(beyond(held, edits)).toHaveLength(1)
      expect(beyond('work', edits)).toHaveLength(rightToChange(list) === 'lead' ? 1 : 0)
    }
  })
  it('that does not go so far says so: to whoever works there, and to whoever only looks', () => {
    const reasons = (held: 'work' | 'look' | null) =>
      beyond(held, [{ list: 'policy', id: 'policy', base: 1, value: null }] as Edit[]).map(({ reason }) => reason)
    expect(reasons('work')).toEqual(['only whoever leads this site changes that'])
    for (const held of ['look', null] as const)
      expect(reasons(held)).toEqual(['you may look at this site, not change it'])
  })
  it('is that of a lead for what a site is, goes by and handed over', () => {
    expect(LIST_NAMES.filter((list) => rightToChange(list) === 'lead').sort()).toEqual(['handovers', 'policy', 'site'])
  })
  it('is judged edit by edit: whatever is sent along, none goes through under cover of the others', () => {
    fc.assert(
      fc.property(fc.array(choice, { minLength: 1, maxLength: 8 }), fc.constantFrom(...RIGHTS), (choices, held) => {
        const edits = choices.map((each, at) => madeUpEdit(start, each, at))
        expect(beyond(held, edits).map(({ path }) => path)).toEqual(
          edits.filter(({ list }) => !covers(held, rightToChange(list))).map(({ list, id }) => `${list}/${id}`),
        )
      }),
    )
  })
})

/** Every name by which something of a value was done. */
const namesIn = (value: unknown): unknown[] =>
  typeof value !== 'object' || value === null
    ? []
    : Object.entries(value).flatMap(([key, each]) => (key === 'by' ? [each] : namesIn(each)))

describe('what somebody makes', () => {
  it('bears their name and nobody else’s but those that stood there, and is otherwise as it was sent', () => {
    fc.assert(
      fc.property(choice, (made) => {
        const edit = madeUpEdit(start, made, 1)
        const was = entityAt(start.plan, edit.list, edit.id)
        const result = signed(edit, was, 'Wim')
        const allowed = new Set<unknown>(['Wim', ...namesIn(was)])
        if (edit.list !== 'runs') for (const name of namesIn(result.value)) expect(allowed).toContain(name)
        const plain = (value: unknown) => JSON.stringify(value, (key, each) => (key === 'by' ? undefined : each))
        expect(plain(result)).toBe(plain(edit))
      }),
    )
  })
  it('leaves a colleague’s name on what is only corrected, within it as well', () => {
    const was = {
      id: 's',
      run: 'r',
      since: 'x',
      by: 'Ada',
      cleared: [{ stop: 'hot', at: 'x', by: 'Bo', how: 'let it cool' }],
    }
    const value = {
      ...was,
      cleared: [...was.cleared, { stop: 'smoke', at: 'y', by: 'Somebody Else', how: 'switched it off' }],
    }
    const edit = { list: 'searches', id: 's', base: 1, value } as unknown as Edit
    expect(namesIn(signed(edit, was as never, 'Wim').value)).toEqual(['Ada', 'Bo', 'Wim'])
    expect(namesIn(signed(edit, null, 'Wim').value)).toEqual(['Wim', 'Wim', 'Wim'])
  })
  it('says of a run what its legs go along, which is nobody', () => {
    const value = { id: 'r', route: { legs: [{ by: 'tray', length: 2 }] } }
    const edit = { list: 'runs', id: 'r', base: 1, value } as unknown as Edit
    expect(signed(edit, null, 'Wim')).toEqual(edit)
  })
})

describe('what a reader is kept from', () => {
  /** Every text of the demo that somebody wrote, and every figure that is a price, replaced by something that is easily found. */
  const SECRET = 'kept from some'
  const PRICE = 987_654.25
  const written = ['note', 'conditions', 'less', 'why', 'reason', 'saw', 'line']
  const marked = JSON.parse(
    JSON.stringify(demo, (key, value) =>
      written.includes(key) && typeof value === 'string'
        ? SECRET
        : key === 'price' || key === 'wantsPrice' || key === 'delivery' || key === 'freeFrom'
          ? PRICE
          : value,
    ),
  ) as Plan
  marked.policy.equipment = { dock: PRICE }
  for (const handover of marked.handovers) handover.open = [SECRET]
  for (const search of marked.searches) for (const stop of search.cleared ?? []) stop.how = SECRET
  for (const search of marked.searches) if (search.ended) search.ended.words = SECRET
  const [run, kind, line] = [marked.runs[0], marked.kinds[0], marked.orderLines[0]]
  if (run) run.waits = { why: SECRET, on: '2026-11-30' }
  if (kind) kind.avoid = { why: SECRET, on: '2026-11-30' }
  if (line) line.back = [{ on: '2026-11-30', count: 1, why: SECRET }]
  const place = marked.places[0]
  if (place) place.photos = [{ file: '0'.repeat(64), note: SECRET }]

  it.each([
    [['prices'], [String(PRICE)], [SECRET]],
    [['notes'], [SECRET], [String(PRICE)]],
    [['prices', 'notes'], [SECRET, String(PRICE)], []],
    [[], [], [SECRET, String(PRICE)]],
  ] as [Detail[], string[], string[]][])('%j is nowhere in what they get, and the rest is', (hidden, gone, left) => {
    const text = JSON.stringify(planWithout(marked, hidden))
    // the plan itself is too long to be printed where it is wrong
    for (const each of gone) expect(text.includes(each), `${each} is told`).toBe(false)
    for (const each of left) expect(text.includes(each), `${each} is not told`).toBe(true)
  })
  it('is marked on every text and price there is in a plan', () => {
    const unmarked: string[] = []
    const known = new Set<z.ZodType>()
    const look = (schema: z.ZodType, path: string): void => {
      if (known.has(schema)) return
      known.add(schema)
      if (readers.get(schema)) return
      const { type } = schema.def
      if (type === 'string') unmarked.push(path)
      // a schema holds others in what defines it, whichever sort it is
      for (const [name, held] of Object.entries(schema.def)) {
        const parts = name === 'shape' ? Object.entries(held as object) : [[name, held] as const]
        for (const [part, each] of parts.flatMap(([part, value]) =>
          Array.isArray(value) ? value.map((one, at) => [`${part}.${at}`, one] as const) : [[part, value] as const],
        ))
          if (each instanceof z.ZodType) look(each, `${path}/${part}`)
      }
    }
    look(planSchema, 'plan')
    expect(unmarked).toEqual([])
    expect(known.size).toBeGreaterThan(300)
  })
  it('is told to be there where that it is there decides something', () => {
    const seen = {
      id: 'o-1',
      at: '2026-11-30T10:00:00.000Z',
      subject: { run: 'r-01', leads: [] },
      kind: 'accepted' as const,
      what: 'accepted' as const,
      less: 'the client wants it today',
      conditions: 'not for VR',
    }
    const { conditions: _, ...kept } = { ...seen, less: 'not shown' }
    expect(planWithout({ ...start.plan, observations: [seen] }, ['notes']).observations).toEqual([kept])
  })
  it('leaves as it is whatever holds nothing of it', () => {
    const { plan } = start
    const shown = planWithout(plan, ['notes'])
    for (const [at, place] of plan.places.entries())
      if (!JSON.stringify(place).includes('"note"')) expect(shown.places[at]).toBe(place)
  })
  it('keeps of a search what was dealt with and how it ended, without the words', () => {
    const [search] = start.plan.searches
    if (!search) throw new Error('the demo has searches')
    const told = {
      ...search,
      cleared: [{ stop: 'hot' as const, at: search.since, by: 'Wim', how: 'let it cool on the sill' }],
      ended: { at: search.since, by: 'Wim', how: 'found' as const, words: 'the grey lead on the sill', odds: 0.97 },
    }
    const [shown] = planWithout({ ...start.plan, searches: [told] }, ['notes']).searches
    expect(shown).toEqual({
      ...told,
      cleared: [{ stop: 'hot', at: search.since, by: 'Wim', how: 'not shown' }],
      ended: { at: search.since, by: 'Wim', how: 'found', odds: 0.97 },
    })
    const { cleared: _, ended: __, ...open } = told
    expect(planWithout({ ...start.plan, searches: [open] }, ['notes']).searches).toEqual([open])
  })
  it('leaves a whole plan with the same verdicts, whatever was changed', () => {
    fc.assert(
      fc.property(many, fc.subarray([...DETAILS]), (changes, hidden) => {
        walk(changes, (_, { plan }) => {
          const shown = planWithout(plan, hidden)
          expect(readPlan(JSON.parse(JSON.stringify(shown)))).toMatchObject({ ok: true })
          const graded = (each: Plan) => {
            const site = assessAnew(each)
            const proofs = [...proofsOf(site).values()].map(({ state, accepted, outdated }) => [
              state,
              Boolean(accepted?.less),
              accepted?.waived,
              outdated,
            ])
            return [site.assessment.runs.map(({ grade }) => grade), proofs]
          }
          expect(graded(shown)).toEqual(graded(plan))
        })
      }),
      { numRuns: cases(15) },
    )
  })
})
