import { describe, expect, it } from 'vitest'
import { type Piece, planFrom } from '../../tests/support/shorthand'
import type { Tried } from '../observe/observation'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import type { BenchTest } from '../vocabulary/session'
import { feltAt, gradeReading, predictionText, readingText, testText } from './grade-reading'
import { readingsOf, sessionMatrix } from './matrix'
import { predict } from './predict'
import { fitsTest, setupsFor } from './setup'

const ends = { from: { device: 'host', port: 'c' }, to: { device: 'disk', port: 'c' } }
const tests: BenchTest[] = [
  { id: 'link', kind: 'link', soak: 60, ...ends },
  { id: 'write', kind: 'write', ...ends },
  { id: 'watts', kind: 'watts', from: { device: 'charger', port: 'c' }, to: { device: 'host', port: 'c' } },
  { id: 'warm', kind: 'warmth', from: { device: 'charger', port: 'c' }, to: { device: 'host', port: 'c' } },
  {
    id: 'picture',
    kind: 'picture',
    from: { device: 'host', port: 'c' },
    to: { device: 'screen', port: 'c' },
    mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' },
  },
  {
    id: 'drop',
    kind: 'volts lost',
    amps: 5,
    from: { device: 'charger', port: 'c' },
    to: { device: 'host', port: 'c' },
  },
]
const socket = (more: object) => ({ id: 'c', name: 'type-C', connector: 'type-c', ...more })
const picture = (direction: string) => ({ displayport: { direction, link: 'hbr2' } })

function site(evidence: Piece[], more: object = {}): Plan {
  return planFrom({
    devices: [
      {
        id: 'host',
        name: 'Host',
        kind: 'computer',
        ports: [socket({ role: 'host', usb: 'gen2x1', takes: 96, ...picture('out') })],
      },
      {
        id: 'disk',
        name: 'Disk',
        kind: 'storage',
        disk: { write: '1000 MB/s', read: '1000 MB/s' },
        ports: [socket({ role: 'device', usb: 'gen2x1' })],
      },
      { id: 'charger', name: 'Charger', kind: 'charger', ports: [socket({ role: 'host', gives: 100 })] },
      { id: 'screen', name: 'Screen', kind: 'display', ports: [socket({ role: 'device', ...picture('in') })] },
    ],
    cables: [
      {
        id: 'lead',
        tag: 'C-1',
        ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
        length: 1,
        evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen2', amps: 3 }, ...evidence],
        ...more,
      },
      { id: 'other', tag: 'C-2', ends: [{ connector: 'hdmi' }, { connector: 'hdmi' }], length: 1 },
    ],
    sessions: [{ id: 'one', name: 'One', on: '2026-02-01', cables: ['lead', 'other'], tests }],
  })
}
const taken = (test: string) => ({ on: '2026-02-01', session: 'one', test })
const soaked = (cameUp: string | null, seconds = 60) =>
  ({ basis: 'soaked', tried: 'gen2x1', cameUp, seconds, ...taken('link') }) as Piece
const measured = (test: string, more: object) => ({ basis: 'measured', ...taken(test), ...more }) as Piece
/** A piece of evidence as the observation that the plan makes of it. */
const seen = (piece: Piece) => site([piece]).observations.at(-1) as Tried
const rowOf = (plan: Plan) => {
  const session = plan.sessions[0] as Plan['sessions'][number]
  const [row] = sessionMatrix(indexPlan(plan), session, readingsOf(session, plan))
  if (!row) throw new Error('no row')
  return row
}
const verdictOf = (...evidence: Piece[]) => rowOf(site(evidence)).recommendation

describe('what a lead should do', () => {
  it('in each test, by its mark and its length', () => {
    const plan = site([])
    const said = rowOf(plan).cells.map((cell) => predictionText(cell.prediction))
    expect(said).toEqual(['USB 10 Gb/s (Gen 2)', '950 MB/s to 1000 MB/s', '60 W', 'cool', 'holds', 'at most 0.75 V'])
    expect(tests.map(testText)).toEqual([
      'link, soaked 60 s',
      'write, MB/s',
      'watts',
      'plug warmth',
      'picture 3840x2160@60',
      'volts lost at 5 A',
    ])
  })
  it('is not changed by what the bench has read of it', () => {
    const plan = site([soaked('usb2')])
    expect(rowOf(plan).cells[0]?.prediction).toEqual({ kind: 'link', mode: 'gen2x1' })
  })
  it('a lead with known wire loses about what the wire says', () => {
    const cell = rowOf(site([], { awg: 22 })).cells[5]
    expect(cell && predictionText(cell.prediction)).toBe('about 0.4 V, at most 0.75 V')
  })
  it('a lead that fits no port of a test has no setup and nothing predicted', () => {
    const index = indexPlan(site([]))
    const other = index.plan.cables[1] as Plan['cables'][number]
    expect(setupsFor(index, tests, other, () => false)).toEqual([])
    expect(predict(index, tests[0] as BenchTest, other)).toEqual({ kind: 'does not fit' })
    expect(fitsTest(index, index.plan.cables[0] as Plan['cables'][number], tests[0] as BenchTest)).toBe(true)
  })
  it('tests in the same two ports are one setup, and what is done is left out', () => {
    const index = indexPlan(site([]))
    const lead = index.plan.cables[0] as Plan['cables'][number]
    const all = setupsFor(index, tests, lead, () => false)
    expect(all.map((setup) => setup.tests.map((test) => test.id))).toEqual([
      ['link', 'write'],
      ['watts', 'warm', 'drop'],
      ['picture'],
    ])
    expect(setupsFor(index, tests, lead, (test) => test.kind !== 'picture')).toHaveLength(1)
  })
})

describe('a reading beside what was predicted', () => {
  const graded = (evidence: Piece) => {
    const cell = rowOf(site([evidence])).cells.find((each) => each.reading !== null)
    return cell?.grade ? `${cell.grade.grade}${cell.grade.beyond ? ', beyond' : ''}` : null
  }
  it.each([
    ['the mode it should', soaked('gen2x1'), 'clear'],
    ['a lower mode', soaked('usb2'), 'tight'],
    ['dropped in the soak', soaked(null, 52), 'blocked'],
    ['950 MB/s of 950 to 1000', measured('write', { measure: 'write', rate: 950 * 8e6 }), 'clear'],
    ['800 MB/s', measured('write', { measure: 'write', rate: 800 * 8e6 }), 'tight'],
    ['40 MB/s', measured('write', { measure: 'write', rate: 40 * 8e6 }), 'blocked'],
    ['1200 MB/s', measured('write', { measure: 'write', rate: 1200 * 8e6 }), 'clear, beyond'],
    ['58 W of 60', measured('watts', { measure: 'watts', watts: 58 }), 'clear'],
    ['45 W', measured('watts', { measure: 'watts', watts: 45 }), 'tight'],
    ['no watts', measured('watts', { measure: 'watts', watts: 0 }), 'blocked'],
    ['cool', measured('warm', { measure: 'warmth', felt: 'cool' }), 'clear'],
    ['hot', measured('warm', { measure: 'warmth', felt: 'hot', celsius: 61 }), 'blocked'],
    [
      'the picture held',
      measured('picture', {
        measure: 'picture',
        held: true,
        mode: tests[4] && 'mode' in tests[4] ? tests[4].mode : null,
      }),
      'clear',
    ],
    [
      'the picture did not',
      measured('picture', {
        measure: 'picture',
        held: false,
        mode: tests[4] && 'mode' in tests[4] ? tests[4].mode : null,
      }),
      'blocked',
    ],
    ['0.6 V', measured('drop', { measure: 'volts lost', volts: 0.6, amps: 5 }), 'clear'],
    ['0.85 V', measured('drop', { measure: 'volts lost', volts: 0.85, amps: 5 }), 'tight'],
    ['1.5 V', measured('drop', { measure: 'volts lost', volts: 1.5, amps: 5 }), 'blocked'],
  ])('%s', (_, evidence, grade) => expect(graded(evidence)).toBe(grade))
  it('more than was thought is said so', () => {
    const index = indexPlan(site([], { length: 3 }))
    const prediction = predict(index, tests[0] as BenchTest, index.plan.cables[0] as Plan['cables'][number])
    expect(prediction).toEqual({ kind: 'link', mode: 'usb2' })
    expect(gradeReading(prediction, seen(soaked('gen2x1')))).toEqual({ grade: 'clear', beyond: true })
  })
  it('is written in a few words', () => {
    expect(readingText(seen(soaked(null, 52)))).toBe('dropped, 52 s')
    expect(readingText(seen(soaked('gen2x1')))).toBe('USB 10 Gb/s (Gen 2), 60 s')
    expect(readingText(seen(measured('warm', { measure: 'warmth', felt: 'hot', celsius: 61.2 })))).toBe('hot, 61 °C')
    expect(readingText(seen(measured('write', { measure: 'write', rate: 412 * 8e6 })))).toBe('412 MB/s')
    expect(readingText(seen(measured('drop', { measure: 'volts lost', volts: 0.543, amps: 5 })))).toBe('0.54 V at 5 A')
    expect([39, 40, 49, 50].map(feltAt)).toEqual(['cool', 'warm', 'warm', 'hot'])
  })
  it('is not the last word: what failed stands beside what held later, until three tries or the soak have cleared it', () => {
    const rowAfter = (...pieces: Piece[]) => rowOf(site(pieces))
    const once = rowAfter(soaked('usb2'), soaked('gen2x1'))
    expect(once.cells[0]).toMatchObject({ grade: { grade: 'tight' }, goes: { held: 1, failed: 1 } })
    expect(once.cells[0]?.earlier).toHaveLength(1)
    expect(once.recommendation).toMatchObject({
      verdict: 'limited',
      reasons: ['link comes and goes: failed in 1 of 2'],
    })
    // the same whichever came last
    const turned = rowAfter(soaked('gen2x1'), soaked('usb2'))
    expect(turned.cells[0]).toMatchObject({ grade: { grade: 'tight' }, goes: { held: 1, failed: 1 } })
    expect(turned.recommendation).toEqual(once.recommendation)
    const cleared = rowAfter(soaked('usb2'), soaked('gen2x1'), soaked('gen2x1'), soaked('gen2x1'))
    expect(cleared.cells[0]).toMatchObject({ grade: { grade: 'clear' }, goes: null, failing: null })
    expect(cleared.recommendation.verdict).toBe('use')
    // a drop is cleared by twenty times as long and the soak of the site, and not by another minute
    const dropped = rowAfter(soaked(null), soaked('gen2x1'))
    expect(dropped.cells[0]).toMatchObject({ grade: { grade: 'tight' }, goes: { held: 1, failed: 1 } })
    expect(dropped.recommendation).toMatchObject({ verdict: 'retire', reasons: ['it dropped after 60 s'] })
    const long = rowAfter(soaked(null), soaked('gen2x1', 86_400))
    expect(long.recommendation.verdict).toBe('use')
    // a figure as well
    const read = (rate: number) => measured('write', { measure: 'write', rate: rate * 8e6, limit: 'lead' })
    expect(rowAfter(read(300), read(960)).cells[1]?.goes).toEqual({ held: 1, failed: 1 })
    expect(rowAfter(read(300), read(960), read(960), read(960)).cells[1]?.goes).toBeNull()
  })
  it('is a lower bound where something else was the limit: it says nothing against the lead', () => {
    const slow = (limit: string) => graded(measured('write', { measure: 'write', rate: 110 * 8e6, limit }))
    expect(slow('disk')).toBeNull()
    expect(slow('lead')).toBe('blocked')
    expect(slow('unknown')).toBe('blocked')
    const verdict = verdictOf(measured('write', { measure: 'write', rate: 110 * 8e6, limit: 'disk' }))
    expect(verdict).toMatchObject({ verdict: 'use', reasons: [] })
  })
  it('that was taken back is not there', () => {
    const plan = site([soaked(null)])
    const [, first] = plan.observations
    if (!first) throw new Error('nothing was seen')
    const back = {
      id: 'back',
      at: first.at,
      subject: first.subject,
      kind: 'retraction',
      retracts: first.id,
      reason: 'wrong lead',
    } as const
    expect(rowOf({ ...plan, observations: [...plan.observations, back] }).cells[0]?.reading).toBeNull()
  })
})

describe('what becomes of a lead', () => {
  it('one that does as it should is used for what it is', () => {
    const { verdict, useFor } = verdictOf(soaked('gen2x1'), measured('watts', { measure: 'watts', watts: 59 }))
    expect(verdict).toBe('use')
    expect(useFor).toEqual(['charging to 60 W', 'data at 20 Gb/s', 'pictures (DisplayPort UHBR10 x4)'])
  })
  it.each([
    ['hot', measured('warm', { measure: 'warmth', felt: 'hot' }), 'its plug ran hot'],
    ['dropped', soaked(null, 71), 'it dropped after 71 s'],
    ['lied', soaked('usb2'), 'it lied: it should carry USB 10 Gb/s (Gen 2) at this length and came up as USB 2.0'],
    [
      'carries nothing',
      { basis: 'measured', tried: 'gen2x1', cameUp: null, ...taken('link') } as Piece,
      'nothing came up where it should carry USB 10 Gb/s (Gen 2)',
    ],
  ])('one that %s is retired (common practice)', (_, evidence, reason) =>
    expect(verdictOf(evidence)).toMatchObject({ verdict: 'retire', notFor: ['anything'], reasons: [reason] }),
  )
  it('one that is merely slow is limited, and one nobody read stays open', () => {
    expect(verdictOf(measured('write', { measure: 'write', rate: 500 * 8e6 }))).toMatchObject({
      verdict: 'limited',
      reasons: ['write: 500 MB/s'],
    })
    expect(verdictOf()).toMatchObject({ verdict: 'open' })
  })
  it('a lead said to be for charging is kept for that', () => {
    const plan = site([
      { basis: 'supplied', on: '2026-01-02', grade: 'charge-only' } as Piece,
      {
        basis: 'measured',
        tried: 'gen2x1',
        cameUp: null,
        ...taken('link'),
      } as Piece,
    ])
    expect(rowOf(plan).recommendation).toMatchObject({
      verdict: 'use',
      useFor: ['charging to 60 W'],
      notFor: expect.arrayContaining(['data', 'pictures']),
    })
  })
})
