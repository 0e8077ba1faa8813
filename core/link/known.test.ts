import { describe, expect, it } from 'vitest'
import { type Cable, type CableKind, cableKindSchema, cableSchema } from '../plan/cable'
import { knownCable } from './known'

const cable = (evidence: unknown[], more: object = {}): Cable =>
  cableSchema.parse({
    id: 'c',
    tag: 'C',
    ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
    length: 1,
    evidence,
    ...more,
  })
const says = (basis: string, on: string, more: object) => ({ basis, on, ...more })
const kind: CableKind = cableKindSchema.parse({
  id: 'k',
  name: 'Kind',
  ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
  grade: 'gen2',
  amps: 5,
})

describe('what is known of a cable', () => {
  it('is nothing but 3 A at 20 V where nobody has said anything (USB Type-C: no chip, no more)', () => {
    const known = knownCable(cable([]))
    expect(known.grade).toEqual({ value: null, basis: 'assumed', on: null })
    expect(known.amps.value * known.volts.value).toBe(60)
  })

  it('is no power in an optical lead or one of another family, until something says otherwise', () => {
    expect(knownCable(cable([], { construction: 'optical' })).amps.value).toBe(0)
    expect(knownCable(cable([], { ends: [{ connector: 'hdmi' }, { connector: 'hdmi' }] })).amps.value).toBe(0)
    expect(knownCable(cable([says('chip', '2026-01-01', { amps: 3 })], { construction: 'optical' })).amps.value).toBe(3)
  })

  it('is what the strongest says, whatever the order and the days', () => {
    const chip = says('chip', '2026-01-01', { grade: 'gen1', amps: 3 })
    const mark = says('claimed', '2026-05-01', { grade: 'gen2' })
    const listed = knownCable(cable([mark, chip]), kind)
    expect(listed.grade).toEqual({ value: 'gen1', basis: 'chip', on: '2026-01-01' })
    expect(listed.amps).toMatchObject({ value: 3, basis: 'chip' })
    expect(knownCable(cable([chip, mark]), kind)).toEqual(listed)
  })

  it('is the later of two statements of equal strength', () => {
    const early = says('claimed', '2026-01-01', { grade: 'gen1' })
    const late = says('claimed', '2026-03-01', { grade: 'gen2' })
    expect(knownCable(cable([late, early])).grade.value).toBe('gen2')
  })

  it('names each disagreement, and none where all agree', () => {
    const known = knownCable(
      cable([
        says('claimed', '2026-05-01', { grade: 'gen2', amps: 5 }),
        says('chip', '2026-01-01', { grade: 'gen1', amps: 3 }),
      ]),
      kind,
    )
    expect(known.conflicts.map(({ about, believed, overruled }) => [about, overruled.basis, believed.basis])).toEqual([
      ['grade', 'claimed', 'chip'],
      ['amps', 'claimed', 'chip'],
    ])
    expect(knownCable(cable([says('claimed', '2026-05-01', { grade: 'gen2' })]), kind).conflicts).toEqual([])
  })
})
