import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import * as build from '../../tests/support/edid-builder'
import { readFromDevice } from './device-reading'
import { probeEvents, probeOf, probeSchema, type SystemTree } from './probe'

const edid = build.edid({
  input: 0xa2,
  descriptors: [
    build.detailed({ clock: 53325, width: 3840, hBlank: 160, height: 2160, vBlank: 62 }),
    build.nameOf('Chart 27'),
  ],
})

/** A made-up tree in the shapes that the kernel's ABI documents give (sysfs-bus-usb, sysfs-class-typec, sysfs-class-power, sysfs-bus-thunderbolt, drm connectors). */
const tree = (more: Record<string, string> = {}): SystemTree => ({
  texts: new Map(
    Object.entries({
      'sys/bus/usb/devices/usb2/speed': '10000\n',
      'sys/bus/usb/devices/usb2/bDeviceClass': '09\n',
      'sys/bus/usb/devices/2-1/speed': '10000\n',
      'sys/bus/usb/devices/2-1/rx_lanes': '1\n',
      'sys/bus/usb/devices/2-1/manufacturer': 'Made Up\n',
      'sys/bus/usb/devices/2-1/product': 'Disk\n',
      'sys/bus/usb/devices/2-1:1.0/speed': '10000\n',
      'sys/bus/usb/devices/1-4/speed': '480\n',
      'sys/bus/usb/devices/1-4/idVendor': '1234\n',
      'sys/bus/usb/devices/1-4/idProduct': 'abcd\n',
      'sys/class/typec/port0/data_role': '[host] device\n',
      'sys/class/typec/port0/power_role': 'source [sink]\n',
      'sys/class/typec/port0-partner/': '',
      'sys/class/typec/port0-cable/type': 'passive\n',
      'sys/class/typec/port0-cable/plug_type': 'type-c\n',
      'sys/class/typec/port0-cable/identity/id_header': '0x1c002109\n',
      'sys/class/typec/port0-cable/identity/product_type_vdo1': '0x11082042\n',
      'sys/class/typec/port1/data_role': 'host [device]\n',
      'sys/class/drm/card0-DP-1/status': 'connected\n',
      'sys/class/drm/card0-DP-1/enabled': 'enabled\n',
      'sys/class/drm/card0-HDMI-A-1/status': 'disconnected\n',
      'sys/class/power_supply/BAT0/type': 'Battery\n',
      'sys/class/power_supply/BAT0/capacity': '63\n',
      'sys/class/power_supply/port0/type': 'USB\n',
      'sys/class/power_supply/port0/online': '1\n',
      'sys/class/power_supply/port0/voltage_now': '20000000\n',
      'sys/class/power_supply/port0/current_now': '3250000\n',
      'sys/class/power_supply/port0/usb_type': 'C [PD] PD_PPS\n',
      'sys/bus/thunderbolt/devices/0-0/device_name': 'Host\n',
      'sys/bus/thunderbolt/devices/0-1/device_name': 'Dock\n',
      'sys/bus/thunderbolt/devices/0-1/generation': '4\n',
      'sys/bus/thunderbolt/devices/0-1/rx_speed': '20.0 Gb/s\n',
      'sys/bus/thunderbolt/devices/0-1/rx_lanes': '2\n',
      ...more,
    }),
  ),
  bytes: new Map([['sys/class/drm/card0-DP-1/edid', edid]]),
  real: new Map([['sys/bus/usb/devices/2-1', 'sys/devices/pci0000:00/0000:00:0d.0/0000:04:00.0/usb2/2-1']]),
})

describe('what a computer tells of itself', () => {
  it('is read from its files, and from no others', () => {
    const probe = probeOf(tree())
    expect(probe.usb).toEqual([
      { path: '1-4', name: '1234:abcd', megabits: 480, lanes: null, controller: null, hub: false },
      { path: '2-1', name: 'Made Up Disk', megabits: 10_000, lanes: 1, controller: '0000:04:00.0', hub: false },
      { path: 'usb2', name: 'usb2', megabits: 10_000, lanes: null, controller: null, hub: true },
    ])
    expect(probe.typec).toEqual([
      {
        port: 'port0',
        data: 'host',
        power: 'sink',
        partner: true,
        cable: {
          type: 'passive',
          plug: 'type-c',
          words: ['0x1c002109', '0x00000000', '0x00000000', '0x11082042'],
        },
      },
      { port: 'port1', data: 'device', power: null, partner: false, cable: null },
    ])
    expect(probe.pictures).toMatchObject([
      { connector: 'DP-1', connected: true, active: true },
      { connector: 'HDMI-A-1', connected: false, edid: null },
    ])
    expect(probe.power).toMatchObject([
      { name: 'BAT0', percent: 63, watts: null },
      { name: 'port0', online: true, volts: 20, amps: 3.25, watts: 65, level: 'PD' },
    ])
    expect(probe.tunnels).toEqual([{ name: 'Dock', generation: 4, gigabits: 40 }])
    expect(probe.faults).toEqual([])
  })
  it('is what Survey reads when it is pasted', () => {
    const read = readFromDevice(new TextEncoder().encode(JSON.stringify(probeOf(tree()))))
    if (!read.ok) throw new Error(read.problem)
    expect(read.value.displays).toMatchObject([{ name: 'Chart 27', mode: { width: 3840, height: 2160 } }])
    expect(read.value.usb).toMatchObject([
      { name: '1234:abcd', cameUp: 'usb2' },
      { name: 'Made Up Disk', cameUp: 'gen2x1' },
    ])
    expect(read.value.ports.map(({ role }) => role)).toEqual(['host', 'device'])
  })
  it('cut short, or of another shape, is refused in words', () => {
    const text = JSON.stringify(probeOf(tree()))
    for (const wrong of [
      text.slice(0, 200),
      text.replace('"version":1', '"version":9'),
      '{"format":"hallway-probe"}',
    ]) {
      const read = readFromDevice(new TextEncoder().encode(wrong))
      expect(read).toMatchObject({ ok: false, problem: expect.stringMatching(/probe/) })
    }
  })
  it('whatever stands in the files, what it prints is of the format', () => {
    const files = [...tree().texts.keys()]
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...files), fc.string({ maxLength: 300 })), (said) => {
        expect(probeSchema.safeParse(probeOf(tree(said))).success).toBe(true)
      }),
    )
  })
  it('tells what came, went and came up slower between two looks, and nothing where all is as it was', () => {
    const [before, slower] = [probeOf(tree()), probeOf(tree({ 'sys/bus/usb/devices/2-1/speed': '480' }))]
    expect(probeEvents(before, before)).toEqual([])
    expect(probeEvents(before, slower)).toEqual([
      { event: 'changed', what: 'usb 2-1', name: 'Made Up Disk', megabits: 480 },
    ])
    const gone = { ...before, usb: before.usb.filter(({ path }) => path !== '2-1'), tunnels: [] }
    expect(probeEvents(before, gone).map(({ event, what }) => `${event} ${what}`)).toEqual([
      'went tunnel Dock',
      'went usb 2-1',
    ])
    expect(probeEvents(gone, before).every(({ event }) => event === 'came')).toBe(true)
  })
})
