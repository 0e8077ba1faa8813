import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo as plan } from '../../tests/support/demo-plan'
import { changeNeed } from './changes/needs'
import { saveDevice } from './changes/survey'
import { differences } from './differences'
import { changeWords } from './words'

const told = ['runs', 'cables', 'devices', 'places', 'floors', 'pathways'] as const
const wordsOf = ({ what, edits }: ReturnType<typeof saveDevice>): string =>
  changeWords(typeof what === 'function' ? what(plan, edits) : what)

describe('what a change did, before and after', () => {
  it('says nothing of what stayed, and something of every field that differs', () => {
    fc.assert(
      fc.property(fc.constantFrom(...told), fc.nat(), fc.nat(), (list, one, field) => {
        const items = plan[list]
        const entity = items[one % items.length]
        fc.pre(entity != null)
        expect(differences(plan, list, entity as never, { ...entity } as never)).toEqual([])
        const names = Object.keys(entity).filter((each) => each !== 'id')
        const name = names[field % names.length] as keyof typeof entity
        const { [name]: _, ...rest } = entity
        const gone = differences(plan, list, entity as never, rest as never)
        expect(gone).toHaveLength(entity[name] === undefined ? 0 : 1)
        expect(differences(plan, list, rest as never, entity as never)).toHaveLength(gone.length)
      }),
    )
  })
  it('a new name alone is a renaming, and a move says from where to where', () => {
    const device = plan.devices.find(({ place }) => place === plan.places[0]?.id)
    const [from, to] = plan.places
    if (!device || !from || !to) throw new Error('no device at the first place')
    expect(wordsOf(saveDevice({ ...device, name: 'Shelf disk 1' }, 1))).toBe(`renamed ${device.name} to Shelf disk 1`)
    expect(wordsOf(saveDevice({ ...device, place: to.id, note: 'odd' }, 1))).toBe(
      `changed ${device.name}: the place from ${from.name} to ${to.name} and the note`,
    )
  })
  it('a need says its size before and after', () => {
    const need = plan.needs.find(({ kind }) => kind === 'power')
    if (need?.kind !== 'power') throw new Error('no need of power')
    expect(wordsOf(changeNeed(1, { ...need, watts: need.watts + 1 }))).toContain(
      `the size from ${need.watts} W to ${need.watts + 1} W`,
    )
  })
})
