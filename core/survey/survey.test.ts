import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { start } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import { addDevices, portsInTheWay, saveDevice, whatUses } from '../change/changes/survey'
import { assess } from '../checks/assess'
import { CONNECTORS } from '../standards/connectors'
import { CABLE_GRADES } from '../standards/grades'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import { type Device, deviceSchema, PORT_ROLES, PORT_SITES, type Port, portSchema } from '../vocabulary/device'
import { nameField } from '../vocabulary/fields'
import { keptPorts, parsePortLine, parsePortLines, portExample, portLine, type SaidPort } from './port-line'
import { fromTemplate, templates } from './templates'

const said = (line: string): SaidPort[] => {
  const read = parsePortLine(line)
  if (!read.ok) throw new Error(`${line}: ${read.problem}`)
  return read.value
}

describe('a port said in a line', () => {
  it('is understood as people read data sheets aloud', () => {
    expect(said(portExample)).toMatchObject([
      { name: 'type-C 1', connector: 'type-c', thunderbolt: 4, usb: 'gen2x1', gives: 15 },
      { name: 'type-C 2', displayport: { link: 'hbr3', lanes: 4, direction: 'out' } },
    ])
    expect(said('hdmi 2.0 in')).toMatchObject([
      { connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18', compression: false } },
    ])
    expect(said('left: TYPE-C TB4 takes 96W @left')).toMatchObject([{ name: 'left', takes: 96, controller: 'left' }])
    expect(said('dp in')).toMatchObject([{ connector: 'displayport', displayport: { direction: 'in', link: 'hbr2' } }])
    expect(said('type-A plug usb2')).toMatchObject([{ gender: 'plug', usb: 'usb2' }])
  })
  it('has the levels of its plate, what it lacks, and plugs of its own', () => {
    expect(said('C: type-C gives 45W 5Vx3A 9Vx3A 15Vx3A')).toMatchObject([
      {
        gives: 45,
        levels: [
          { volts: 5, amps: 3 },
          { volts: 9, amps: 3 },
          { volts: 15, amps: 3 },
        ],
      },
    ])
    expect(said('own-ring_plug device usb2 no-resistors')).toMatchObject([
      { name: 'ring plug', connector: 'own', ownPlug: 'ring plug', lacksResistors: true },
    ])
    expect(said('dvi in')).toMatchObject([{ connector: 'dvi', hdmi: { direction: 'in', level: 'tmds-4.95' } }])
    expect(parsePortLine('type-c power-only 10g')).toMatchObject({ ok: false })
    expect(said('type-c power-only gives 60W')).toMatchObject([{ gives: 60 }])
  })
  it('that is not understood names the word, and never guesses', () => {
    expect(parsePortLine('type-C warp9')).toMatchObject({ ok: false, problem: expect.stringContaining('"warp9"') })
    expect(parsePortLine('tb4 15W')).toMatchObject({ ok: false, problem: expect.stringContaining('which connector') })
    expect(parsePortLine('40x type-a')).toMatchObject({ ok: false })
    expect(parsePortLine('type-c takes 900W')).toMatchObject({ ok: false })
    expect(parsePortLines('type-c\n\nwarp\nhdmi 9')).toMatchObject({
      ports: [{ connector: 'type-c' }],
      faults: [{ line: 3 }, { line: 4 }],
    })
  })
  it('is read back the same from the line it is written as: every port of the demo and of the templates', () => {
    const ports = [
      ...demo.devices.flatMap((device) => device.ports),
      ...templates.flatMap((template) => fromTemplate(template).ports),
    ]
    expect(ports.length).toBeGreaterThan(100)
    for (const { id: _, ...port } of ports) {
      const usual = port.thunderbolt || port.usb4 ? { usb: port.usb ?? 'gen2x1' } : {}
      expect(said(portLine(port)), portLine(port)).toEqual([{ ...port, ...usual }])
    }
  })
  it('is read back the same from the line it is written as, whatever port there can be', () => {
    const word = fc
      .string({ minLength: 1, maxLength: 14, unit: 'grapheme' })
      .filter((text) => nameField.safeParse(text).data === text)
    const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined })
    const watts = fc.double({ min: 0.01, max: 240, noNaN: true })
    const made = fc.record({
      name: fc.oneof(word, fc.constantFrom('left: upper', '"left"', '2x', 'a  b', 'hdmi 2.0')),
      connector: fc.constantFrom(...CONNECTORS.filter((each) => each !== 'own')),
      gender: fc.constantFrom('socket', 'plug'),
      role: fc.constantFrom(...PORT_ROLES),
      usb: maybe(fc.constantFrom('usb2', 'gen1x1', 'gen2x1', 'gen2x2')),
      usb4: maybe(fc.constantFrom(20, 40, 80)),
      thunderbolt: maybe(fc.constantFrom(3, 4, 5)),
      displayport: maybe(
        fc.record({
          direction: fc.constantFrom('in', 'out'),
          link: fc.constantFrom(...DISPLAYPORT_LINKS),
          lanes: fc.constantFrom(1, 2, 4),
          compression: fc.boolean(),
        }),
      ),
      hdmi: maybe(
        fc.record({
          direction: fc.constantFrom('in', 'out'),
          level: fc.constantFrom(...HDMI_LEVELS),
          compression: fc.boolean(),
        }),
      ),
      gives: maybe(watts),
      takes: maybe(watts),
      lacksResistors: maybe(fc.constant(true)),
      accepts: maybe(fc.subarray([5, 9, 12, 15, 20, 28.5], { minLength: 1 })),
      captive: maybe(
        fc.record({
          length: fc.double({ min: 0.01, max: 9999, noNaN: true }),
          grade: maybe(fc.constantFrom(...CABLE_GRADES)),
          swappable: maybe(fc.constant(true)),
        }),
      ),
      reserves: maybe(fc.constantFrom('link', 'stream')),
      sits: maybe(fc.constantFrom(...PORT_SITES)),
      controller: maybe(word),
    })
    fc.assert(
      fc.property(made, (port) => {
        const { id: _, ...said } = portSchema.parse(JSON.parse(JSON.stringify({ id: 'p', ...port })))
        expect(parsePortLine(portLine(said))).toEqual({ ok: true, value: [said] })
      }),
      { numRuns: cases(1500) },
    )
  })
  it('never fails on what people type', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (line) => {
        const read = parsePortLine(line)
        if (!read.ok) expect(read.problem).not.toBe('')
        else expect(read.value.length).toBeGreaterThan(0)
      }),
      { numRuns: cases(500) },
    )
  })
})

describe('the ports of a device that is said anew', () => {
  const device = demo.devices.find(({ id }) => id === 'gallery-dock') as Device
  const lines = (ports: readonly Port[]) => ports.map(portLine).join('\n')
  it('keep their ids by name, in whatever order, and in place where one is renamed', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...device.ports], { minLength: device.ports.length }), (order) => {
        const kept = keptPorts(parsePortLines(lines(order)).ports, device.ports)
        expect(kept.map(({ id }) => id)).toEqual(order.map(({ id }) => id))
      }),
    )
    const renamed = device.ports.map((port, at) => (at === 1 ? { ...port, name: 'the left screen' } : port))
    expect(keptPorts(parsePortLines(lines(renamed)).ports, device.ports).map(({ id }) => id)).toEqual(
      device.ports.map(({ id }) => id),
    )
  })
  it('have ids of their own where they are new, and two of one name are told apart', () => {
    const ports = keptPorts(parsePortLines(`${lines(device.ports)}\ntype-A 5g\ntype-A 5g`).ports, device.ports)
    expect(new Set(ports.map(({ id }) => id)).size).toBe(device.ports.length + 2)
    expect(ports.at(-1)?.name).toBe('type-A 2')
  })
  it('that a run still ends at are not let go without a word', () => {
    expect(portsInTheWay(demo, { ...device, ports: device.ports.slice(1) }).map(({ reason }) => reason)).toEqual([
      'run R-09 ends at a port that is no longer among the lines',
    ])
    expect(portsInTheWay(demo, device)).toEqual([])
    expect(whatUses(demo, device).length).toBeGreaterThan(3)
  })
  it('said the same, every verdict stays', () => {
    for (const each of demo.devices) {
      const ports = keptPorts(parsePortLines(lines(each.ports)).ports, each.ports)
      const applied = applyChange(start, { edits: saveDevice({ ...each, ports }, 1).edits as never })
      if (applied.outcome !== 'applied') throw new Error(`${each.name}: ${JSON.stringify(applied)}`)
      expect(assess(applied.copy.plan).runs.map(({ grade }) => grade)).toEqual(
        assess(demo).runs.map(({ grade }) => grade),
      )
    }
  })
})

describe('the templates', () => {
  it('are devices that a plan takes, each with ports that are all understood', () => {
    for (const template of templates) {
      expect(parsePortLines(template.lines.join('\n')).faults, template.name).toEqual([])
      const made = deviceSchema.safeParse({ ...fromTemplate(template), id: 'one' })
      expect(made.success, template.name).toBe(true)
    }
    expect(templates.length).toBeGreaterThan(30)
  })
  it('come twelve at once, with numbered names that nobody has', () => {
    const [laptop] = templates
    if (!laptop) throw new Error('there is a laptop')
    const { edits, ids } = addDevices(demo, { ...fromTemplate(laptop), name: 'Desk laptop' }, 12)
    expect(new Set(ids).size).toBe(12)
    const applied = applyChange(start, { edits })
    expect(applied.outcome).toBe('applied')
    if (applied.outcome === 'applied')
      expect(applied.copy.plan.devices.slice(-12).map(({ name }) => name)).toEqual(
        Array.from({ length: 12 }, (_, at) => `Desk laptop ${at + 1}`),
      )
  })
})
