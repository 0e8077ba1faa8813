import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/support/demo-plan'
import { inProportion } from '../../../tests/support/laws'
import { applyChange } from '../apply'
import type { Edit } from '../change'
import { copyOf } from '../copy'
import { previewOf } from '../preview'
import { changeWords } from '../words'
import { changeMany, MANY_ACTIONS, MANY_LISTS, type ManyAction, type ManyList } from './many'

const start = copyOf(demo)
const actions: Record<ManyAction['do'], fc.Arbitrary<ManyAction>> = {
  delete: fc.constant({ do: 'delete' }),
  rename: fc.record({
    do: fc.constant('rename' as const),
    find: fc.constantFrom('', 'a', 'R-', 'Bridge', '$&', 'desk'),
    replace: fc.constantFrom('', 'b', '$&', 'Bridge 2', 'X'),
  }),
  note: fc.record({ do: fc.constant('note' as const), note: fc.constantFrom('', 'to be asked', ' ') }),
  move: fc.record({
    do: fc.constant('move' as const),
    place: fc.constantFrom('nowhere', ...demo.places.map(({ id }) => id)),
  }),
  length: fc.record({ do: fc.constant('length' as const), length: fc.constantFrom(0.5, 3, 40) }),
  priority: fc.record({ do: fc.constant('priority' as const), priority: fc.constantFrom(null, 1, 9) }),
  size: fc.record({
    do: fc.constant('size' as const),
    size: fc.constantFrom('60 W', '1920x1080@60', '400 MB/s', 'lots'),
  }),
  mains: fc.record({ do: fc.constant('mains' as const), mains: fc.constantFrom(true, false, 'not known' as const) }),
  shift: fc.record({
    do: fc.constant('shift' as const),
    right: fc.constantFrom(0, 1, -0.5),
    down: fc.constantFrom(0, 0.2),
  }),
}
/** Any change of many things that can be asked for. */
const asked = fc
  .constantFrom(...MANY_LISTS.flatMap((list) => MANY_ACTIONS[list].map((what) => [list, what] as const)))
  .chain(([list, what]) =>
    fc.record({
      list: fc.constant<ManyList>(list),
      ids: fc.subarray(demo[list].map(({ id }) => id as string)),
      action: actions[what],
    }),
  )

describe('many things at once', () => {
  it('one change, which touches nothing that was not chosen, and which its inverse takes back', () => {
    let taken = 0
    fc.assert(
      fc.property(asked, ({ list, ids, action }) => {
        const made = changeMany(demo, 1, list, new Set(ids), action)
        if ('outcome' in made) {
          expect(made.faults.length).toBeGreaterThan(0)
          return
        }
        expect(previewOf(demo, made.edits).length).toBeGreaterThan(0)
        // a run goes with its needs, and a moved place takes along what is joined to it
        const beside = action.do === 'delete' || action.do === 'shift'
        if (!beside) expect(made.edits.every((edit) => edit.list === list && ids.includes(edit.id))).toBe(true)
        const applied = applyChange(start, { edits: made.edits as Edit[] })
        fc.pre(applied.outcome === 'applied')
        taken += 1
        const back = applyChange(applied.copy, { edits: applied.inverse as Edit[], undoes: 'x' })
        expect(back.outcome === 'applied' && back.copy.plan).toEqual(demo)
      }),
    )
    expect(taken).toBeGreaterThan(inProportion(5))
  })
  it('says what would be renamed before and after, and takes what is typed as it is typed', () => {
    const device = demo.devices[0]
    if (!device) throw new Error('no device')
    const made = changeMany(demo, 1, 'devices', new Set([device.id]), {
      do: 'rename',
      find: device.name,
      replace: 'a$&b',
    })
    if ('outcome' in made) throw new Error('refused')
    expect(previewOf(demo, made.edits)).toMatchObject([
      { name: device.name, what: `the name from ${device.name} to a$&b` },
    ])
    const what = typeof made.what === 'function' ? made.what(demo, made.edits) : made.what
    expect(changeWords(what)).toBe(`replaced “${device.name}” with “a$&b”, many at once: ${device.name}`)
  })
  it('a device that a run ends at is not deleted, and it says so', () => {
    const run = demo.runs[0]
    if (!run) throw new Error('no run')
    expect(changeMany(demo, 1, 'devices', new Set([run.from.device]), { do: 'delete' })).toMatchObject({
      outcome: 'refused',
      faults: expect.arrayContaining([expect.objectContaining({ reason: expect.stringContaining(run.tag) })]),
    })
  })
})
