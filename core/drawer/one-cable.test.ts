import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { onePlan, type Seen } from '../../tests/support/one-run'
import { planFrom } from '../../tests/support/shorthand'
import { lackSentence } from '../checks/wording'
import { knownOf, triedLead } from '../link/lay'
import { learntOfCable } from '../observe/learned'
import { observationText } from '../observe/observation'
import { unexplainedOf } from '../observe/unexplained'
import { indexPlan } from '../plan/site-index'
import { type CableCaution, cautionSentence, cautionsOf } from './cable-cautions'
import { cableDoors, failedText } from './cable-doors'
import { recordOf, recordOfKind, runsOfCable } from './cable-history'
import { unexplainedSentence } from './unexplained-sentence'

const mark = { basis: 'claimed', on: '2026-01-01', grade: 'usb4-40', amps: 5 }
const trial = (on: string, tried: string, cameUp: string | null, controller?: string) => ({
  basis: 'soaked',
  on,
  tried,
  cameUp,
  seconds: 60,
  controller,
})

function siteOf(cables: object[], more: object = {}) {
  const plan = planFrom({
    cables: cables.map((cable, at) => ({
      id: `c${at}`,
      tag: `C-${at}`,
      ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
      length: 1.8,
      ...cable,
    })),
    ...more,
  })
  const index = indexPlan(plan)
  const [cable] = plan.cables
  if (!cable) throw new Error('no cable')
  return { index, cable, policy: plan.policy }
}

describe('the doors of one cable', () => {
  const open = (site: ReturnType<typeof siteOf>) =>
    cableDoors(site.index, site.cable)
      .filter((door) => door.open)
      .map(({ mode }) => mode)
  it('are open as far as its length allows, and shut with the reason', () => {
    const site = siteOf([{ evidence: [mark] }])
    expect(open(site)).toContain('usb4-20')
    expect(open(site)).not.toContain('usb4-40')
    const shut = cableDoors(site.index, site.cable).find(({ mode }) => mode === 'usb4-40')
    expect(shut?.lack && lackSentence(shut.lack, 'C-0')).toMatch(/to 0\.8 m; C-0 is 1\.8 m/)
  })
  it('say of a rate that failed how often, by tries in one socket and by sockets in several', () => {
    const goes = demo.cables.find(({ id }) => id === 'c-0026')
    const door = goes && cableDoors(indexPlan(demo), goes).find(({ mode }) => mode === 'gen2x1')
    expect(door).toMatchObject({ open: false, lack: { why: 'doubted' } })
    expect(door && failedText(door.seen)).toBe('Comes and goes: failed in 3 of 10 tries.')
    const tries = { held: 4, failed: 2 }
    expect(failedText({ held: 2, failed: 1, tries })).toBe('Failed in 1 of the 3 sockets it was tried in.')
    expect(failedText({ held: 0, failed: 1, tries: { held: 0, failed: 1 } })).toBe('Failed in its one try.')
    expect(failedText({ held: 0, failed: 1, tries: { held: 0, failed: 4 } })).toBe('Failed in all 4 tries.')
  })
  it('open beyond the book where it passed on the bench and the site goes by the bench', () => {
    const evidence = [mark, trial('2026-02-01', 'usb4-40', 'usb4-40', 'this controller')]
    const bench = siteOf([{ evidence }], { policy: { length: 'bench' } })
    expect(cableDoors(bench.index, bench.cable).find(({ mode }) => mode === 'usb4-40')).toMatchObject({
      open: true,
      beyondBook: true,
      seen: { held: 1, failed: 0 },
    })
    expect(open(siteOf([{ evidence }]))).not.toContain('usb4-40')
  })
  it('shut what it dropped in a soak, whatever its mark says', () => {
    expect(open(siteOf([{ length: 0.5, evidence: [mark, trial('2026-02-01', 'usb4-40', null)] }]))).not.toContain(
      'usb4-40',
    )
  })
})

describe('the record of one cable', () => {
  const evidence = [
    trial('2026-02-01', 'gen2x1', 'gen2x1', 'dock A'),
    trial('2026-02-03', 'gen2x1', null, 'dock A'),
    trial('2026-02-02', 'gen2x1', 'gen2x1', 'dock B'),
  ]
  it('counts each mode on each controller apart, the latest first', () => {
    const { index, cable } = siteOf([{ evidence }])
    expect(recordOf(learntOfCable(index.learned, cable.id))).toMatchObject([
      {
        mode: 'gen2x1',
        controller: 'dock A',
        rate: { passed: 1, tried: 2 },
        last: expect.stringContaining('2026-02-03'),
      },
      {
        mode: 'gen2x1',
        controller: 'dock B',
        rate: { passed: 1, tried: 1 },
        last: expect.stringContaining('2026-02-02'),
      },
    ])
  })
  it('of its kind counts every cable once, by its latest word', () => {
    const kinds = [{ id: 'k', name: 'K', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], grade: 'gen2' }]
    const { index, cable } = siteOf([{ kind: 'k', evidence }, { kind: 'k', evidence: [evidence[0]] }, { evidence }], {
      kinds,
    })
    expect(recordOfKind(index, cable)).toMatchObject([
      { controller: 'dock A', rate: { passed: 1, tried: 2 } },
      { controller: 'dock B', rate: { passed: 1, tried: 1 } },
    ])
    const { index: bare, cable: loose } = siteOf([{ evidence }])
    expect(recordOfKind(bare, loose)).toBeNull()
  })
  it('names the runs it lies in or was proved in', () => {
    const port = (id: string, role: string) => ({ id, name: id, connector: 'type-c', role, usb: 'gen2x1' })
    const { index, cable } = siteOf([{ evidence }, {}], {
      devices: [
        { id: 'pc', name: 'Computer', kind: 'computer', ports: [port('1', 'host')] },
        { id: 'disk', name: 'Disk', kind: 'storage', ports: [port('1', 'device')] },
      ],
      runs: [
        {
          id: 'r',
          tag: 'R-1',
          from: { device: 'pc', port: '1' },
          to: { device: 'disk', port: '1' },
          leads: [{ cable: 'c1' }],
          route: { length: 1 },
          proofs: [{ ...trial('2026-02-01', 'gen2x1', 'gen2x1'), leads: ['c0'] }],
        },
      ],
    })
    expect(runsOfCable(index, cable)).toMatchObject([{ run: { tag: 'R-1' }, liesHere: false, proofs: [{}] }])
  })
})

describe('cautions', () => {
  const codes = (cable: object) => {
    const site = siteOf([cable])
    return [...cautionsOf(site.cable, knownOf(site.index, site.cable))].map(({ code }) => code)
  }
  const ends = (one: string, other: string, gender = 'plug') => [{ connector: one }, { connector: other, gender }]
  it.each<[string, object, CableCaution['code'][]]>([
    ['a plain marked lead', { evidence: [mark] }, []],
    ['nothing known', {}, ['unknown']],
    ['two type-A plugs', { ends: ends('type-a', 'type-a'), evidence: [mark] }, ['two-supplies']],
    ['an extension', { ends: ends('type-c', 'type-c', 'socket'), evidence: [mark] }, ['type-c-extension']],
    ['charge-only', { evidence: [{ ...mark, grade: 'charge-only' }] }, ['charge-only']],
    ['one way', { oneWay: true, evidence: [mark] }, ['one-way']],
    ['fed', { feed: 'required', construction: 'active', evidence: [mark] }, ['needs-supply']],
    ['optical', { construction: 'optical', evidence: [{ ...mark, amps: 0 }] }, ['no-power']],
    ['thin', { awg: 26, evidence: [mark] }, ['thin-wire']],
    [
      'hot and retired',
      {
        standing: 'retired',
        evidence: [mark, { basis: 'measured', on: '2026-03-01', measure: 'warmth', felt: 'hot' }],
      },
      ['ran-hot', 'retired'],
    ],
  ])('%s', (_, cable, expected) => expect(codes(cable)).toEqual(expected))
  it('every one is a sentence', () => {
    const all: CableCaution[] = [
      { code: 'ran-hot', at: '2026-03-01T12:00:00.000Z' },
      { code: 'retired' },
      { code: 'two-supplies' },
      { code: 'type-c-extension' },
      { code: 'charge-only' },
      { code: 'unknown' },
      { code: 'one-way' },
      { code: 'needs-supply', required: true },
      { code: 'needs-supply', required: false },
      { code: 'no-power' },
      { code: 'thin-wire', amps: 5, awg: 26 },
    ]
    const sentences = all.map(cautionSentence)
    expect(new Set(sentences).size).toBe(all.length)
    for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z].*\.$/)
  })
})

describe('evidence in a few words', () => {
  it.each([
    [mark, 'USB4 40 Gb/s, 5 A'],
    [{ basis: 'chip', on: '2026-01-01', grade: 'gen1', amps: 0, volts: 20 }, 'USB 5 Gb/s, no power, 20 V'],
    [{ basis: 'supplied', on: '2026-01-01' }, 'says nothing of what it carries'],
    [trial('2026-01-01', 'usb2', 'usb2'), 'tried USB 2.0: USB 2.0, 60 s'],
    [{ basis: 'measured', on: '2026-01-01', measure: 'write', rate: 320e6 }, 'write: 40 MB/s'],
    [
      {
        basis: 'measured',
        on: '2026-01-01',
        measure: 'picture',
        mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' },
        held: true,
      },
      /^picture 1920x1080@60.*: held$/,
    ],
  ])('%j', (evidence, text) => {
    const [piece] = siteOf([{ evidence: [evidence] }]).index.plan.observations
    if (!piece) throw new Error('nothing was seen')
    expect(observationText(piece)).toMatch(text)
  })
})

describe('what crosses', () => {
  const told = (seen: Seen[]) => {
    const plan = onePlan({
      from: { connector: 'type-c', role: 'host', usb: 'gen2x1' },
      to: { connector: 'type-c', role: 'device', usb: 'gen2x1' },
      leads: [{ grade: 'gen2', length: 1 }],
      seen,
    })
    const index = indexPlan(plan)
    const [cable] = plan.cables
    if (!cable) throw new Error('no cable')
    return [...unexplainedOf(knownOf(index, cable), triedLead(index, cable))].map((each) =>
      unexplainedSentence(each, index),
    )
  }
  const trial = (on: string, cameUp: string | null): Seen => ({
    kind: 'trial',
    basis: 'soaked',
    tried: 'gen2x1',
    cameUp,
    seconds: 60,
    on,
  })
  it('is told with the one repeat that would settle it', () => {
    expect(told([trial('near/p', 'gen2x1'), trial('other/p', 'gen2x1')])).toEqual([])
    expect(told([trial('near/p', null), trial('other/p', 'gen2x1')])).toEqual([
      'Unexplained: USB 10 Gb/s (Gen 2) came up in one socket and failed in one socket. Try it again in Near, port, for 60 s, with nothing else changed.',
    ])
    const watts = (on: string, figure: number): Seen => ({
      kind: 'reading',
      measure: 'watts',
      watts: figure,
      limit: 'lead',
      on,
    })
    expect(told([watts('near/p', 30), watts('other/p', 86)])[0]).toMatch(
      /30 W through on one charger and 86 W on another/,
    )
    const copy = (on: string, rate: number): Seen => ({
      kind: 'reading',
      measure: 'write',
      rate,
      limit: 'lead',
      on,
      to: 'far/p',
    })
    expect(told([copy('near/p', 1.52e9), copy('other/p', 2.96e9)])[0]).toMatch(
      /wrote 190 MB\/s at most in one place and 370 MB\/s/,
    )
  })
})
