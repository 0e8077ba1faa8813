import { describe, expect, it } from 'vitest'
import { planFrom } from '../../tests/support/shorthand'
import { parseJob } from '../match/job-text'
import { indexPlan } from '../plan/site-index'
import { drawerRows, openQuestion, rowsForJob } from './drawer-rows'

const c = [{ connector: 'type-c' }, { connector: 'type-c' }]
const mark = (grade: string, amps = 3) => [{ basis: 'claimed', on: '2026-01-01', grade, amps }]
const port = (id: string, role: string) => ({ id, name: id, connector: 'type-c', role, usb: 'gen2x1' })
const plan = planFrom({
  devices: [
    { id: 'pc', name: 'Desk computer', kind: 'computer', ports: [port('1', 'host')] },
    { id: 'dock', name: 'Gallery dock', kind: 'dock', ports: [port('up', 'device')] },
  ],
  cables: [
    { id: 'a', tag: 'C-1', ends: c, length: 0.8, suppliedWith: 'dock', evidence: mark('usb4-40', 5) },
    { id: 'b', tag: 'C-2', ends: c, length: 2, note: 'blue sleeve' },
    { id: 'd', tag: 'C-3', ends: c, length: 0.8, standing: 'retired', evidence: mark('usb4-40', 5) },
    {
      id: 'e',
      tag: 'C-4',
      ends: c,
      length: 1,
      standing: 'lent',
      evidence: [
        ...mark('gen2'),
        { basis: 'chip', on: '2026-01-02', grade: 'usb2' },
        { basis: 'measured', on: '2026-01-03', measure: 'write', rate: 320e6 },
      ],
    },
  ],
  runs: [
    {
      id: 'r',
      tag: 'R-01',
      from: { device: 'pc', port: '1' },
      to: { device: 'dock', port: 'up' },
      leads: [{ cable: 'a' }],
      route: { length: 0.5 },
    },
  ],
})
const index = indexPlan(plan)
const rows = drawerRows(index)
const tagsFor = (text: string) => rowsForJob(rows, parseJob(text)).map(({ cable }) => cable.tag)

describe('the drawer', () => {
  it('says where each cable is, what came with what, and what was read last', () => {
    expect(rows.map(({ where }) => (where.at === 'run' ? where.run.tag : where.at))).toEqual([
      'R-01',
      'drawer',
      'retired',
      'lent',
    ])
    expect(rows[0]?.pairing).toBe('Gallery dock')
    expect(rows[3]?.last).toBe('40 MB/s')
  })
  it('asks for what is unknown or disagrees, never of what is retired', () => {
    expect(rows.map(({ open }) => open)).toEqual([null, 'unknown', null, 'disagrees'])
    const [, unknown] = plan.cables
    if (!unknown) throw new Error('no cable')
    expect(openQuestion(index, { ...unknown, standing: 'retired' })).toBeNull()
  })
  it.each([
    ['', ['C-1', 'C-2', 'C-3', 'C-4']],
    ['40 Gb/s', ['C-1']],
    ['40 Gb/s retired', ['C-3']],
    ['at least 2 m', ['C-2']],
    ['blue', ['C-2']],
    ['gallery dock', ['C-1']],
    ['R-01', ['C-1']],
    ['unknown', ['C-2']],
    ['lent', ['C-4']],
    ['100 W', ['C-1']],
    ['80 Gb/s', []],
  ])('"%s" finds %s', (text, tags) => expect(tagsFor(text)).toEqual(tags))

  it('is searched by what import takes: connectors, marks and lengths as people say them', () => {
    const asked = (text: string) => {
      const { connectors, marks, atLeast, rate, words } = parseJob(text)
      return { connectors, marks, atLeast, rate, words }
    }
    const nothing = { connectors: [], marks: undefined, atLeast: undefined, rate: undefined, words: [] }
    expect(asked('usb-c')).toEqual({ ...nothing, connectors: ['type-c'] })
    expect(asked('mini dp to hdmi')).toEqual({ ...nothing, connectors: ['mini-displayport', 'hdmi'] })
    expect(asked('dp 2 m+')).toEqual({ ...nothing, connectors: ['displayport'], atLeast: 2 })
    expect(asked('40G usbc')).toEqual({ ...nothing, connectors: ['type-c'], rate: 40e9 })
    expect(asked('TB4')).toEqual({ ...nothing, marks: ['thunderbolt4', 'thunderbolt4'] })
    expect(asked('8K')).toEqual({ ...nothing, marks: ['hdmi-48', 'dp-hbr3'] })
    expect(asked('a blue usb lead')).toEqual({ ...nothing, words: ['a', 'blue', 'usb', 'lead'] })
  })
})
