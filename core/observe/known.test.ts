import { describe, expect, it } from 'vitest'
import { type Piece, planFrom } from '../../tests/support/shorthand'
import { type Cable, type CableKind, cableKindSchema } from '../vocabulary/cable'
import { isCopies, mostOf, reliedOn } from './figures'
import { knownCable } from './known'
import { learnedOf, learntOfCable } from './learned'
import { type Observation, observationSchema } from './observation'

/** What is believed of a type-C lead of which this was said. */
const known = (evidence: Piece[], kind?: CableKind, more: object = {}) => {
  const plan = planFrom({
    cables: [
      { id: 'c', tag: 'C', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], length: 1, evidence, ...more },
    ],
  })
  return knownCable(plan.cables[0] as Cable, kind, learntOfCable(learnedOf(plan), 'c'))
}
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
    const believed = known([])
    expect(believed.grade).toEqual({ value: null, basis: 'assumed', at: null })
    expect(believed.amps.value * believed.volts.value).toBe(60)
  })

  it('is no power in an optical lead or one of another family, until something says otherwise', () => {
    expect(known([], undefined, { construction: 'optical' }).amps.value).toBe(0)
    expect(known([], undefined, { ends: [{ connector: 'hdmi' }, { connector: 'hdmi' }] }).amps.value).toBe(0)
    expect(known([says('chip', '2026-01-01', { amps: 3 })], undefined, { construction: 'optical' }).amps.value).toBe(3)
  })

  it('is what the strongest says, whatever the order and the days', () => {
    const chip = says('chip', '2026-01-01', { grade: 'gen1', amps: 3 })
    const mark = says('claimed', '2026-05-01', { grade: 'gen2' })
    const listed = known([mark, chip], kind)
    expect(listed.grade).toEqual({ value: 'gen1', basis: 'chip', at: expect.stringContaining('2026-01-01') })
    expect(listed.amps).toMatchObject({ value: 3, basis: 'chip' })
    expect(known([chip, mark], kind).grade.value).toBe('gen1')
  })

  it('is the later of two statements of equal strength', () => {
    const early = says('claimed', '2026-01-01', { grade: 'gen1' })
    const late = says('claimed', '2026-03-01', { grade: 'gen2' })
    expect(known([late, early]).grade.value).toBe('gen2')
  })

  it('is the later of two statements of equal strength, within a day and within a second', () => {
    const plan = (at: string[], grades: string[]) => ({
      ...planFrom({
        cables: [{ id: 'c', tag: 'C', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], length: 1 }],
      }),
      observations: grades.map((grade, place) =>
        observationSchema.parse({
          id: `o${place}`,
          at: at[place],
          subject: { cable: 'c' },
          kind: 'statement',
          basis: 'claimed',
          grade,
        }),
      ),
    })
    const gradeOf = (site: ReturnType<typeof plan>) => learntOfCable(learnedOf(site), 'c')?.grade.claimed?.value
    const day = ['2026-01-01T09:00:00.100Z', '2026-01-01T09:00:00.200Z']
    for (const grades of [
      ['gen1', 'usb4-40'],
      ['usb4-40', 'gen1'],
    ]) {
      expect(gradeOf(plan(day, grades))).toBe(grades[1])
      // written down later, but of an earlier moment
      expect(gradeOf(plan(day.toReversed(), grades))).toBe(grades[0])
      // of one moment, what promises less
      expect(gradeOf(plan([day[0] as string, day[0] as string], grades))).toBe('gen1')
    }
  })

  it('is unmarked where somebody looked and there is no mark: what was said of it before no longer counts', () => {
    const cleared = known([
      says('claimed', '2026-01-01', { grade: 'gen2', amps: 5 }),
      says('claimed', '2026-02-01', { grade: null, amps: null }),
    ])
    expect(cleared).toMatchObject({ unmarked: true, grade: { value: null }, amps: { value: 3, basis: 'assumed' } })
  })

  it('names each disagreement, and none where all agree or a mark was put right', () => {
    const told = known(
      [
        says('claimed', '2026-05-01', { grade: 'gen2', amps: 5 }),
        says('chip', '2026-01-01', { grade: 'gen1', amps: 3 }),
      ],
      kind,
    )
    expect(told.conflicts.map(({ about, believed, overruled }) => [about, overruled.basis, believed.basis])).toEqual([
      ['grade', 'claimed', 'chip'],
      ['grade', 'listed', 'chip'],
      ['amps', 'claimed', 'chip'],
      ['amps', 'listed', 'chip'],
    ])
    expect(known([says('claimed', '2026-05-01', { grade: 'gen2' })], kind).conflicts).toEqual([])
    const putRight = [
      says('claimed', '2026-05-01', { grade: 'gen1' }),
      says('claimed', '2026-05-02', { grade: 'gen2' }),
    ]
    expect(known(putRight).conflicts).toEqual([])
  })
})

describe('what counts', () => {
  const sawSimulated = {
    basis: 'measured',
    on: '2026-01-01',
    measure: 'watts',
    watts: 94,
    note: 'from the simulated meter',
  }
  const plan = planFrom({
    cables: [
      {
        id: 'c',
        tag: 'C',
        ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
        length: 1,
        evidence: [sawSimulated],
      },
    ],
  })
  it('what a simulated instrument says counts only on a site to practise on', () => {
    const watts = (practice: boolean) =>
      learntOfCable(learnedOf({ ...plan, site: { ...plan.site, practice } }), 'c')?.amps.measured
    expect(watts(false)).toBeUndefined()
    expect(watts(true)?.value).toBe(5)
    expect(watts(false)).toBeUndefined()
  })
  it('what was taken back does not, and a lower bound makes nothing less', () => {
    const copy = (id: string, rate: number, limit: string) =>
      observationSchema.parse({
        id,
        at: `2026-01-01T09:00:0${id}Z`,
        subject: { cable: 'c' },
        kind: 'reading',
        measure: 'write',
        rate,
        limit,
      })
    const copied = (...observations: Observation[]) =>
      learntOfCable(learnedOf({ ...plan, observations }), 'c')
        ?.figures.filter(isCopies)
        .map((series) => [series.times, mostOf(series).rate, series.last.rate, reliedOn(series, 'lead')])
    // the latest and the most stay, and no lower bound counts against it
    expect(copied(copy('1', 8e9, 'disk'), copy('2', 2e9, 'disk'), copy('3', 1e9, 'disk'))).toEqual([
      [3, 8e9, 1e9, null],
    ])
    expect(copied(copy('1', 8e9, 'disk'), copy('2', 1e9, 'lead'))).toEqual([[2, 8e9, 1e9, 1e9]])
    const back = observationSchema.parse({
      id: '3',
      at: '2026-01-01T09:00:03Z',
      subject: { cable: 'c' },
      kind: 'retraction',
      retracts: '2',
      reason: 'another lead',
    })
    expect(copied(copy('1', 8e9, 'disk'), copy('2', 1e9, 'lead'), back)).toEqual([[1, 8e9, 8e9, null]])
  })
})
