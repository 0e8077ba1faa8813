import { describe, expect } from 'vitest'
import { ours, practice, remembered } from '../../tests/support/figures'
import { judge, type OneRun } from '../../tests/support/one-run'
import { planFrom, portOf as port, runOf as run } from '../../tests/support/shorthand'
import { dockView } from '../dock/dock'
import type { Plan } from '../plan/plan'
import { assess, assessAnew } from './assess'
import type { Finding } from './checks'
import { sentence } from './sentences'

// Situations that came out wrong once, each as a person would enter it.

const lead = (id: string, grade: string, length: number, more: object = {}) => ({
  id,
  tag: id.toUpperCase(),
  ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
  length,
  evidence: [{ basis: 'claimed', on: '2026-01-01', grade, amps: 5 }],
  ...more,
})
const laptop = {
  id: 'laptop',
  name: 'Laptop',
  kind: 'computer',
  ports: [port('c', 'type-c', { role: 'host', usb: 'gen2x1', thunderbolt: 4 })],
}
const dock = {
  id: 'dock',
  name: 'Dock',
  kind: 'dock',
  ports: [
    port('up', 'type-c', { role: 'device', usb: 'gen2x1', thunderbolt: 4 }),
    port('d1', 'type-c', { role: 'host', usb: 'gen2x1', thunderbolt: 4 }),
    port('d2', 'type-c', { role: 'host', usb: 'gen2x1' }),
    port('d3', 'type-c', { role: 'host', usb: 'gen2x1' }),
  ],
}
const findingsOf = (plan: Plan, need: string): readonly Finding[] =>
  assess(plan).needs.find(({ id }) => id === need)?.findings ?? []
const gradeOf = (plan: Plan, need: string) => assess(plan).needs.find(({ id }) => id === need)?.grade

describe('storage behind a dock', () => {
  const disk = (more: object = {}) => ({
    id: 'disk',
    name: 'Disk',
    kind: 'storage',
    ports: [port('c', 'type-c', { role: 'device', usb: 'gen2x1', thunderbolt: 4 })],
    ...more,
  })
  const plan = (rate: number, more: object = {}, display: object[] = []) =>
    planFrom({
      devices: [
        laptop,
        dock,
        disk(more),
        {
          id: 'screen',
          name: 'Screen',
          kind: 'display',
          ports: [
            port('c', 'type-c', {
              role: 'device',
              thunderbolt: 4,
              displayport: { direction: 'in', link: 'hbr3', lanes: 4, compression: true },
            }),
          ],
        },
      ],
      cables: [lead('c1', 'usb4-40', 0.7), lead('c2', 'usb4-40', 0.7), lead('c3', 'usb4-40', 0.7)],
      runs: [
        run('r1', 'laptop/c', 'dock/up', 'c1'),
        run('r2', 'dock/d1', 'disk/c', 'c2'),
        run('r3', 'dock/d2', 'screen/c', 'c3'),
      ],
      needs: [...display, { id: 'copy', kind: 'storage', from: 'laptop', to: 'disk', rate, back: 1e9 }],
    })
  ours(
    'meets the overhead of the tunnel also where nobody described the drive: 4500 MB/s over 40 Gb/s is too much',
    () => {
      expect(gradeOf(plan(36e9), 'copy')).toBe('blocked')
      // 20 to 25 % of overhead (common practice)
      expect(gradeOf(plan(29e9), 'copy')).toBe('clear')
      expect(gradeOf(plan(30e9), 'copy')).toBe('tight')
    },
  )
  ours('is told once for the whole path, by the run that leaves it least', () => {
    const bands = findingsOf(plan(20e9, { disk: { write: 40e9, read: 40e9, pcie: '3x2' } }), 'copy').filter(
      ({ check }) => check === 'storage target',
    )
    expect(bands).toHaveLength(1)
    expect(bands[0]?.part.id).toBe('r2')
  })
  ours('writes share their way with pictures, and reads do not', () => {
    const shown = [
      { id: 'show', kind: 'picture', from: 'laptop', to: 'dock', mode: { width: 5120, height: 2880, refresh: 60 } },
    ]
    // 38.8 less 22.2 leaves 16.6 toward the dock, of which 12.4 to 13.3 are there for a copy
    expect(gradeOf(plan(14e9, {}, shown), 'copy')).toBe('blocked')
    expect(gradeOf(plan(14e9), 'copy')).toBe('clear')
    const reads = plan(1e9, {}, shown)
    expect(
      gradeOf(
        { ...reads, needs: reads.needs.map((need) => (need.kind === 'storage' ? { ...need, back: 28e9 } : need)) },
        'copy',
      ),
    ).toBe('clear')
  })
})

describe('devices of USB 2.0 behind a faster dock', () => {
  const cameras = (rates: number[], uplink: object = lead('c1', 'usb4-40', 0.7)) =>
    planFrom({
      devices: [
        laptop,
        dock,
        ...rates.map((_, at) => ({
          id: `cam${at}`,
          name: `Camera ${at}`,
          kind: 'camera',
          ports: [port('c', 'type-c', { role: 'device', usb: 'usb2' })],
        })),
      ],
      cables: [uplink, ...rates.map((_, at) => lead(`k${at}`, 'usb2', 1))],
      runs: [
        run('r0', 'laptop/c', 'dock/up', 'c1'),
        ...rates.map((_, at) => run(`r${at + 1}`, `dock/d${at + 2}`, `cam${at}/c`, `k${at}`)),
      ],
      needs: rates.map((rate, at) => ({ id: `n${at}`, kind: 'camera', from: `cam${at}`, to: 'laptop', rate })),
    })
  remembered('USB 3.2')('share 480 Mb/s, whatever the uplink has beside it', () => {
    expect(['n0', 'n1'].map((need) => gradeOf(cameras([200e6, 150e6]), need))).not.toContain('blocked')
    const full = cameras([250e6, 250e6])
    expect(['n0', 'n1'].map((need) => gradeOf(full, need))).toContain('blocked')
    // the ports of the dock are not to blame
    const [found] = ['n0', 'n1'].flatMap((need) => findingsOf(full, need)).filter(({ grade }) => grade === 'blocked')
    expect(found?.reason).toMatchObject({ code: 'rate', cause: null, before: expect.closeTo(250e6, 0) })
  })
  ours('need the USB 2.0 pair of the uplink, which an optical lead may not have', () => {
    const plan = cameras([100e6], lead('c1', 'usb4-40', 5, { construction: 'optical' }))
    const [found] = findingsOf(plan, 'n0').filter(({ grade }) => grade === 'blocked')
    expect(found && sentence(found)).toContain('brings no USB 2.0 pair')
    expect(found?.part.id).toBe('c1')
  })
})

describe('pictures', () => {
  const host: OneRun['from'] = {
    connector: 'type-c',
    role: 'host',
    usb: 'gen2x2',
    displayport: { direction: 'out', link: 'hbr2', lanes: 4, compression: false },
  }
  const display: OneRun['to'] = {
    kind: 'display',
    connector: 'type-c',
    role: 'device',
    usb: 'gen2x2',
    displayport: { direction: 'in', link: 'hbr2', lanes: 4, compression: false },
  }
  const fullHd = { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } as const
  remembered('DisplayPort alternate mode, pin assignment D')(
    'Gen 2x2 beside a picture falls to 10 Gb/s: one lane is left',
    () => {
      const { run } = judge({
        from: host,
        to: display,
        leads: [{ grade: 'usb4-40', length: 0.8 }],
        need: { kind: 'picture', mode: fullHd },
        alsoNeed: [{ kind: 'data', rate: 20e9 }],
      })
      expect(run.findings.find(({ check }) => check === 'rate')).toMatchObject({ grade: 'blocked', have: 10e9 })
    },
  )
  const hdmi = (direction: 'in' | 'out', level: 'tmds-10.2' | 'tmds-18' | 'tmds-4.95') =>
    ({ connector: 'hdmi', hdmi: { direction, level, compression: false } }) as const
  const hdmiLead = { ends: ['hdmi', 'hdmi'], grade: 'hdmi-18', length: 2 } as OneRun['leads'][number]
  remembered('HDMI')('one HDMI link carries one picture', () => {
    const { run, words } = judge({
      from: hdmi('out', 'tmds-18'),
      to: hdmi('in', 'tmds-18'),
      leads: [hdmiLead],
      need: { kind: 'picture', mode: fullHd },
      alsoNeed: [{ kind: 'picture', mode: fullHd }],
    })
    expect(run.grade).toBe('blocked')
    expect(words).toContain('carries one picture')
  })
  remembered('DVI 1.0')('DVI carries RGB only', () => {
    const dvi = (direction: 'in' | 'out') => ({ ...hdmi(direction, 'tmds-4.95'), connector: 'dvi' }) as const
    const over = (chroma: '444' | '420') =>
      judge({
        from: dvi('out'),
        to: dvi('in'),
        leads: [{ ...hdmiLead, ends: ['dvi', 'dvi'] }],
        need: { kind: 'picture', mode: { ...fullHd, chroma } },
      }).run.grade
    expect([over('444'), over('420')]).toEqual(['clear', 'blocked'])
  })
  ours('an active HDMI lead goes as far as a passive one at 165 MHz', () => {
    const at = (length: number, construction: 'passive' | 'active') =>
      judge({
        from: hdmi('out', 'tmds-18'),
        to: hdmi('in', 'tmds-18'),
        leads: [{ ...hdmiLead, length, construction }],
        need: { kind: 'picture', mode: fullHd },
        route: 10,
      }).run.grade
    expect(at(15, 'active')).toBe(at(15, 'passive'))
    expect(at(15, 'active')).toBe('clear')
  })
  ours(
    'how a host holds room is a fact of its port where it is known, and what is held beside what is sent is said',
    () => {
      const twoScreens = (reserves: object) =>
        planFrom({
          devices: [{ ...laptop, ports: laptop.ports.map((each) => ({ ...each, ...reserves })) }, dock],
          cables: [lead('c1', 'usb4-40', 0.7)],
          runs: [run('r1', 'laptop/c', 'dock/up', 'c1')],
          needs: ['one', 'two'].map((id) => ({
            id,
            kind: 'picture',
            from: 'laptop',
            to: 'dock',
            mode: { ...fullHd, width: 3840, height: 2160 },
          })),
        })
      expect(gradeOf(twoScreens({}), 'two')).toBe('blocked')
      expect(gradeOf(twoScreens({ reserves: 'stream' }), 'two')).toBe('clear')
      const words = findingsOf(twoScreens({}), 'one')
        .map((finding) => sentence(finding))
        .join(' ')
      expect(words).toContain('25.92 Gb/s are held for it')
      // the dock's page reads the same
      const view = dockView(assessAnew(twoScreens({})), 'dock')
      expect(view?.lines.map(({ grade }) => grade)).toEqual(['clear', 'blocked'])
    },
  )
})

describe('leads of one run', () => {
  ours('lie one behind the other in a conduit: the thickest fills it', () => {
    const inConduit = (...thickness: number[]) =>
      judge({
        from: { connector: 'type-a', role: 'host', usb: 'usb2' },
        to: { connector: 'type-b', role: 'device', usb: 'usb2' },
        leads: thickness.map((each, at) => ({
          grade: 'usb2',
          length: 1,
          ends: at === thickness.length - 1 ? ['type-a', 'type-b'] : ['type-a', 'type-a socket'],
          more: { thickness: each },
        })),
        path: { conduit: { inner: 8 } },
      }).finding('surroundings')
    expect(inConduit(5, 5)).toMatchObject({ grade: 'note' })
    expect(inConduit(5, 6)).toMatchObject({ grade: 'blocked' })
  })
  practice('a 1 m passive extension may stand before the own lead of a device', () => {
    const { run } = judge({
      from: { connector: 'type-a', role: 'host', usb: 'gen1x1' },
      to: { connector: 'type-b', role: 'device', usb: 'gen1x1' },
      leads: [
        { grade: 'gen1', length: 1, ends: ['type-a', 'type-a socket'] },
        { grade: 'gen1', length: 1.8, ends: ['type-a', 'type-b'] },
      ],
    })
    expect(run.mode).toBe('gen1x1')
  })
})

describe('a lead that belongs to its device', () => {
  const host: OneRun['from'] = { connector: 'type-a', role: 'host', usb: 'gen1x1', gives: 4.5 }
  const webcam = (length: number, usb: 'usb2' | 'gen1x1' = 'gen1x1'): OneRun['to'] => ({
    kind: 'camera',
    connector: 'type-a',
    gender: 'plug',
    role: 'device',
    usb,
    captive: { length },
  })
  const extension = (length: number): OneRun['leads'][number] => ({
    grade: 'gen1',
    length,
    ends: ['type-a', 'type-a socket'],
  })
  const need = { kind: 'camera', rate: 1e8 } as const
  ours('needs no other where plug and socket mate, and its metres span the route', () => {
    const near = judge({ from: host, to: webcam(1.5), leads: [], route: 1.2, need })
    expect(near.run.grade).toBe('clear')
    expect(near.words).toContain('fit without a lead between them')
    const far = judge({ from: host, to: webcam(1.5), leads: [], route: 2.2, need })
    expect(far.finding('length')).toMatchObject({ grade: 'blocked', have: 1.5, part: { kind: 'port' } })
    // 2.2 m and a tenth of slack, of which 1.5 m are there
    expect(far.finding('length')?.remedies).toEqual([{ code: 'extend-own-lead', length: expect.closeTo(0.92, 6) }])
  })
  ours('counts in span and in reach beside an extension before it', () => {
    const { run, finding } = judge({ from: host, to: webcam(1.5), leads: [extension(1)], route: 2.2, need })
    expect(run.mode).toBe('gen1x1')
    expect(finding('length')).toMatchObject({ grade: 'clear', have: 2.5 })
    // 1 m of extension and 2.5 m of its own are more than 3 m of passive lead
    expect(judge({ from: host, to: webcam(2.5), leads: [extension(1)], route: 3, need }).run.mode).toBe('usb2')
  })
  ours('that is held by a bracket may be swapped for one that spans the route', () => {
    const to = { ...webcam(1.5), captive: { length: 1.5, swappable: true as const } }
    const alone = judge({ from: host, to, leads: [], route: 2, need }).finding('length')
    expect(alone?.remedies).toContainEqual({ code: 'swap-own-lead', device: 'Far', length: expect.closeTo(2.2, 6) })
    const extended = judge({ from: host, to, leads: [extension(0.5)], route: 2, need }).finding('length')
    expect(extended?.remedies).toEqual([
      { code: 'longer', length: expect.closeTo(0.7, 6) },
      { code: 'swap-own-lead', device: 'Far', length: expect.closeTo(1.7, 6) },
    ])
  })
  ours('works at its own length, whatever the tables have', () => {
    expect(judge({ from: host, to: webcam(6), leads: [], route: 5, need }).run.mode).toBe('gen1x1')
  })
  practice('with an older plug charges on 5 V alone', () => {
    const { finding } = judge({
      from: { connector: 'type-a', role: 'host', gives: 15 },
      to: { kind: 'other', connector: 'type-a', gender: 'plug', takes: 20, captive: { length: 1 } },
      leads: [],
      need: { kind: 'power', watts: 20 },
    })
    expect(finding('current')).toMatchObject({ have: 15 })
  })
})

describe('a dock that makes its picture over plain USB', () => {
  const plan = (usb: 'usb2' | 'gen1x1', copy = 1e9) =>
    planFrom({
      devices: [
        { ...laptop, ports: [port('c', 'type-c', { role: 'host', usb: 'gen1x1' })] },
        {
          id: 'dock',
          name: 'Dock',
          kind: 'dock',
          pictureOverUsb: 2e9,
          ports: [
            port('up', 'type-c', { role: 'device', usb }),
            port('h', 'hdmi', { hdmi: { direction: 'out', level: 'tmds-18' } }),
          ],
        },
        {
          id: 'screen',
          name: 'Screen',
          kind: 'display',
          ports: [port('h', 'hdmi', { hdmi: { direction: 'in', level: 'tmds-18' } })],
        },
      ],
      cables: [
        lead('c1', 'gen1', 1),
        {
          ...lead('c2', 'hdmi-18', 2),
          ends: [{ connector: 'hdmi' }, { connector: 'hdmi' }],
        },
      ],
      runs: [run('r1', 'laptop/c', 'dock/up', 'c1'), run('r2', 'dock/h', 'screen/h', 'c2')],
      needs: [
        {
          id: 'show',
          kind: 'picture',
          from: 'laptop',
          to: 'screen',
          mode: { width: 1920, height: 1080, refresh: 60 },
        },
        { id: 'copy', kind: 'data', from: 'laptop', to: 'dock', rate: copy },
      ],
    })
  ours('takes of the link what it is said to take, and leaves the rest to the data', () => {
    expect(gradeOf(plan('gen1x1'), 'show')).toBe('clear')
    expect(gradeOf(plan('gen1x1', 3e9), 'copy')).toBe('blocked')
    expect(gradeOf(plan('usb2'), 'show')).toBe('blocked')
    const words = findingsOf(plan('gen1x1'), 'show').map((finding) => sentence(finding))
    expect(words.join(' ')).toContain('made over USB by a driver')
  })
})
