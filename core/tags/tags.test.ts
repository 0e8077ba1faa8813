import { describe, expect, it } from 'vitest'
import { planFrom } from '../../tests/support/shorthand'
import { abilitiesOf } from '../link/abilities'
import { doesJob, parseJob } from '../match/job-text'
import { indexPlan } from '../plan/site-index'
import { drawLabel, drawSheet, LABEL_SIZES, labelsOf, sheetsOf } from './label'
import { shortCode } from './short-code'

type Lead = {
  grade?: string
  amps?: number
  volts?: number
  length: number
  construction?: string
  ends?: string[]
  evidence?: object[]
  oneWay?: boolean
}
function lead({
  grade,
  amps,
  volts,
  length,
  construction = 'passive',
  ends = ['type-c', 'type-c'],
  evidence = [],
  oneWay = false,
}: Lead) {
  const plan = planFrom({
    cables: [
      {
        id: 'c',
        tag: 'C-0042',
        ends: ends.map((connector) => ({ connector })),
        length,
        construction,
        oneWay,
        evidence: [...(grade ? [{ basis: 'claimed', on: '2026-01-01', grade, amps, volts }] : []), ...evidence],
      },
    ],
  })
  const index = indexPlan(plan)
  return abilitiesOf(index, plan.cables[0] as never)
}
const optical = ['displayport', 'displayport']

describe('the short code of a cable', () => {
  it.each([
    ['40G 100W 2m A', { grade: 'usb4-40', amps: 5, length: 2, construction: 'active' }],
    ['40G 60W 0.8m P', { grade: 'usb4-40', length: 0.8 }],
    ['20G 60W 2m P', { grade: 'usb4-40', length: 2 }],
    ['2.0 60W 3m P', { grade: 'usb2', length: 3 }],
    ['charge 60W 1m P', { grade: 'charge-only', length: 1 }],
    ['80G 240W 1m P', { grade: 'usb4-80', amps: 5, volts: 50, length: 1 }],
    ['DP HBR3 15m O', { grade: 'dp-hbr3', length: 15, construction: 'optical', ends: optical }],
    ['HDMI 18G 3m P', { grade: 'hdmi-18', length: 3, ends: ['hdmi', 'hdmi'] }],
    ['unknown 60W 1m P', { length: 1 }],
  ])('%s', (code, given) => expect(shortCode(lead(given))).toBe(code))
  it('says feet where the site does', () => {
    expect(shortCode(lead({ grade: 'usb2', length: 3.048 }), 'ft')).toBe('2.0 60W 10ft P')
  })
})

describe('what a cable is good for', () => {
  it('a trial rules a mode out wherever it was made, and says how the rate is known', () => {
    const failed = { basis: 'soaked', on: '2026-02-01', tried: 'usb4-40', cameUp: null, controller: 'board' }
    const able = lead({ grade: 'usb4-40', length: 0.8, evidence: [failed] })
    expect(able.mode).toBe('usb4-20')
    // the same pairs carry pictures: what failed at 20 Gb/s a pair is no lane of that rate either
    expect(able.picture?.name).toBe('DisplayPort UHBR13.5 x4')
    expect(lead({ grade: 'usb4-40', length: 0.8 }).picture?.name).toBe('DisplayPort UHBR20 x4')
    expect(able.last?.words).toBe('dropped')
    expect(lead({ grade: 'usb4-40', length: 0.8 }).basis).toBe('claimed')
  })
  it('watts that arrived count as known', () => {
    const watts = { basis: 'measured', on: '2026-02-01', measure: 'watts', watts: 94 }
    expect(lead({ grade: 'usb2', length: 1, evidence: [watts] }).watts).toBe(100)
  })
})

describe('a job in a line of text', () => {
  it.each([
    ['40 Gb/s, at least 2 m, 100 W', { rate: 40e9, atLeast: 2, watts: 100 }],
    ['40g 2m', { rate: 40e9, atLeast: 2 }],
    ['under 1 m active', { atMost: 1, construction: 'active' }],
    ['10 ft, at most 5 m hdmi picture', { atLeast: 3.048, atMost: 5, connectors: ['hdmi'], picture: true }],
    ['mini displayport', { connectors: ['mini-displayport'] }],
    ['400 MB/s', { rate: 3.2e9 }],
    ['C-0042 gallery', { words: ['c-0042', 'gallery'] }],
    ['', {}],
  ])('%j', (text, job) => expect(parseJob(text)).toEqual({ connectors: [], words: [], ...job }))
  it('finds the cables that do it', () => {
    const active = lead({ grade: 'usb4-40', amps: 5, length: 2, construction: 'active' })
    const passive = lead({ grade: 'usb4-40', amps: 5, length: 2 })
    const does = (text: string, able: typeof active) => doesJob(parseJob(text), able, 'c-0042 gallery dock')
    expect(does('40 Gb/s, at least 2 m, 100 W', active)).toBe(true)
    expect(does('40 Gb/s, at least 2 m, 100 W', passive)).toBe(false)
    expect(does('20 Gb/s dock', passive)).toBe(true)
    expect(does('kitchen', active)).toBe(false)
    expect(does('hdmi', active)).toBe(false)
    expect(does('at most 1 m', active)).toBe(false)
  })
})

describe('labels', () => {
  const modules = [
    [true, false],
    [false, true],
  ]
  const cable = (oneWay: boolean) => lead({ grade: 'usb4-40', length: 2, oneWay }).cable
  it('both ends, and the way a one-way lead carries', () => {
    expect(labelsOf(cable(false), { code: '20G' }, modules).map(({ end, arrow }) => [end, arrow])).toEqual([
      ['end 1, type-C', null],
      ['end 2, type-C', null],
    ])
    expect(labelsOf(cable(true), { code: '20G' }, modules).map(({ end, arrow }) => [end, arrow])).toEqual([
      ['host end, type-C', 'into the lead'],
      ['device end, type-C', 'out of the lead'],
    ])
  })
  it('what is written stays text, whatever it is', () => {
    const [label] = labelsOf(cable(true), { code: '<b>&"', owner: 'Deck <dock>' }, modules)
    expect(drawLabel(label, { width: 70, height: 37 })).toContain('&lt;b&gt;&amp;&quot;')
    expect(drawLabel(label, { width: 70, height: 37 })).toContain('of Deck &lt;dock&gt;')
  })
  it.each(LABEL_SIZES.map((size) => [size.name, size] as const))(
    '%s: every label lies whole on its sheet',
    (_, size) => {
      const { sheet } = size
      expect(sheet.left + sheet.columns * size.width + (sheet.columns - 1) * sheet.gapX).toBeLessThanOrEqual(
        sheet.width + 0.01,
      )
      expect(sheet.top + sheet.rows * size.height + (sheet.rows - 1) * sheet.gapY).toBeLessThanOrEqual(
        sheet.height + 0.01,
      )
      const labels = Array.from(
        { length: sheet.columns * sheet.rows + 1 },
        () => labelsOf(cable(true), { code: '20G' }, modules)[0],
      )
      const sheets = sheetsOf(labels, size)
      expect(sheets.map((each) => each.length)).toEqual([labels.length - 1, 1])
      expect(drawSheet(sheets[1] ?? [], size, 'text{}')).toMatch(/^<svg .*<style>text\{\}<\/style>.*<\/svg>$/)
    },
  )
})
