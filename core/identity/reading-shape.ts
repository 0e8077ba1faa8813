import type { Port } from '../vocabulary/device'
import type { Edid } from './edid-shape'

/** A display that was read: by its EDID, or as a computer lists it, which says less. */
export type ReadDisplay = {
  name: string | null
  edid: Edid | null
  mode: { width: number; height: number; refresh: number | null } | null
}

/** A thing on a USB bus: the speed at which it came up, the best it says it can, what it draws. */
export type ReadUsb = {
  name: string
  cameUp: Port['usb'] | null
  best: Port['usb'] | null
  milliamps: number | null
  bus: string | null
}

/** A bus with its root ports. */
export type ReadBus = { name: string; ports: number | null; speed: Port['usb'] | null }

/** A type-C port as a computer shows it. */
export type ReadPort = { name: string; pictures: boolean; thunderbolt: boolean; role: 'host' | 'device' | null }

/** What a computer or a display said. What was not understood is named, nothing is guessed. */
export type DeviceReading = {
  displays: ReadDisplay[]
  usb: ReadUsb[]
  buses: ReadBus[]
  ports: ReadPort[]
  faults: string[]
  skipped: string[]
}
export const noReading = (): DeviceReading => ({ displays: [], usb: [], buses: [], ports: [], faults: [], skipped: [] })
