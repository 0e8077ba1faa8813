import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import * as build from '../../tests/support/edid-builder'
import { cases } from '../../tests/support/laws'
import { fieldsRead, patchSchema, withPatches } from '../survey/take-reading'
import { type Device, deviceSchema } from '../vocabulary/device'
import { readFromDevice } from './device-reading'
import { edidsInText } from './edid-text'
import type { DeviceReading } from './reading-shape'

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text)
function read(from: string | Uint8Array): DeviceReading {
  const answer = readFromDevice(typeof from === 'string' ? bytesOf(from) : from)
  if (!answer.ok) throw new Error(answer.problem)
  return answer.value
}

const edid = build.edid({
  input: 0xa2,
  descriptors: [
    build.detailed({ clock: 53325, width: 3840, hBlank: 160, height: 2160, vBlank: 62 }),
    build.nameOf('Chart 27'),
  ],
  extensions: [build.cta([[2, [16, 97]], build.hdmi(0x30, 300), build.forum(600, 6, true)])],
})
const hex = [...edid].map((byte) => byte.toString(16).padStart(2, '0'))
const rows = (size: number): string[] =>
  Array.from({ length: Math.ceil(hex.length / size) }, (_, row) => hex.slice(row * size, (row + 1) * size).join(' '))

describe('an EDID in a text', () => {
  it.each([
    ['digits alone', hex.join('')],
    ['a dump', rows(16).join('\n')],
    [
      'what a display server lists',
      `HDMI-1 connected\n\tEDID: \n${rows(16)
        .map((row) => `\t\t${row.replaceAll(' ', '')}`)
        .join('\n')}\n\tBroadcast RGB: Automatic`,
    ],
    [
      'a kernel log',
      rows(16)
        .map((row, at) => `[    4.${at}21] [drm] \t[${at === 0 ? '00] ZERO' : '02] GOOD'} ${row}`)
        .join('\n'),
    ],
    [
      'a log with other lines before and after',
      `Nov 25 10:00:01 host kernel: i915 loaded\n${rows(16)
        .map((row) => `(II) modeset(0): \t${row.replaceAll(' ', '')}`)
        .join('\n')}\n(II) modeset(0): done 12`,
    ],
  ])('%s', (_, text) => {
    expect(edidsInText(text)).toEqual([edid])
    expect(read(text).displays).toMatchObject([{ name: 'Chart 27' }])
  })
  it('cut short is read as far as it goes, and said so', () => {
    const cut = read(rows(16).slice(0, 10).join('\n'))
    expect(cut.displays).toMatchObject([{ name: 'Chart 27' }])
    expect(cut.faults.join()).toContain('promises 1 extension')
  })
  it('two displays in one log are two', () => {
    expect(edidsInText(`${rows(16).join('\n')}\nnext\n${rows(16).join('\n')}`)).toHaveLength(2)
  })
})

describe('what computers print of USB', () => {
  it('a tree: buses with their ports, and the speed at which each thing came up', () => {
    const reading = read(
      [
        '/:  Bus 02.Port 1: Dev 1, Class=root_hub, Driver=xhci_hcd/4p, 10000M',
        '    |__ Port 1: Dev 2, If 0, Class=Mass Storage, Driver=uas, 5000M',
        '    |__ Port 3: Dev 4, If 0, Class=Hub, Driver=hub/4p, 5000M',
        '/:  Bus 01.Port 1: Dev 1, Class=root_hub, Driver=xhci_hcd/12p, 480M',
        '    |__ Port 7: Dev 3, If 0, Class=Human Interface Device, Driver=usbhid, 12M',
        '    |__ Port 7: Dev 3, If 1, Class=Human Interface Device, Driver=usbhid, 12M',
      ].join('\n'),
    )
    expect(reading.buses).toEqual([
      { name: 'bus 2', ports: 4, speed: 'gen2x1' },
      { name: 'bus 1', ports: 12, speed: 'usb2' },
    ])
    expect(reading.usb.map(({ cameUp, bus }) => [cameUp, bus])).toEqual([
      ['gen1x1', 'bus 2'],
      ['gen1x1', 'bus 2'],
      ['usb2', 'bus 1'],
    ])
  })
  it('in full: its name, the best it says it can, what it draws', () => {
    const [disk] = read(
      [
        'Bus 002 Device 003: ID 1d6b:0104 Linux Foundation Multifunction Composite Gadget',
        'Negotiated speed: SuperSpeed (5Gbps)',
        'Device Descriptor:',
        '  bLength                18',
        '  bcdUSB               3.20',
        '  iProduct                2 Exercise disk',
        '    MaxPower              896mA',
        '  Binary Object Store Descriptor:',
        '        Speed Attribute ID: 0 10Gb/s Symmetric RX SuperSpeedPlus',
      ].join('\n'),
    ).usb
    expect(disk).toMatchObject({ name: 'Exercise disk', best: 'gen2x1', milliamps: 896 })
  })
  it('type-C ports with the modes of their own, not those of what is plugged in', () => {
    const reading = read(
      [
        '/sys/class/typec/port0/data_role:[host] device',
        '/sys/class/typec/port0/port0.0/svid:ff01',
        '/sys/class/typec/port0/port0.1/svid:8087',
        '/sys/class/typec/port1/data_role:[host] device',
        '/sys/class/typec/port1/port1-partner/port1-partner.0/svid:ff01',
      ].join('\n'),
    )
    expect(reading.ports).toEqual([
      { name: 'port0', pictures: true, thunderbolt: true, role: 'host' },
      { name: 'port1', pictures: false, thunderbolt: false, role: 'host' },
    ])
  })
  it('JSON and CSV of other systems, as deep as it nests; what is not known of it is left', () => {
    const json = read(
      JSON.stringify({
        SPDisplaysDataType: [
          { _name: 'gpu', spdisplays_ndrvs: [{ _name: 'Chart 27', _spdisplays_resolution: '3840 x 2160 @ 60.00Hz' }] },
        ],
        SPUSBDataType: [
          { _name: 'bus', _items: [{ _name: 'Disk', device_speed: 'super_speed_plus', bus_power_used: '896' }] },
        ],
      }),
    )
    expect(json.displays).toMatchObject([{ name: 'Chart 27', mode: { width: 3840, height: 2160, refresh: 60 } }])
    expect(json.usb).toMatchObject([{ name: 'Disk', cameUp: 'gen2x1', milliamps: 896 }])
    const shell = read(
      JSON.stringify([
        { Name: 'Adapter', CurrentHorizontalResolution: 2560, CurrentVerticalResolution: 1440, CurrentRefreshRate: 59 },
      ]),
    )
    expect(shell.displays).toMatchObject([{ name: 'Adapter', mode: { width: 2560, height: 1440, refresh: 59 } }])
    const csv = readFromDevice(bytesOf('"FriendlyName","Status"\n"USB hub","OK"\n'))
    expect(csv.ok).toBe(false)
  })
})

describe('what is no reading', () => {
  it.each([
    ['', 'nothing in it'],
    ['hello there', 'Nothing in this is known'],
    ['{"broken":', 'like JSON'],
    ['id,name\n1,two', 'Nothing in this is known'],
    ['00 ff ff ff ff ff ff 00', 'Nothing in this is known'],
  ])('%j is refused in words', (text, reason) => {
    const answer = readFromDevice(bytesOf(text))
    expect(answer).toMatchObject({ ok: false, problem: expect.stringContaining(reason) })
  })
  it('ten megabytes of log are looked through all the same', () => {
    const line = 'Nov 25 10:00:01 host kernel: usb 2-1: new SuperSpeed USB device number 3 de ad be ef using xhci_hcd\n'
    const log = line.repeat(Math.ceil(10e6 / line.length))
    expect(read(`${log}${rows(16).join('\n')}`).displays).toHaveLength(1)
  })
  it('nor does anything in it make the reader fall over', () => {
    const bits = fc.constantFrom(
      '/:  Bus 02.Port 1: Dev 1',
      '|__ Port',
      '[[[[',
      '{"a":',
      'port0/',
      '00ffffffffffff00',
      'ff ',
      '\n',
      'Bus 002 Device 003: ID ',
      ', 5000M',
    )
    fc.assert(
      fc.property(fc.array(fc.oneof(bits, fc.string({ maxLength: 12 })), { maxLength: 40 }), (parts) => {
        const answer = readFromDevice(bytesOf(parts.join('')))
        if (!answer.ok) expect(answer.problem).not.toBe('')
      }),
      { numRuns: cases(300) },
    )
  })
})

describe('what was read beside what is on record', () => {
  const display: Device = deviceSchema.parse({
    id: 'd',
    name: 'Screen',
    kind: 'display',
    ports: [
      { id: 'hdmi', name: 'HDMI', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
      { id: 'dp', name: 'DP', connector: 'displayport', displayport: { direction: 'in', link: 'hbr2' } },
    ],
  })
  it('is told field by field, and taken as it is accepted', () => {
    const fields = fieldsRead(read(edid), display, '2026-06-02')
    expect(fields.map(({ what, sure }) => [what, sure])).toEqual([
      ['Name', false],
      ['Modes it takes', true],
      ['HDMI: HDMI', true],
    ])
    const made = withPatches(
      display,
      fields.map(({ patch }) => patch),
    )
    expect(made).toMatchObject({
      name: 'Chart 27',
      screen: { modes: [{ width: 3840, height: 2160 }, { width: 1920 }], bits: 12, read: '2026-06-02' },
      ports: [{ hdmi: { level: 'frl-48', compression: true } }, { displayport: { link: 'hbr2' } }],
    })
    expect(deviceSchema.parse(made)).toEqual(made)
    // what is on record already is no news
    expect(fieldsRead(read(edid), deviceSchema.parse(made), '2026-06-03')).toEqual([])
  })
  it('whatever device it is: accepting all of it gives a device that the plan takes', () => {
    const readings = [
      read(edid),
      read('/sys/class/typec/port0/data_role:[host] device\n/sys/class/typec/port0/port0.0/svid:ff01'),
      read('Bus 002 Device 003: ID 1d6b:0104 Disk\n  bcdUSB               3.00\n    MaxPower              500mA'),
    ]
    for (const device of demo.devices)
      for (const reading of readings) {
        const patches = fieldsRead(reading, device, '2026-06-02').map(({ patch }) => patch)
        for (const patch of patches) expect(patchSchema.safeParse(patch).success).toBe(true)
        const made = withPatches(device, patches)
        expect(deviceSchema.parse(made)).toEqual(made)
      }
  })
})
