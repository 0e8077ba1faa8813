import { portModes } from '../link/port-modes'
import { givenWatts } from '../power/negotiate'
import { atLeast } from '../quantity/limit'
import { decimal } from '../quantity/parsed'
import { linkModeFacts } from '../standards/link-modes'
import type { Device, DeviceKind, Port } from '../vocabulary/device'
import type { NeedKind } from '../vocabulary/need'
import { parseNeedSize } from './need-text'

/** A need people often have between two sorts of devices, said as they say it. `toward` is where it flows: to the host, or from it. */
export type Preset = { name: string; kind: NeedKind; size: string; toward: 'host' | 'device' }

const pictures: readonly Preset[] = [
  ['4K at 60 Hz', '3840x2160@60'],
  ['1440p at 60 Hz', '2560x1440@60'],
  ['1080p at 60 Hz', '1920x1080@60'],
  ['4K at 120 Hz', '3840x2160@120'],
  ['4K at 60 Hz, high dynamic range', '3840x2160@60 HDR'],
  ['5K at 60 Hz', '5120x2880@60'],
  ['8K at 60 Hz', '7680x4320@60'],
].map(([name = '', size = '']) => ({ name, size, kind: 'picture', toward: 'device' }))

const storage: readonly Preset[] = [
  { name: 'a quick disk', size: '800 MB/s + 4.5 W', kind: 'storage', toward: 'device' },
  { name: "the morning's recordings", size: '100 GB in 20 min + 4.5 W', kind: 'storage', toward: 'device' },
  { name: 'a hard disk', size: '110 MB/s + 4.5 W', kind: 'storage', toward: 'device' },
  { name: 'a fast array with its own supply', size: '2500 MB/s', kind: 'storage', toward: 'device' },
]

const power = (watts: number): Preset => ({
  name: `charging at ${watts} W`,
  size: `${watts} W`,
  kind: 'power',
  toward: 'host',
})

/** What is commonly wanted, by what stands at the far end from the host; the most usual first (figures of common practice). */
const byKind: Readonly<Record<DeviceKind, readonly Preset[]>> = {
  computer: [],
  display: [...pictures, power(65), power(96)],
  projector: [...pictures].sort((one) => (one.size === '1920x1080@60' ? -1 : 1)),
  dock: [power(65), power(96), power(140)],
  hub: [],
  storage,
  headset: [
    { name: 'an encoded view at 90 Hz', size: '1 Gb/s + 8 W', kind: 'headset', toward: 'device' },
    { name: 'an encoded view of 150 Mb/s', size: '150 Mb/s + 8 W', kind: 'headset', toward: 'device' },
    { name: 'an encoded view at 120 Hz', size: '1 Gb/s + 9.2 W', kind: 'headset', toward: 'device' },
    { name: 'a link test that fills the plug', size: '2.5 Gb/s + 9.2 W', kind: 'headset', toward: 'device' },
  ],
  camera: [
    { name: '1080p at 60, colour', size: '1920x1080@60 yuv422 + 4.5 W', kind: 'camera', toward: 'host' },
    { name: '5 megapixels at 75, grey', size: '2448x2048@75 mono8 + 4.5 W', kind: 'camera', toward: 'host' },
    { name: 'a compressed stream, 1080p', size: '50 Mb/s + 2.5 W', kind: 'camera', toward: 'host' },
    { name: '4K at 30, colour', size: '3840x2160@30 nv12 + 4.5 W', kind: 'camera', toward: 'host' },
  ],
  sensor: [{ name: 'a 3D sensor', size: '5 Gb/s + 4.5 W', kind: 'sensor', toward: 'host' }],
  charger: [power(65), power(96), power(140), power(240)],
  extender: [],
  other: [
    { name: 'plain USB, keys and panels', size: '12 Mb/s + 2.5 W', kind: 'data', toward: 'host' },
    { name: 'plain USB at 480 Mb/s', size: '480 Mb/s + 2.5 W', kind: 'data', toward: 'host' },
    { name: "the laptop's own screen, sent back", size: '1920x1200@60', kind: 'own screen', toward: 'host' },
    { name: 'sound, 8 channels', size: '8 ch 48 kHz 24 bit + 4.5 W', kind: 'audio', toward: 'host' },
  ],
}

/** So many of a display's own modes are offered; the rest can be typed. */
const MOST_OWN = 12

/** The modes that a display says it takes, the one it is made for first. */
const ownModes = ({ screen }: Pick<Device, 'screen'>): Preset[] => {
  const sizes = (screen?.modes ?? []).map(({ width, height, refresh }) => `${width}x${height}@${decimal(refresh, 2)}`)
  return [...new Set(sizes)].slice(0, MOST_OWN).map((size, at) => ({
    name: at === 0 ? `made for ${size}` : `takes ${size}`,
    size,
    kind: 'picture',
    toward: 'device',
  }))
}

/** Presets for what could flow between a host and another device, as far as its ports could carry them. Of a display that was read only the modes it takes are offered as pictures. */
export function presetsFor(
  device: Pick<Device, 'kind' | 'screen'> & Partial<Pick<Device, 'ports'>>,
): readonly Preset[] {
  const own = ownModes(device)
  const usual = byKind[device.kind]
  const all = own.length > 0 ? [...own, ...usual.filter(({ kind }) => kind !== 'picture')] : usual
  const { ports = [] } = device
  return ports.length === 0 ? all : [...all, ...ownPower(ports, all)].filter((preset) => couldCarry(ports, preset))
}

/** What a device gives in all, where none of the usual figures is it. */
function ownPower(ports: readonly Port[], usual: readonly Preset[]): Preset[] {
  if (!usual.some(({ kind }) => kind === 'power')) return []
  const given = Math.max(0, ...ports.map((port) => (port.connector === 'type-c' ? givenWatts(port) : 0)))
  const own = power(given)
  return given > 0 && !usual.some(({ size }) => size === own.size) ? [own] : []
}

/** Whether any of some ports could carry so much, whatever lead ends there. */
function couldCarry(ports: readonly Port[], { kind, size, toward }: Preset): boolean {
  if (kind === 'picture') return ports.some((port) => showsPictures(port))
  if (kind === 'power') {
    const watts = parseNeedSize(kind, size)
    const asked = watts.ok && watts.value.kind === 'power' ? watts.value.watts : 0
    return ports.some(
      (port) => port.connector === 'type-c' && atLeast(toward === 'host' ? givenWatts(port) : (port.takes ?? 0), asked),
    )
  }
  // frames come back as PCIe data, which only a tunnel carries
  if (kind === 'own screen') return ports.some(hasTunnel)
  const need = parseNeedSize(kind, size)
  const asked = need.ok && 'rate' in need.value ? need.value.rate : 0
  const mark = kind === 'data' || kind === 'sensor' || kind === 'audio'
  return ports.some((port) =>
    [...portModes(port)].some((mode) => atLeast(linkModeFacts[mode][mark ? 'line' : 'payload'], asked)),
  )
}

const hasTunnel = ({ usb4, thunderbolt }: Port): boolean => usb4 !== undefined || thunderbolt !== undefined
const showsPictures = (port: Port): boolean =>
  port.displayport !== undefined || port.hdmi !== undefined || hasTunnel(port)

/** Which way a need of a kind usually flows between a host and another device: power from what gives it, pictures and files to the device, the rest from it. */
export function usualToward(kind: NeedKind, { kind: of, ports }: Pick<Device, 'kind' | 'ports'>): Preset['toward'] {
  if (kind === 'power')
    return of === 'charger' || ports.some(({ gives, role }) => role !== 'host' && (gives ?? 0) > 0) ? 'host' : 'device'
  return kind === 'picture' || kind === 'storage' || kind === 'headset' ? 'device' : 'host'
}

/** What several alike behind one device come to, where they need not stand in the survey yet: two or three displays at a dock. */
export const severalFor = ({ kind }: Pick<Device, 'kind'>): readonly Preset[] =>
  kind === 'dock'
    ? [
        { name: 'two pictures, 4K at 60 Hz', size: '2x 3840x2160@60', kind: 'picture', toward: 'device' },
        { name: 'two pictures, 1440p at 60 Hz', size: '2x 2560x1440@60', kind: 'picture', toward: 'device' },
        { name: 'three pictures, 1080p at 60 Hz', size: '3x 1920x1080@60', kind: 'picture', toward: 'device' },
      ]
    : []
