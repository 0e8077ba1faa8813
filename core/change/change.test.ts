import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import type { Entities, ListName } from '../plan/entity'
import { planLists } from '../plan/lists'
import type { Port } from '../vocabulary/device'
import { applyChange } from './apply'
import type { Copy, Edit } from './change'
import { deleteCables, standCables, whatHolds } from './changes/cables'
import { takeBack, writeDown } from './changes/observations'
import { deleteRun, saveRun } from './changes/run'
import { copyOf, entityAt } from './copy'
import { mergeFields, rebase } from './merge'
import { CHANGE_NAMES, changeWords } from './words'

const start = copyOf(demo)
const get = <List extends ListName>(copy: Copy, list: List, id: string): Entities[List] => {
  const entity = entityAt(copy.plan, list, id)
  if (!entity) throw new Error(`no ${list}/${id}`)
  return entity
}
const runEdit = (copy: Copy, more: object, base = copy.place, id = 'r-01'): Edit => ({
  list: 'runs',
  id,
  base,
  value: { ...get(copy, 'runs', id), ...more },
})
const must = (copy: Copy, edits: Edit[], undoes?: string): Copy => {
  const applied = applyChange(copy, { edits, ...(undoes ? { undoes } : {}) })
  if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
  return applied.copy
}
const outcomeOf = (copy: Copy, ...edits: Edit[]) => applyChange(copy, { edits })

describe('a change', () => {
  it('made from an older state of the same thing is a conflict; of another thing it is not', () => {
    const later = must(start, [runEdit(start, { note: 'first' })])
    expect(outcomeOf(later, runEdit(start, { note: 'second' }, 1))).toMatchObject({
      outcome: 'conflict',
      clashes: [{ list: 'runs', id: 'r-01', theirs: { note: 'first' } }],
    })
    expect(outcomeOf(later, runEdit(start, { note: 'second' }, 1, 'r-02')).outcome).toBe('applied')
  })
  it.each([
    ['the future', 99],
    ['nothing', 0],
    ['half a place', 1.5],
    ['a place that is no number', Number.NaN],
  ])('made from %s is refused', (_what, base) => {
    expect(outcomeOf(start, runEdit(start, { note: 'x' }, base))).toMatchObject({ outcome: 'refused' })
  })
  it('of something that is gone, or of something new that is there, is a conflict', () => {
    const gone: Edit = {
      list: 'cables',
      id: 'nothing',
      base: 1,
      value: { ...get(start, 'cables', 'c-0001'), id: 'nothing' },
    }
    expect(outcomeOf(start, gone)).toMatchObject({ outcome: 'conflict', clashes: [{ theirs: null }] })
    expect(outcomeOf(start, { ...runEdit(start, {}), base: null })).toMatchObject({ outcome: 'conflict' })
  })
  it.each<[string, Edit, string]>([
    [
      'a name of three spaces',
      { list: 'places', id: 'p', base: null, value: { id: 'p', name: '   ', mains: true } },
      'a name cannot be empty',
    ],
    [
      'a tab in a controller as pasted from a spreadsheet',
      {
        list: 'devices',
        id: 'd',
        base: null,
        value: {
          id: 'd',
          name: 'D',
          kind: 'computer',
          busPowered: false,
          ports: [
            { id: 'p', name: 'p', connector: 'type-c', gender: 'socket', role: 'host', controller: 'left\tside' },
          ],
        },
      },
      'no control characters',
    ],
    [
      'a time that is none',
      {
        list: 'observations',
        id: 'o',
        base: null,
        value: {
          id: 'o',
          at: '2026-01-01T00:00:00Z',
          subject: { cable: 'c-0001' },
          kind: 'trial',
          basis: 'soaked',
          tried: 'usb2',
          cameUp: null,
          seconds: 99_999_999_999,
        },
      },
      '10000000',
    ],
    ['an id that changes on the way', { ...runEdit(start, {}), id: 'r-02' }, 'an id stays what it is'],
    ['a device that a run needs', { list: 'devices', id: 'gallery-dock', base: 1, value: null }, 'still needs it'],
    ['the policy itself', { list: 'policy', id: 'policy', base: 1, value: null }, 'a site has it always'],
    ['a list nobody knows', { list: 'rooms', id: 'x', base: null, value: null } as never, 'there is no list'],
  ])('that would leave %s is refused, and says why', (_what, edit, reason) => {
    const refused = outcomeOf(start, edit)
    expect(refused.outcome).toBe('refused')
    expect(JSON.stringify(refused)).toContain(reason)
  })
  it('that changes one thing twice is refused', () => {
    expect(outcomeOf(start, runEdit(start, { note: 'a' }), runEdit(start, { note: 'b' })).outcome).toBe('refused')
  })
  it('may hand tags on from one cable to another', () => {
    const swap = [
      ['c-0001', 'C-0002'],
      ['c-0002', 'C-0001'],
    ].map(([id = '', tag = '']): Edit => ({ list: 'cables', id, base: 1, value: { ...get(start, 'cables', id), tag } }))
    expect(get(must(start, swap), 'cables', 'c-0001').tag).toBe('C-0002')
    expect(outcomeOf(start, swap[0] as Edit)).toMatchObject({ outcome: 'refused' })
  })
  it('never gives two things tags that a person reads as one, however they are written', () => {
    const tagged = (tag: string): Edit => ({
      list: 'cables',
      id: 'c-0001',
      base: 1,
      value: { ...get(start, 'cables', 'c-0001'), tag },
    })
    const accented = must(start, [
      { ...tagged('Caf\u00e9'), id: 'c-0002', value: { ...get(start, 'cables', 'c-0002'), tag: 'Caf\u00e9' } },
    ])
    expect(outcomeOf(accented, tagged('cafe\u0301')).outcome).toBe('refused')
    expect(outcomeOf(accented, tagged('CAF\u00c9')).outcome).toBe('refused')
    expect(outcomeOf(accented, tagged('Cafe')).outcome).toBe('applied')
  })
  it('beyond what a site may hold is refused', () => {
    const place = (at: number): Edit => ({
      list: 'places',
      id: `p${at}`,
      base: null,
      value: { id: `p${at}`, name: 'P', mains: true },
    })
    const room = planLists.places.most - demo.places.length
    expect(outcomeOf(start, ...Array.from({ length: room }, (_, at) => place(at))).outcome).toBe('applied')
    expect(outcomeOf(start, ...Array.from({ length: room + 1 }, (_, at) => place(at)))).toMatchObject({
      outcome: 'refused',
    })
  })
})

describe('what was observed', () => {
  const [seen] = demo.observations
  if (!seen) throw new Error('nothing was observed')
  const witness = { at: '2026-11-25T10:00:00.000Z', by: 'Ada', newId: () => 'back' }
  it('is added and never changed or taken away by itself', () => {
    expect(outcomeOf(start, { list: 'observations', id: seen.id, base: 1, value: seen })).toMatchObject({
      outcome: 'refused',
    })
    expect(outcomeOf(start, { list: 'observations', id: seen.id, base: 1, value: null })).toMatchObject({
      outcome: 'refused',
    })
  })
  it('is taken back with a reason, and undoing that makes it count again', () => {
    const { edits } = takeBack([seen], 'the wrong lead', ['C-0001'], witness)
    const applied = applyChange(start, { edits })
    if (applied.outcome !== 'applied') throw new Error('not applied')
    expect(applied.copy.plan.observations).toHaveLength(demo.observations.length + 1)
    expect(must(applied.copy, [...applied.inverse], 'x').plan).toEqual(demo)
  })
  it('goes with its cable, and comes back with it', () => {
    const free = demo.cables.find(
      (cable) =>
        whatHolds(demo, cable).length === 0 &&
        demo.observations.some(({ subject }) => 'cable' in subject && subject.cable === cable.id),
    )
    if (!free) throw new Error('no free cable')
    const applied = applyChange(start, { edits: deleteCables(demo, [free], 1).edits })
    if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
    expect(applied.copy.plan.observations.length).toBeLessThan(demo.observations.length)
    expect(must(applied.copy, [...applied.inverse], 'x').plan).toEqual(demo)
  })
  it('of something that is not there is refused', () => {
    expect(outcomeOf(start, ...writeDown([{ ...seen, id: 'n', subject: { cable: 'ghost' } }], []).edits)).toMatchObject(
      { outcome: 'refused' },
    )
  })
})

describe('two people at once', () => {
  const was = get(start, 'runs', 'r-01')
  it('who changed different fields of one run both win, also within its route', () => {
    const merge = mergeFields(
      'runs',
      was,
      { ...was, note: 'mine' },
      { ...was, tag: 'R-99', route: { ...was.route, note: 'theirs' } },
    )
    expect(merge).toMatchObject({ fields: [], value: { note: 'mine', tag: 'R-99', route: { note: 'theirs' } } })
    const both = mergeFields(
      'runs',
      was,
      { ...was, route: { ...was.route, length: 9 } },
      { ...was, route: { ...was.route, bend: 50 } },
    )
    expect(both).toMatchObject({ fields: [], value: { route: { length: 9, bend: 50 } } })
  })
  it('who changed the same field differently clash on it, and alike do not', () => {
    const clash = mergeFields('runs', was, { ...was, note: 'mine', tag: 'R-98' }, { ...was, note: 'theirs' })
    expect(clash).toMatchObject({
      fields: ['note'],
      value: { note: 'theirs', tag: 'R-98' },
      mine: { note: 'mine', tag: 'R-98' },
    })
    // things with ids of their own are merged one by one: two people at two ports of a device both stay
    const device = start.plan.devices.find(({ ports }) => ports.length > 2)
    if (!device) throw new Error('the demo has a device with three ports')
    const [one, two, ...rest] = device.ports as [Port, Port, ...Port[]]
    const extra = { ...one, id: 'extra', name: 'extra' }
    const merged = mergeFields(
      'devices',
      device,
      { ...device, ports: [{ ...one, gives: 7 }, two, ...rest, extra] },
      { ...device, ports: [one, { ...two, gives: 9 }, ...rest.slice(1)] },
    )
    expect(merged.fields).toEqual([])
    expect((merged.value as typeof device).ports).toEqual([
      { ...one, gives: 7 },
      { ...two, gives: 9 },
      ...rest.slice(1),
      extra,
    ])
    expect(
      mergeFields(
        'devices',
        device,
        { ...device, ports: [{ ...one, gives: 7 }, two, ...rest] },
        {
          ...device,
          ports: [{ ...one, gives: 8 }, two, ...rest],
        },
      ).fields,
    ).toEqual(['ports'])
    expect(mergeFields('runs', was, { ...was, note: 'same' }, { ...was, note: 'same' }).fields).toEqual([])
  })
  it('what one took out of an entity stays out where the other left it alone', () => {
    const noted = { ...was, note: 'here' }
    const { note: _, ...without } = noted
    expect(mergeFields('runs', noted, without, { ...noted, tag: 'R-99' }).value).toEqual({ ...without, tag: 'R-99' })
  })
  it('an edit from an older copy is brought up to this one, or clashes; and writes over only what was seen', () => {
    const later = must(start, [runEdit(start, { note: 'theirs', tag: 'R-99' })])
    const before = () => was
    expect(rebase(later, [runEdit(start, { name: 'mine' }, 1)], before)).toMatchObject({
      clashes: [],
      edits: [{ base: 2, value: { name: 'mine', note: 'theirs', tag: 'R-99' } }],
    })
    const edit = runEdit(start, { note: 'mine' }, 1)
    expect(rebase(later, [edit], before).clashes).toMatchObject([
      { fields: ['note'], mine: { note: 'mine' }, theirs: { note: 'theirs' } },
    ])
    expect(rebase(later, [edit], before, 2).edits).toMatchObject([{ value: { note: 'mine', tag: 'R-99' } }])
    expect(rebase(later, [edit], before, 1).clashes).toHaveLength(1)
    expect(rebase(later, [{ ...edit, value: null }], before).clashes).toHaveLength(1)
  })
})

describe('changes in the trade’s words', () => {
  it('saving a run names what became of it, and takes nothing from needs that came meanwhile', () => {
    const run = get(start, 'runs', 'r-16')
    const needs = demo.needs.filter(({ id }) => id === 'deck-frames')
    const draft = saveRun(demo, 1, { run: { ...run, note: 'new' }, needs: [], had: [] })
    expect(draft.edits.map(({ list, id }) => `${list}/${id}`)).toEqual(['runs/r-16'])
    const gone = saveRun(demo, 1, { run, needs: [], had: needs.map(({ id }) => id) })
    expect(gone.edits).toMatchObject([{ list: 'needs', id: 'deck-frames', value: null }])
    const words = typeof draft.what === 'function' ? changeWords(draft.what(demo, draft.edits)) : ''
    expect(words).toBe('changed R-16: the note')
  })
  it('deleting a run takes its needs and unpins others, and undo puts back all of it', () => {
    const pinned = must(start, [
      {
        list: 'needs',
        id: 'log-picture',
        base: 1,
        value: { ...get(start, 'needs', 'log-picture'), through: ['r-09', 'r-11'] },
      },
    ])
    const { edits } = deleteRun(pinned.plan, pinned.place, get(pinned, 'runs', 'r-11'))
    const applied = applyChange(pinned, { edits })
    if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
    expect(get(applied.copy, 'needs', 'log-picture').through).toEqual(['r-09'])
    expect(must(applied.copy, [...applied.inverse], 'x').plan).toEqual(pinned.plan)
  })
  it('what stands so already is left alone', () => {
    const [cable] = demo.cables
    if (!cable) throw new Error('no cable')
    expect(standCables([cable], 1, cable.standing).edits).toEqual([])
  })
  it('every name has words, whatever it is about', () => {
    for (const name of CHANGE_NAMES)
      for (const about of [[], ['a'], ['a', 'b'], ['a', 'b', 'c', 'd', 'e']])
        expect(changeWords({ name, about })).toMatch(/^[a-z].{4,}/)
  })
})
