import { z } from 'zod'
import type { Edid } from '../identity/edid-shape'
import type { DeviceReading, ReadDisplay, ReadPort, ReadUsb } from '../identity/reading-shape'
import { slugOf } from '../plan/free-id'
import { speaksTmds } from '../standards/connectors'
import { linkModeFacts } from '../standards/link-modes'
import type { HdmiLevel } from '../standards/picture-links'
import type { Device, Port, Screen } from '../vocabulary/device'
import { MOST_MODES } from '../vocabulary/device'
import { portLine } from './port-line'

/** What of a device a reading would change. It is plain, so that what somebody accepts can be sent. */
export type Patch =
  | { set: 'name'; value: string }
  | { set: 'screen'; value: Screen }
  | { set: 'port'; id: string; value: Partial<Pick<Port, 'hdmi' | 'usb' | 'takes' | 'displayport' | 'thunderbolt'>> }
  | { set: 'new port'; value: Port }

/** What somebody sends of what they accept. What its values may be is for whoever applies the change. */
export const patchSchema = z.discriminatedUnion('set', [
  z.strictObject({ set: z.literal('name'), value: z.string() }),
  z.strictObject({ set: z.literal('screen'), value: z.unknown() }),
  z.strictObject({ set: z.literal('port'), id: z.string(), value: z.record(z.string(), z.unknown()) }),
  z.strictObject({ set: z.literal('new port'), value: z.unknown() }),
])

/** One field as it is on record and as it was read, side by side. `sure` where there is only one thing that it can mean. */
export type FieldRead = { what: string; had: string; read: string; patch: Patch; sure: boolean }

/** What a reading says of a device, field by field; what is on record already is left out. `day` is the day it was read. */
export function fieldsRead(reading: DeviceReading, device: Device, day: string): FieldRead[] {
  return [
    ...reading.displays.flatMap((display) => [...ofDisplay(display, device, day, reading.displays.length === 1)]),
    ...reading.usb.flatMap((usb) => [...ofUsb(usb, device)]),
    ...reading.ports.flatMap((port) => [...ofPort(port, device)]),
  ]
}

function* ofDisplay(display: ReadDisplay, device: Device, day: string, only: boolean): Iterable<FieldRead> {
  const { name, edid, mode } = display
  if (name && name !== device.name)
    yield { what: 'Name', had: device.name, read: name, patch: { set: 'name', value: name }, sure: false }
  const modes = edid
    ? edid.modes.filter(({ interlaced }) => !interlaced)
    : mode?.refresh
      ? [{ ...mode, refresh: mode.refresh }]
      : []
  if (modes.length > 0) {
    const screen = screenOf(name, edid, modes as Screen['modes'], day)
    const of = name && !only ? ` of ${name}` : ''
    const known = device.screen && JSON.stringify({ ...device.screen, read: day }) === JSON.stringify(screen)
    if (!known)
      yield {
        what: `Modes it takes${of}`,
        had: device.screen ? `${device.screen.modes.length}, read on ${device.screen.read}` : 'not read yet',
        read: `${screen.modes.length}, from ${modeText(screen.modes[0])}${screen.bits ? `, ${screen.bits} bit` : ''}${screen.hdr ? ', high dynamic range' : ''}`,
        patch: { set: 'screen', value: screen },
        sure: only,
      }
  }
  const level = edid && levelOf(edid)
  if (!edid || !level) return
  const inputs = device.ports.filter(({ connector, hdmi }) => speaksTmds(connector) && hdmi?.direction !== 'out')
  for (const port of inputs) {
    const compression = edid.hdmi?.compression ?? false
    if (port.hdmi?.level === level && port.hdmi.compression === compression) continue
    yield {
      what: `${port.name}: HDMI`,
      had: port.hdmi?.level ?? 'not said',
      read: `${level}${compression ? ', compression' : ''}`,
      patch: { set: 'port', id: port.id, value: { hdmi: { direction: 'in', level, compression } } },
      sure: inputs.length === 1,
    }
  }
}

/** The mode it is made for first, then the largest and quickest. */
function screenOf(name: string | null, edid: Edid | null, modes: Screen['modes'], day: string): Screen {
  const [first] = edid?.preferred ? [edid.preferred] : modes
  const size = ({ width, height, refresh }: Screen['modes'][number]): number => width * height * refresh
  const rest = modes.filter((each) => each !== first).sort((one, other) => size(other) - size(one))
  const kept = [...(first ? [first] : []), ...rest].slice(0, MOST_MODES)
  const bits = Math.max(edid?.bits ?? 0, edid?.hdmi?.bits ?? 0)
  return {
    ...(name ? { name } : {}),
    modes: kept.map(({ width, height, refresh }) => ({ width, height, refresh: Math.round(refresh * 1000) / 1000 })),
    ...(bits ? { bits: bits as NonNullable<Screen['bits']> } : {}),
    // only an EDID can say that it does not
    ...(edid ? { hdr: edid.hdr } : {}),
    read: day,
  }
}

const modeText = (mode: Screen['modes'][number] | undefined): string =>
  mode ? `${mode.width}x${mode.height}@${Math.round(mode.refresh * 100) / 100}` : 'none'

/** The level that an input says it takes; null where it says nothing of HDMI. A display without a word of a clock takes 165 MHz (HDMI 1.4, from memory). */
function levelOf({ hdmi }: Edid): HdmiLevel | null {
  if (!hdmi) return null
  if (hdmi.frlGbps !== null) return `frl-${hdmi.frlGbps}` as HdmiLevel
  const clock = hdmi.maxTmdsMHz ?? 165
  return clock > 340 ? 'tmds-18' : clock > 165 ? 'tmds-10.2' : 'tmds-4.95'
}

/** A thing on a bus, as the device on record that it may be: its one port that goes to a host. */
function* ofUsb(usb: ReadUsb, device: Device): Iterable<FieldRead> {
  const up = device.ports.filter(({ role, usb: mode }) => role === 'device' && mode !== undefined)
  const [port] = up
  if (!port || up.length > 1) return
  const best = usb.best ?? usb.cameUp
  if (best && best !== port.usb)
    yield {
      what: `${port.name}: USB, as ${usb.name}`,
      had: port.usb ? linkModeFacts[port.usb].name : 'not said',
      read: `${linkModeFacts[best].name}${usb.best === null ? ', as it came up here' : ''}`,
      patch: { set: 'port', id: port.id, value: { usb: best } },
      sure: false,
    }
  const watts = usb.milliamps === null ? null : Math.round(usb.milliamps * 5) / 1000
  if (watts && watts !== port.takes)
    yield {
      what: `${port.name}: takes, as ${usb.name}`,
      had: port.takes === undefined ? 'not said' : `${port.takes} W`,
      read: `${watts} W`,
      patch: { set: 'port', id: port.id, value: { takes: watts } },
      sure: false,
    }
}

/** A type-C port that a computer shows, as the port of its name on record or as a new one. */
function* ofPort(read: ReadPort, device: Device): Iterable<FieldRead> {
  const known = device.ports.find(({ name }) => name.toLowerCase() === read.name)
  const value: Port = {
    id: known?.id ?? freePort(read.name, device),
    name: read.name,
    connector: 'type-c',
    gender: 'socket',
    role: read.role ?? 'either',
    ...(known ?? {}),
    ...(read.pictures && !known?.displayport
      ? { displayport: { direction: 'out', link: 'hbr2', lanes: 4, compression: false } }
      : {}),
  }
  if (known && (known.displayport || !read.pictures)) return
  yield {
    what: `Port ${read.name}`,
    had: known ? portLine(known) : 'not on record by that name',
    read: `${portLine(value)}${read.thunderbolt ? '; Thunderbolt, its generation is not said' : ''}`,
    patch: known
      ? { set: 'port', id: known.id, value: { displayport: value.displayport } }
      : { set: 'new port', value },
    sure: false,
  }
}

function freePort(name: string, { ports }: Device): string {
  const taken = new Set(ports.map(({ id }) => id))
  const stem = slugOf(name, 'port')
  if (!taken.has(stem)) return stem
  for (let number = 2; ; number += 1) if (!taken.has(`${stem}-${number}`)) return `${stem}-${number}`
}

/** A device with what was accepted of a reading. */
export function withPatches(device: Device, patches: readonly Patch[]): Device {
  let made = device
  for (const patch of patches) {
    if (patch.set === 'name') made = { ...made, name: patch.value }
    else if (patch.set === 'screen') made = { ...made, screen: patch.value }
    else if (patch.set === 'new port') made = { ...made, ports: [...made.ports, patch.value] }
    else
      made = {
        ...made,
        ports: made.ports.map((port) => (port.id === patch.id ? { ...port, ...patch.value } : port)),
      }
  }
  return made
}
