import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planFrom } from '../../tests/support/shorthand'
import { observed } from '../change/changes/observations'
import { emptyPlan, type Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { CABLE_GRADES, gradeFacts } from '../standards/grades'
import { parseMark, parsePowerMark } from '../standards/mark-text'
import { type CableColumn, cableTable, guessMapping, readCableTable, type TableContext } from './cable-table'
import { catalogueTable, readCatalogueTable } from './catalogue-table'
import { decodeText, LARGEST_TABLE_BYTES } from './decode-text'
import { endsApart, parseEnd } from './end-text'

describe('what people write', () => {
  it.each([
    ['USB-C', { connector: 'type-c', gender: 'plug' }],
    ['type-A socket', { connector: 'type-a', gender: 'socket' }],
    ['HDMI female', { connector: 'hdmi', gender: 'socket' }],
    ['Mini DP', { connector: 'mini-displayport', gender: 'plug' }],
    ['RJ45', { connector: '8p8c', gender: 'plug' }],
    ['type C', { connector: 'type-c', gender: 'plug' }],
    ['usbc', { connector: 'type-c', gender: 'plug' }],
    ['USB Type-C (F)', { connector: 'type-c', gender: 'socket' }],
    ['USB-A female', { connector: 'type-a', gender: 'socket' }],
    ['A f', { connector: 'type-a', gender: 'socket' }],
    ['micro usb', { connector: 'micro-b', gender: 'plug' }],
    ['Mini-USB', { connector: 'mini-b', gender: 'plug' }],
    ['minidp', { connector: 'mini-displayport', gender: 'plug' }],
    ['hdmi male', { connector: 'hdmi', gender: 'plug' }],
  ])('%s is a connector', (text, end) => expect(parseEnd(text)).toEqual({ ok: true, value: end }))
  it.each([
    ['40', 'usb4-40'],
    ['40 Gb/s', 'usb4-40'],
    ['USB 10 Gb/s', 'gen2'],
    ['Thunderbolt 4', 'thunderbolt4'],
    ['TB3', 'thunderbolt3'],
    ['charge only', 'charge-only'],
    ['2.0', 'usb2'],
    ['HBR3', 'dp-hbr3'],
    ['HDMI 18 Gb/s', 'hdmi-18'],
    ['Cat 6A', 'cat6a'],
    ['40G', 'usb4-40'],
    ['10gbps', 'gen2'],
    ['DP 1.4', 'dp-hbr3'],
    ['HDMI 2.1', 'hdmi-48'],
    ['USB 3.0', 'gen1'],
    ['USB 3.2 Gen 1', 'gen1'],
    ['USB 3.2 Gen 2', 'gen2'],
    ['USB 3.2 gen2x2', 'usb4-20'],
    ['USB4', 'usb4-40'],
    ['TB4', 'thunderbolt4'],
    ['Thunderbolt 4 (40 Gb/s)', 'thunderbolt4'],
    ['Premium High Speed', 'hdmi-18'],
    ['cat5e', 'cat5'],
  ])('%s is a mark', (text, grade) => expect(parseMark(text)).toEqual({ ok: true, value: grade }))
  // what each version and class name promises at the least (common practice)
  it.each([
    ['2.0', ['hdmi', 'hdmi'], 'hdmi-18'],
    ['2.0', ['type-c', 'type-a'], 'usb2'],
    ['2.0', ['type-a', 'type-b'], 'usb2'],
    ['1.4', ['hdmi', 'hdmi'], 'hdmi-10'],
    ['1.4', ['displayport', 'displayport'], 'dp-hbr3'],
    ['8K', ['type-c', 'displayport'], 'dp-hbr3'],
    ['8K', ['hdmi', 'hdmi'], 'hdmi-48'],
    ['4K60', ['type-c', 'hdmi'], 'hdmi-18'],
    ['4K@60Hz', ['displayport', 'displayport'], 'dp-hbr2'],
    ['18 Gb/s', ['hdmi', 'hdmi'], 'hdmi-18'],
    ['high speed', ['hdmi', 'hdmi'], 'hdmi-10'],
    ['40', ['type-c', 'type-c'], 'usb4-40'],
  ] as const)('%s on %s is %s', (text, ends, grade) =>
    expect(parseMark(text, ends)).toEqual({ ok: true, value: grade }),
  )
  it('two ends said in one cell are told apart', () => {
    expect(['USB-C to HDMI', 'C - C', 'A-C', 'DP/HDMI', 'usb-c -> usb-c', 'USB-C', 'type-c'].map(endsApart)).toEqual([
      ['USB-C', 'HDMI'],
      ['C', 'C'],
      ['A', 'C'],
      ['DP', 'HDMI'],
      ['usb-c', 'usb-c'],
      null,
      null,
    ])
  })
  it('every grade is read back by its own name', () => {
    for (const grade of CABLE_GRADES) expect(parseMark(gradeFacts[grade].name)).toEqual({ ok: true, value: grade })
  })
  it.each([
    ['60 W', 3, 20],
    ['100W', 5, 20],
    ['240', 5, 50],
    ['5 A', 5, 20],
    ['none', 0, 20],
  ])('%s is a power mark', (text, amps, volts) =>
    expect(parsePowerMark(text)).toEqual({ ok: true, value: { amps, volts } }),
  )
  it('anything else is refused with what is known', () => {
    const refused = [parseEnd('toslink'), parseMark('fast'), parsePowerMark('lots')]
    expect(refused.map((read) => (read.ok ? '' : read.problem))).toEqual([
      expect.stringContaining('"toslink" is not a connector. Known are type-C'),
      expect.stringContaining('"fast" is not a mark'),
      expect.stringContaining('"lots" is not a power mark'),
    ])
  })
})

describe('the text of a file', () => {
  const bytes = (text: string) => new TextEncoder().encode(text)
  const utf16 = (text: string, { little, mark }: { little: boolean; mark: boolean }) => {
    const units = [...(mark ? '\ufeff' : ''), ...text].map((letter) => letter.charCodeAt(0))
    return Uint8Array.from(units.flatMap((unit) => (little ? [unit & 255, unit >> 8] : [unit >> 8, unit & 255])))
  }
  const table = 'tag;length\nC-1;2 m, blå\n'
  it.each([
    ['UTF-8', bytes(table)],
    ['UTF-8', bytes(`\ufeff${table}`)],
    ['UTF-16', utf16(table, { little: true, mark: true })],
    ['UTF-16', utf16(table, { little: false, mark: true })],
    ['UTF-16', utf16(table, { little: true, mark: false })],
    ['UTF-16', utf16(table, { little: false, mark: false })],
    ['Latin-1', Uint8Array.from(table, (letter) => letter.charCodeAt(0))],
  ])('%s is read', (encoding, given) =>
    expect(decodeText(given)).toEqual({ ok: true, value: { text: table, encoding } }),
  )
  it.each([
    ['nothing', new Uint8Array(), 'The file is empty'],
    ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]), 'binary data'],
    ['noise', Uint8Array.from({ length: 500 }, (_, at) => (at * 89) % 251), 'binary data'],
    ['one endless line', bytes('x'.repeat(30_000)), 'one of its lines has 30,000 characters'],
    ['too much', new Uint8Array(LARGEST_TABLE_BYTES + 1), 'at most 6 MB'],
  ])('%s is refused', (_, given, reason) => {
    const read = decodeText(given)
    expect(read.ok ? '' : read.problem).toContain(reason)
  })
  it('bytes of any sort never make it throw', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 400 }), (given) => typeof decodeText(given).ok === 'boolean'))
  })
})

const plan: Plan = (() => {
  const read = readPlan({
    ...emptyPlan({ id: 's', name: 'S' }),
    devices: [{ id: 'dock', name: 'Gallery dock', kind: 'dock' }],
    cables: [{ id: 'c-1', tag: 'C-1', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], length: 1 }],
  })
  if (!read.ok) throw new Error('the plan has faults')
  return read.plan
})()
const context: TableContext = { plan, unit: 'm', idOf: (tag) => tag.toLowerCase() }
const headers = ['Label', 'Connector A', 'Connector B', 'Length (ft)', 'Printed', 'Watts', 'Came with', 'Status']
const read = (...rows: string[][]) => readCableTable(headers, rows, guessMapping(headers), context)

describe('a table of cables', () => {
  it('headers are understood in the words people use', () => {
    expect(guessMapping(headers)).toEqual({
      tag: 0,
      'first end': 1,
      'second end': 2,
      length: 3,
      mark: 4,
      power: 5,
      'supplied with': 6,
      standing: 7,
    })
    expect(guessMapping(['what', 'ever'])).toEqual({})
    expect(guessMapping(['tag', 'cable'])).toEqual({ tag: 0 })
  })
  it('a good row is a cable with its mark as evidence; bare figures are in the unit of the header', () => {
    expect(read(['C-2', 'C', 'C', '10', '40', '100 W', 'gallery dock', 'lent']).good).toEqual([
      {
        line: 2,
        cable: expect.objectContaining({
          tag: 'C-2',
          length: 3.048,
          suppliedWith: 'dock',
          standing: 'lent',
          construction: 'passive',
        }),
        marks: [{ kind: 'statement', basis: 'claimed', grade: 'usb4-40', amps: 5 }],
      },
    ])
  })
  it('as people have it comes in: columns told by what stands in them, marks and ends as they are said', () => {
    const list = [
      ['Nr', 'Plugs', 'Type', 'Len', 'Rating', 'What for'],
      ['L1', 'USB-C to USB-C', '40G', '0.8m', '100W', 'laptop'],
      ['L2', 'usb-c - usb-c', 'TB4', '6\'6"', '100 W', ''],
      ['L3', 'HDMI to HDMI', 'Premium High Speed', '5 m', '', 'meeting room'],
      ['L4', 'HDMI to HDMI', '2.1', '3 m', '', ''],
      ['L5', 'DP to DP', 'DP 1.4', '2m', '', ''],
      ['L6', 'USB-C to HDMI', '4K60', '2', '', ''],
      ['L7', 'A-C', 'USB 3.2 Gen 1', '1 m', '60 W', ''],
      ['L8', 'A-B', '2.0', '16 ft', '', 'printer'],
      ['L9', 'USB-C to DP', '8K', '1 m', '', ''],
      ['L10', 'C-C', 'none', '50 cm', '60W', 'charger'],
      ['L11', 'mini DP to DP', '?', '2 m', '', ''],
    ]
    const [first = [], ...rows] = list
    const mapping = guessMapping(first, rows)
    expect(mapping).toMatchObject({ tag: 0, 'first end': 1, 'second end': 1, mark: 2, length: 3, power: 4 })
    const { good, bad } = readCableTable(first, rows, mapping, context)
    expect(bad).toEqual([])
    expect(
      good.map(({ cable, marks }) => [cable.ends.map(({ connector }) => connector).join(), marks[0]?.grade]),
    ).toEqual([
      ['type-c,type-c', 'usb4-40'],
      ['type-c,type-c', 'thunderbolt4'],
      ['hdmi,hdmi', 'hdmi-18'],
      ['hdmi,hdmi', 'hdmi-48'],
      ['displayport,displayport', 'dp-hbr3'],
      ['type-c,hdmi', 'hdmi-18'],
      ['type-a,type-c', 'gen1'],
      ['type-a,type-b', 'usb2'],
      ['type-c,displayport', 'dp-hbr3'],
      ['type-c,type-c', null],
      ['mini-displayport,displayport', undefined],
    ])
  })
  it('without tags gets the next free ones, and without a column for an end says so once', () => {
    const rows = Array.from({ length: 3 }, () => ['C', 'C', '1 m'])
    const { good } = readCableTable(
      ['plug a', 'plug b', 'length'],
      rows,
      { 'first end': 0, 'second end': 1, length: 2 },
      context,
    )
    expect(good.map(({ cable }) => cable.tag)).toEqual(['C-2', 'C-3', 'C-4'])
    const none = readCableTable(['plug a', 'length'], rows, { 'first end': 0, length: 1 }, context)
    expect([none.good, none.bad, none.unchosen]).toEqual([[], [], ['second end']])
  })
  it('asks of a word it cannot read once, and takes it for all rows as it is told', () => {
    const columns = ['plug a', 'plug b', 'length', 'mark']
    const rows = ['zippy', 'Zippy', 'pro'].map((mark) => ['C', 'banana', '1 m', mark])
    const asked = readCableTable(columns, rows, guessMapping(columns), context)
    expect(asked.unread).toEqual([
      { column: 'end', text: 'banana', rows: 3 },
      { column: 'mark', text: 'zippy', rows: 2 },
      { column: 'mark', text: 'pro', rows: 1 },
    ])
    const settled = [
      { column: 'end', text: 'banana', as: 'type-a socket' },
      { column: 'mark', text: 'zippy', as: 'gen2' },
      { column: 'mark', text: 'pro', as: 'unknown' },
    ] as const
    const told = readCableTable(columns, rows, guessMapping(columns), { ...context, settled })
    expect([told.bad, told.unread]).toEqual([[], []])
    expect(told.good.map(({ cable, marks }) => [cable.ends[1], marks[0]?.grade])).toEqual([
      [{ connector: 'type-a', gender: 'socket' }, 'gen2'],
      [{ connector: 'type-a', gender: 'socket' }, 'gen2'],
      [{ connector: 'type-a', gender: 'socket' }, undefined],
    ])
  })
  it('a bad row says all that is wrong with it, and leaves the others alone', () => {
    const { good, bad } = read(
      ['C-3', 'toslink', 'C', '-4', 'fast', '', 'nobody', 'lost'],
      ['C-4', 'C', 'C', '3', '', '', '', ''],
      ['C-1', 'C', 'C', '3', '', '', '', ''],
      ['c-4', 'C', 'C', '3', '', '', '', ''],
      ['', 'C', 'C', '', '', '', '', ''],
    )
    expect(good.map(({ cable }) => cable.tag)).toEqual(['C-4'])
    expect(bad.map(({ line, problems }) => [line, problems.length])).toEqual([
      [2, 5],
      [4, 1],
      [5, 1],
      [6, 2],
    ])
    expect(bad[1]?.problems[0]).toBe('tag: "C-1" is already on a cable of the site')
    expect(bad[2]?.problems[0]).toBe('tag: "c-4" is already on a cable of line 3')
    expect(bad[3]?.problems).toEqual(['tag: it is missing', 'length: it is missing'])
  })
  it('what was written out is read back as the same cables', () => {
    const { good } = read(
      ['C-5', 'C', 'A socket', '3', '10', '3 A', 'Gallery dock', 'retired'],
      ['C-6', 'HDMI', 'HDMI', '6', 'HDMI 18 Gb/s', '', '', ''],
      ['C-7', 'C', 'C', '6', '40', '240 W', '', ''],
    )
    const cables = good.map(({ cable }, at) => ({ ...cable, ...(at === 0 ? { awg: 28, thickness: 4.2 } : {}) }))
    const [active] = cables
    if (active) Object.assign(active, { construction: 'active', feed: 'optional' })
    const witness = { at: '2026-03-01T09:00:00.000Z', by: undefined, newId: () => `o${Math.random()}` }
    const observations = good.flatMap(({ cable, marks }) => observed(marks, { cable: cable.id }, witness))
    const [first = [], ...rows] = cableTable({ ...plan, cables, observations }, cables)
    const back = readCableTable(first, rows, guessMapping(first), context)
    expect(back.bad).toEqual([])
    expect(back.good.map(({ cable }) => cable)).toEqual(cables)
    expect(back.good.map(({ marks }) => marks)).toEqual(good.map(({ marks }) => marks))
  })
  it('what is believed stands apart from what is marked: a listing or a measurement never becomes a mark', () => {
    const listed = planFrom({
      kinds: [{ id: 'k', name: 'Kind', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], grade: 'gen2' }],
      cables: [
        { id: 'a', tag: 'C-8', kind: 'k', ends: [{ connector: 'type-c' }, { connector: 'type-c' }], length: 1 },
        {
          id: 'b',
          tag: 'C-9',
          ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
          length: 1,
          evidence: [
            { basis: 'claimed', on: '2026-01-01', grade: 'gen2' },
            { basis: 'claimed', on: '2026-01-02', grade: null },
          ],
        },
      ],
    })
    const [first = [], ...rows] = cableTable(listed, listed.cables)
    const told = rows.map((row) => [row[first.indexOf('mark')], row[first.indexOf('believed')]])
    expect(told).toEqual([
      ['', 'USB 10 Gb/s (its listing)'],
      ['unmarked', ''],
    ])
    const back = readCableTable(first, rows, guessMapping(first), { ...context, plan: { ...listed, cables: [] } })
    expect(back.good.map(({ marks }) => marks)).toEqual([[], [{ kind: 'statement', basis: 'claimed', grade: null }]])
  })
  it('a bare length is in the unit its header names, otherwise in the reader’s own', () => {
    const lengthIn = (unit: 'm' | 'ft', header: string) =>
      readCableTable(
        ['tag', 'first end', 'second end', header],
        [['C-10', 'C', 'C', '10']],
        { tag: 0, 'first end': 1, 'second end': 2, length: 3 },
        { ...context, unit },
      ).good[0]?.cable.length
    expect(lengthIn('ft', 'length')).toBeCloseTo(3.048, 9)
    expect(lengthIn('m', 'length')).toBe(10)
    expect(lengthIn('ft', 'length (m)')).toBe(10)
    expect(lengthIn('m', 'length (ft)')).toBeCloseTo(3.048, 9)
  })
  it('cells of any text never make it throw', () => {
    const row = fc.array(fc.string(), { maxLength: 9 })
    fc.assert(
      fc.property(fc.array(row, { maxLength: 5 }), (rows) => {
        const { good, bad } = readCableTable(headers, rows, guessMapping(headers), context)
        expect(good.length + bad.length).toBe(rows.length)
      }),
    )
  })
  it('columns may be chosen by hand', () => {
    const mapping: Partial<Record<CableColumn, number>> = { tag: 3, 'first end': 2, 'second end': 1, length: 0 }
    const { good } = readCableTable(['a', 'b', 'c', 'd'], [['2 m', 'C', 'A', 'C-9']], mapping, context)
    expect(good[0]?.cable).toMatchObject({
      tag: 'C-9',
      length: 2,
      ends: [{ connector: 'type-a' }, { connector: 'type-c' }],
    })
  })
})

describe('a catalogue', () => {
  const columns = ['name', 'first end', 'second end', 'mark', 'power', 'length', 'price', 'lead days', 'return days']
  const idOf = (name: string) => name.toLowerCase().replace(/\W+/g, '-')
  it('rows of one name are one kind in several lengths', () => {
    const { kinds, bad } = readCatalogueTable(
      columns,
      [
        ['Desk lead', 'C', 'C', '10', '60 W', '2 m', '12.50', '3', '30'],
        ['Desk lead', 'C', 'C', '10', '60 W', '1 m', '9', '3', '30'],
        ['Long lead', 'C', 'C', '40', '240 W', '', '', '', ''],
      ],
      idOf,
    )
    expect(bad).toEqual([])
    expect(kinds.map(({ name, stock, leadDays, returnDays }) => ({ name, stock, leadDays, returnDays }))).toEqual([
      {
        name: 'Desk lead',
        stock: [
          { length: 1, price: 9 },
          { length: 2, price: 12.5 },
        ],
        leadDays: 3,
        returnDays: 30,
      },
      { name: 'Long lead', stock: [], leadDays: undefined, returnDays: undefined },
    ])
    const inHand = kinds.map((kind, at) => ({
      ...kind,
      hand: { gramsPerMetre: 40 + at, feel: 'stiff' as const, strap: at === 0 },
    }))
    const [head = [], ...lines] = catalogueTable(inHand)
    expect(readCatalogueTable(head, lines, idOf)).toEqual({ kinds: inHand, bad: [] })
    const [first = [], ...rows] = catalogueTable(kinds)
    expect(readCatalogueTable(first, rows, idOf)).toEqual({ kinds, bad: [] })
  })
  it('what cannot be read is said by line', () => {
    const { kinds, bad } = readCatalogueTable(
      columns,
      [
        ['Desk lead', 'C', 'C', '10', '', '2 m', '12', '3', '30'],
        ['Desk lead', 'C', 'A', '10', '', '3 m', '14', '3', '30'],
        ['Odd', 'C', 'C', 'fast', '', '2 m', '', 'soon', ''],
        ['', 'C', 'C', '10', '', '', '', '', ''],
      ],
      idOf,
    )
    expect(kinds).toHaveLength(1)
    expect(bad.map(({ line }) => line)).toEqual([3, 4, 5])
    expect(bad[0]?.problems).toEqual(['"Desk lead" is described otherwise on an earlier line'])
    expect(bad[1]?.problems).toHaveLength(3)
    expect(readCatalogueTable(['name'], [], idOf).bad[0]?.problems).toContain('the table has no column "mark"')
  })
})
