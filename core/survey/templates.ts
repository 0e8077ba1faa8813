import type { Device, DeviceKind } from '../vocabulary/device'
import { keptPorts, parsePortLines } from './port-line'

/** A generic device to begin from, its ports said a line each. None is any maker's; figures are what is usual (common practice). */
export type Template = {
  name: string
  group: string
  kind: DeviceKind
  lines: readonly string[]
  rest?: Partial<Pick<Device, 'battery' | 'disk' | 'pool' | 'busPowered' | 'keeps'>>
}

const MB = 8e6

export const templates: readonly Template[] = [
  {
    group: 'Computers',
    name: 'Laptop, two full and two plain sockets',
    kind: 'computer',
    lines: [
      'left: type-C host tb4 dp1.4 gives 15W takes 96W @left',
      'right: type-C host tb4 dp1.4 gives 15W takes 96W @right',
      '2x type-A host 10g gives 4.5W',
    ],
  },
  {
    group: 'Computers',
    name: 'Laptop of the hungriest kind',
    kind: 'computer',
    lines: ['left: type-C host tb5 dp2.1 gives 15W takes 240W @left', 'type-A host 10g gives 4.5W', 'hdmi 2.1'],
  },
  {
    group: 'Computers',
    name: 'Laptop with one plain socket',
    kind: 'computer',
    lines: ['type-C host 10g dp1.4 gives 7.5W takes 65W', 'hdmi 2.0'],
  },
  {
    group: 'Computers',
    name: 'Desktop with graphics card, board, front and add-in ports',
    kind: 'computer',
    lines: [
      'graphics: dp1.4 displayport on-graphics-card',
      'graphics 2: dp1.4 displayport on-graphics-card',
      'graphics hdmi: hdmi 2.0 on-graphics-card',
      'rear C: type-C host 10g gives 15W on-board @board',
      'rear A: 2x type-A host 5g gives 4.5W on-board @board',
      'front: type-A host 5g gives 4.5W on-front @board',
      'card: 2x type-A host 10g gives 4.5W on-add-in-card @add-in_card',
    ],
  },
  {
    group: 'Computers',
    name: 'Tablet or phone',
    kind: 'computer',
    lines: ['type-C host 10g dp1.4 gives 4.5W takes 45W'],
  },
  { group: 'Computers', name: 'Console', kind: 'computer', lines: ['hdmi 2.1', '2x type-A host 5g gives 4.5W'] },
  {
    group: 'Docks and hubs',
    name: 'Tunnel dock with one uplink',
    kind: 'dock',
    lines: [
      'host: type-C device tb4 gives 96W',
      'DisplayPort: 2x displayport dp1.4',
      'C: type-C host 10g gives 15W',
      'A: 3x type-A host 10g gives 4.5W',
    ],
  },
  {
    group: 'Docks and hubs',
    name: 'Tunnel dock with two host leads',
    kind: 'dock',
    lines: ['host: type-C device tb4 gives 96W', 'second host: type-C device tb4', 'DisplayPort: 4x displayport dp1.4'],
  },
  {
    group: 'Docks and hubs',
    name: 'Alternate-mode dock',
    kind: 'dock',
    lines: ['host: type-C device 10g dp1.4 in gives 60W', 'hdmi: hdmi 2.0', 'A: 3x type-A host 5g gives 4.5W'],
  },
  {
    group: 'Docks and hubs',
    name: 'Hub on the bus',
    kind: 'hub',
    lines: ['up: type-C device 5g', 'A: 4x type-A host 5g gives 4.5W'],
    rest: { busPowered: true },
  },
  {
    group: 'Docks and hubs',
    name: 'Travel hub, charged through',
    kind: 'hub',
    lines: [
      'up: type-C plug device 10g gives 95W captive-0.2m',
      'in: type-C takes 100W power-only',
      'hdmi: hdmi 1.4',
      'A: 2x type-A host 5g gives 4.5W',
    ],
    rest: { keeps: 5 },
  },
  {
    group: 'Docks and hubs',
    name: 'Hub with a supply',
    kind: 'hub',
    lines: ['up: type-C device 10g', 'A: 4x type-A host 10g gives 4.5W', 'C: type-C host 10g gives 15W'],
  },
  {
    group: 'Screens',
    name: '4K display, DisplayPort and HDMI',
    kind: 'display',
    lines: ['DisplayPort: displayport dp1.4 in', 'HDMI: hdmi 2.0 in'],
  },
  {
    group: 'Screens',
    name: 'Type-C display that feeds a laptop',
    kind: 'display',
    lines: [
      'C: type-C device 5g dp1.4 in gives 65W',
      'HDMI: hdmi 2.0 in',
      'A: 2x type-A host 5g gives 4.5W on-display',
    ],
  },
  { group: 'Screens', name: 'Projector', kind: 'projector', lines: ['HDMI: 2x hdmi 2.0 in'] },
  { group: 'Screens', name: 'Television', kind: 'projector', lines: ['HDMI: 3x hdmi 2.1 in'] },
  {
    group: 'Storage',
    name: 'PCIe enclosure',
    kind: 'storage',
    lines: ['type-C device tb3'],
    rest: { disk: { write: 3000 * MB, read: 3000 * MB, pcie: '3x4', bridge: 'good' } },
  },
  {
    group: 'Storage',
    name: 'USB solid-state disk',
    kind: 'storage',
    lines: ['type-C device 10g takes 4.5W'],
    rest: { disk: { write: 900 * MB, read: 1000 * MB, bridge: 'good' } },
  },
  {
    group: 'Storage',
    name: 'Hard disk',
    kind: 'storage',
    lines: ['micro-B device 5g takes 4.5W'],
    rest: { disk: { write: 110 * MB, read: 110 * MB, bridge: 'good' } },
  },
  {
    group: 'Headsets, cameras, sensors',
    name: 'Headset with a socket',
    kind: 'headset',
    lines: ['type-C device 5g takes 10W'],
    rest: { battery: { wattHours: 14, draw: 8 } },
  },
  {
    group: 'Headsets, cameras, sensors',
    name: 'Headset with a captive lead',
    kind: 'headset',
    lines: ['picture: displayport plug dp1.2 in captive-5m', 'data: type-A plug device 5g takes 4.5W captive-5m'],
  },
  {
    group: 'Headsets, cameras, sensors',
    name: '3D camera',
    kind: 'camera',
    lines: ['type-C device 10g takes 4.5W'],
  },
  {
    group: 'Headsets, cameras, sensors',
    name: 'Webcam',
    kind: 'camera',
    lines: ['type-A plug device usb2 takes 2.5W captive-1.5m'],
  },
  {
    group: 'Headsets, cameras, sensors',
    name: '3D sensor with a supply of its own',
    kind: 'sensor',
    lines: ['link and 12 V: own-sensor_plug plug device 5g takes 12W captive-1.5m'],
  },
  {
    group: 'Headsets, cameras, sensors',
    name: 'Capture box',
    kind: 'camera',
    lines: ['USB: type-C device 5g takes 4.5W', 'HDMI: hdmi 2.0 in'],
  },
  {
    group: 'Others',
    name: 'Audio interface',
    kind: 'other',
    lines: ['type-B device usb2 takes 2.5W'],
  },
  {
    group: 'Others',
    name: 'Control surface',
    kind: 'other',
    lines: ['type-A plug device usb2 takes 2.5W captive-1.8m'],
  },
  {
    group: 'Others',
    name: 'Outboard graphics box',
    kind: 'dock',
    lines: ['host: type-C device tb3 gives 87W', 'DisplayPort: 3x displayport dp1.4'],
  },
  { group: 'Chargers', name: 'Charger, each port assured', kind: 'charger', lines: ['C: 2x type-C gives 65W'] },
  {
    group: 'Chargers',
    name: 'Charger, 60 W shared by three',
    kind: 'charger',
    lines: ['C: 3x type-C gives 27W'],
    rest: { pool: { kind: 'shared', total: 60 } },
  },
  {
    group: 'Chargers',
    name: 'Charger, 100 W that drops to 60 W',
    kind: 'charger',
    lines: ['C: type-C gives 100W', 'A: type-A gives 18W'],
    rest: { pool: { kind: 'drops', together: { c: 60 } } },
  },
  {
    group: 'Extenders',
    name: 'Extender over category cable, host end',
    kind: 'extender',
    lines: ['in: type-B device usb2', 'link: category usb2'],
  },
  {
    group: 'Extenders',
    name: 'Extender over category cable, far end',
    kind: 'extender',
    lines: ['link: category usb2', 'out: 2x type-A host usb2 gives 2.5W'],
  },
  {
    group: 'Extenders',
    name: 'Extender over fibre, host end',
    kind: 'extender',
    lines: ['in: type-C device 10g', 'link: fibre 10g'],
  },
  {
    group: 'Extenders',
    name: 'Extender over fibre, far end',
    kind: 'extender',
    lines: ['link: fibre 10g', 'out: type-C host 10g gives 15W'],
  },
]

/** A device as a template has it, without an id or a place. */
export function fromTemplate({ kind, lines, rest = {}, name }: Template): Omit<Device, 'id'> {
  return { name, kind, busPowered: false, ...rest, ports: keptPorts(parsePortLines(lines.join('\n')).ports, []) }
}
