import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { start } from '../../tests/support/made-up-walk'
import type { Entity } from '../plan/entity'
import { type Edit, entityKey } from './change'
import { changesNothing, mergeFields, rebase, same } from './merge'
import { touchedBetween } from './touched'

type Fields = Record<string, unknown>
const merge = (was: Fields, mine: Fields, theirs: Fields, list: 'runs' | 'devices' = 'devices') =>
  mergeFields(list, was as Entity, mine as Entity, theirs as Entity) as unknown as {
    value: Fields
    mine: Fields
    fields: string[]
  }

const word = fc.constantFrom('a', 'b', 'c')
const flat = fc.record({ name: word, note: word, kind: word }, { requiredKeys: [] }) as fc.Arbitrary<Fields>
const port = fc.record({ id: fc.constantFrom('p', 'q', 'r'), name: word, usb: word }, { requiredKeys: ['id', 'name'] })
const device = fc
  .tuple(flat, fc.uniqueArray(port, { maxLength: 3, selector: ({ id }) => id }))
  .map(([fields, ports]): Fields => ({ ...fields, ports }))
const run = fc.tuple(flat, flat).map(([fields, route]): Fields => ({ ...fields, route }))
const bare = (fields: Fields): Fields =>
  Object.fromEntries(Object.entries(fields).filter(([, each]) => each !== undefined))

describe('two versions of one thing', () => {
  it('come to the one that was changed where only one was, and to either where both were alike', () => {
    fc.assert(
      fc.property(fc.oneof(device, run), fc.oneof(device, run), (was, changed) => {
        for (const { value, mine, fields } of [
          merge(was, changed, was, 'runs'),
          merge(was, was, changed, 'runs'),
          merge(was, changed, changed, 'runs'),
        ]) {
          expect(value).toEqual(changed)
          expect(mine).toEqual(changed)
          expect(fields).toEqual([])
        }
      }),
    )
  })
  it('clash in the same fields whoever is first, and what one sees as theirs the other sees as their own', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('runs', 'devices'),
        fc.constantFrom(device, run).chain((each) => fc.tuple(each, each, each)),
        (list, [was, one, other]) => {
          const [forth, back] = [merge(was, one, other, list), merge(was, other, one, list)]
          expect(forth.fields.toSorted()).toEqual(back.fields.toSorted())
          // in which order things stand is for whoever is first
          const sorted = ({ ports, ...fields }: Fields) => ({
            ...fields,
            ports: [...((ports as { id: string }[] | undefined) ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1)),
          })
          expect(sorted(forth.value)).toEqual(sorted(back.mine))
        },
      ),
    )
  })
  it('are told apart field by field, and those of a route by their own names', () => {
    fc.assert(
      fc.property(run, run, run, (was, mine, theirs) => {
        const told = merge(was, mine, theirs, 'runs')
        const clashes: string[] = []
        const settle = (before: Fields, ours: Fields, others: Fields, prefix: string, winner: 'mine' | 'theirs') => {
          const settled: Fields = {}
          for (const name of ['name', 'note', 'kind']) {
            const [old, own, other] = [before[name], ours[name], others[name]]
            const only = own === old ? other : other === old || own === other ? own : undefined
            const both = own !== old && other !== old && own !== other
            if (both && winner === 'theirs') clashes.push(`${prefix}${name}`)
            settled[name] = both ? (winner === 'mine' ? own : other) : only
          }
          return bare(settled)
        }
        for (const winner of ['theirs', 'mine'] as const) {
          const { route, ...fields } = winner === 'mine' ? told.mine : told.value
          expect(fields).toEqual(settle(was, mine, theirs, '', winner))
          expect(route).toEqual(
            settle(was.route as Fields, mine.route as Fields, theirs.route as Fields, 'route.', winner),
          )
        }
        expect(told.fields.toSorted()).toEqual(clashes.toSorted())
        // anywhere but at a run a field that holds fields is one
        const whole = merge(was, mine, theirs).fields.filter((name) => name.startsWith('route'))
        expect(whole.every((name) => name === 'route')).toBe(true)
      }),
    )
  })
  it('keep of a list of things what neither took away, and take what either put in', () => {
    fc.assert(
      fc.property(device, device, device, (was, mine, theirs) => {
        const told = merge(was, mine, theirs)
        const at = (fields: Fields) => new Map((fields.ports as { id: string }[]).map((each) => [each.id, each]))
        const [before, ours, others] = [at(was), at(mine), at(theirs)]
        const kept = at(told.value)
        const own = at(told.mine)
        let clashes = false
        for (const id of ['p', 'q', 'r']) {
          const [old, one, other] = [before.get(id), ours.get(id), others.get(id)]
          if (same(one, other) || same(one, old)) expect(kept.get(id)).toEqual(other)
          else if (same(other, old)) expect(kept.get(id)).toEqual(one)
          else if (!(old && one && other)) {
            // one took it away and the other changed it, or both put another one in
            clashes = true
            expect(kept.get(id)).toEqual(other)
            expect(own.get(id)).toEqual(one)
          } else {
            const inner = merge(old as Fields, one as Fields, other as Fields)
            clashes ||= inner.fields.length > 0
            expect(kept.get(id)).toEqual(inner.value)
            expect(own.get(id)).toEqual(inner.mine)
          }
        }
        expect(told.fields.includes('ports')).toBe(clashes)
        expect(kept.size).toBe((told.value.ports as unknown[]).length)
      }),
    )
  })
  it('stand in the order that one of them gave, one’s own new things behind', () => {
    const ids = (...names: string[]) => ({ ports: names.map((id) => ({ id })) })
    const order = (was: string[], mine: string[], theirs: string[]) =>
      (merge(ids(...was), ids(...mine), ids(...theirs)).value.ports as { id: string }[]).map(({ id }) => id).join('')
    expect(order(['p', 'q'], ['q', 'p'], ['p', 'q'])).toBe('qp')
    expect(order(['p', 'q'], ['p', 'q'], ['q', 'p'])).toBe('qp')
    expect(order(['p', 'q'], ['p', 'q', 'r'], ['q', 'p'])).toBe('qpr')
    expect(order(['p', 'q'], ['r', 'p', 'q'], ['p', 'q'])).toBe('rpq')
  })
})

describe('equal as JSON', () => {
  it('is every value to itself, whatever the order of its fields, and to nothing else', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (one, other) => {
        expect(same(one, structuredClone(one))).toBe(true)
        const sorted = (value: unknown): unknown =>
          Array.isArray(value)
            ? value.map(sorted)
            : typeof value === 'object' && value !== null
              ? Object.fromEntries(
                  Object.entries(value)
                    .sort(([a], [b]) => (a < b ? -1 : 1))
                    .map(([key, each]) => [key, sorted(each)]),
                )
              : value
        expect(same(one, other)).toBe(JSON.stringify(sorted(one)) === JSON.stringify(sorted(other)))
        expect(same(one, other)).toBe(same(other, one))
      }),
    )
    expect(same({ a: 1, b: undefined }, { a: 1 })).toBe(true)
    expect([same([1], { 0: 1 }), same([1, 2], [1]), same(null, {}), same([], {}), same('', 0)]).not.toContain(true)
  })
})

describe('an edit from an older copy', () => {
  const place = start.plan.places[0]
  if (!place) throw new Error('the demo has places')
  const was = { ...place, name: 'as it was' }
  /** The site at place 5, where the place was changed last at 3, from `was` to what stands there. */
  const copy = {
    ...start,
    place: 5,
    revisions: new Map(start.revisions).set(entityKey('places', place.id), 3),
  }
  const edit = (value: Entity | null, base: number | null): Edit =>
    ({ list: 'places', id: place.id, base, value }) as Edit
  const mine = { ...was, mains: 'none' as const }
  const told = (made: Edit, old: Entity | null = was as Entity, over: number | null = null) =>
    rebase(copy as typeof start, [made], () => old, over)
  it('that is new, or from where the thing was changed last, stays as it is', () => {
    for (const made of [edit(mine as Entity, null), edit(mine as Entity, 3), edit(mine as Entity, 4)])
      expect(told(made)).toEqual({ edits: [made], clashes: [] })
  })
  it('is brought up to this one where the fields differ, and clashes where one was changed by both', () => {
    expect(told(edit(mine as Entity, 2))).toEqual({
      edits: [edit({ ...place, mains: 'none' } as Entity, 5)],
      clashes: [],
    })
    const both = { ...was, name: 'mine' }
    expect(told(edit(both as Entity, 2))).toEqual({
      edits: [edit(both as Entity, 2)],
      clashes: [{ list: 'places', id: place.id, fields: ['name'], mine: both, theirs: place }],
    })
    // seen, and to be written over: up to the place that was seen and no further
    expect(told(edit(both as Entity, 2), was as Entity, 3)).toEqual({
      edits: [edit({ ...place, name: 'mine' } as Entity, 5)],
      clashes: [],
    })
    expect(told(edit(both as Entity, 2), was as Entity, 2).clashes).toHaveLength(1)
  })
  it('that takes away clashes with what was changed since, and not with what came to the same', () => {
    expect(told(edit(null, 2)).clashes).toEqual([
      { list: 'places', id: place.id, fields: [], mine: null, theirs: place },
    ])
    expect(told(edit(null, 2), place as Entity)).toEqual({ edits: [edit(null, 5)], clashes: [] })
    expect(told(edit(null, 2), null).clashes).toHaveLength(1)
    expect(told(edit(null, 2), null, 3)).toEqual({ edits: [edit(null, 5)], clashes: [] })
  })
  it('of something that nobody can say how it was clashes', () => {
    expect(told(edit(mine as Entity, 2), null).clashes).toHaveLength(1)
    expect(told(edit(mine as Entity, 2), null, 3)).toEqual({ edits: [edit(mine as Entity, 5)], clashes: [] })
  })
  it('of what is gone stays, and makes it anew where that was seen', () => {
    const gone = { ...edit(mine as Entity, 2), id: 'gone' } as Edit
    expect(told(gone)).toEqual({ edits: [gone], clashes: [] })
    expect(told(gone, was as Entity, 3)).toEqual({ edits: [{ ...gone, base: null }], clashes: [] })
    const fresh = { ...gone, base: null } as Edit
    expect(told(fresh, was as Entity, 3)).toEqual({ edits: [fresh], clashes: [] })
  })
  it('changes nothing where it leaves the thing as it stands, without a place of its own', () => {
    expect(changesNothing(copy as typeof start, edit({ ...place } as Entity, 3))).toBe(true)
    expect(changesNothing(copy as typeof start, edit(mine as Entity, 3))).toBe(false)
    expect(changesNothing(copy as typeof start, { ...edit(null, 3), id: 'gone' } as Edit)).toBe(true)
    expect(changesNothing(copy as typeof start, { ...edit({ ...place } as Entity, 3), before: null } as Edit)).toBe(
      false,
    )
  })
})

describe('what two plans differ in', () => {
  const { plan } = start
  const [first, second, ...rest] = plan.places
  if (!first || !second) throw new Error('the demo has places')
  const differs = (places: typeof plan.places) => touchedBetween(plan, { ...plan, places })
  it('is nothing of one, and what came, went or is another value', () => {
    expect(touchedBetween(plan, plan)).toEqual([])
    expect(differs([...plan.places])).toEqual([])
    const other = { ...first, name: 'another' }
    expect(differs([other, second, ...rest])).toEqual([{ list: 'places', id: first.id }])
    expect(differs([second, ...rest])).toEqual([{ list: 'places', id: first.id }])
    const fresh = { ...first, id: 'fresh' }
    expect(differs([...plan.places, fresh])).toEqual([{ list: 'places', id: 'fresh' }])
    expect(differs([fresh, second, ...rest]).toSorted((a, b) => (a.id < b.id ? -1 : 1))).toEqual(
      [
        { list: 'places', id: 'fresh' },
        { list: 'places', id: first.id },
      ].toSorted((a, b) => (a.id < b.id ? -1 : 1)),
    )
  })
  it('is what stands elsewhere among those that stayed, but not of what was seen, whose order is its moments', () => {
    expect(differs([second, first, ...rest])).toEqual([
      { list: 'places', id: second.id, moved: true },
      { list: 'places', id: first.id, moved: true },
    ])
    const [one, two, ...others] = plan.observations
    if (!one || !two) throw new Error('the demo has seen something')
    expect(touchedBetween(plan, { ...plan, observations: [two, one, ...others] })).toEqual([])
  })
})
