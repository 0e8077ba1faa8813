import type { LinkMode } from '../standards/link-modes'
import type { Port } from '../vocabulary/device'

const usbModes: Record<NonNullable<Port['usb']>, readonly LinkMode[]> = {
  usb2: ['usb2'],
  gen1x1: ['usb2', 'gen1x1'],
  gen2x1: ['usb2', 'gen1x1', 'gen2x1'],
  gen2x2: ['usb2', 'gen1x1', 'gen1x2', 'gen2x1', 'gen2x2'],
}
const usb4Modes: Record<NonNullable<Port['usb4']>, readonly LinkMode[]> = {
  20: ['usb4-20'],
  40: ['usb4-20', 'usb4-40'],
  80: ['usb4-20', 'usb4-40', 'usb4-80'],
}
const thunderboltModes: Record<NonNullable<Port['thunderbolt']>, readonly LinkMode[]> = {
  3: ['tbt3-20', 'tbt3-40'],
  4: ['tbt3-20', 'tbt3-40', 'usb4-20', 'usb4-40'],
  5: ['tbt3-20', 'tbt3-40', 'usb4-20', 'usb4-40', 'usb4-80'],
}

/** Ports are asked again and again; a plan's ports do not change. */
const known = new WeakMap<Port, ReadonlySet<LinkMode>>()

/** Every mode a port can come up in, from what its data sheet says: the better modes imply the lesser of their family. */
export function portModes(port: Port): ReadonlySet<LinkMode> {
  const found = known.get(port)
  if (found) return found
  const modes = new Set([
    ...(port.usb ? usbModes[port.usb] : []),
    ...(port.usb4 ? usb4Modes[port.usb4] : []),
    ...(port.thunderbolt ? thunderboltModes[port.thunderbolt] : []),
  ])
  known.set(port, modes)
  return modes
}
