import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import { isEdid, readEdid } from './edid'
import { edidsInText } from './edid-text'
import { readProbe } from './probe'
import { readProfile } from './profile-text'
import { type DeviceReading, noReading } from './reading-shape'
import { readTypeCPorts } from './typec-ports'
import { readUsbTree, readUsbVerbose } from './usb-text'

/** Logs are long. */
export const LARGEST_READING_BYTES = 12_000_000

/** The commands whose answers are read; the last of two other systems, in the form they print (from memory of their manuals). */
export const READING_COMMANDS: readonly { what: string; command: string }[] = [
  { what: 'all of it, on Linux', command: './hallway probe' },
  { what: 'a display, as bytes', command: 'cat /sys/class/drm/*/edid' },
  { what: 'USB, as a tree', command: 'lsusb -t' },
  { what: 'USB, in full', command: 'lsusb -v' },
  { what: 'type-C ports', command: 'grep -r . /sys/class/typec' },
  { what: 'displays and USB as JSON', command: 'system_profiler -json SPDisplaysDataType SPUSBDataType' },
  {
    what: 'displays as JSON',
    command:
      'Get-CimInstance Win32_VideoController | Select Name,CurrentHorizontalResolution,CurrentVerticalResolution,CurrentRefreshRate | ConvertTo-Json',
  },
  { what: 'USB as CSV', command: 'Get-PnpDevice -Class USB -PresentOnly | Select FriendlyName,Status | ConvertTo-Csv' },
]

/** Reads whatever of these it is, by what it looks like: bytes of an EDID, or text. Text of another program is refused in words. */
export function readFromDevice(bytes: Uint8Array): Parsed<DeviceReading> {
  const reading = noReading()
  if (isEdid(bytes)) {
    addEdid(bytes, reading)
    return parsed(reading)
  }
  const text = new TextDecoder().decode(bytes)
  if (text.trim() === '')
    return unreadable('There is nothing in it. Paste what the command printed, or choose the file.')
  if (text.includes('"hallway-probe"')) {
    readProbe(text, reading)
    return reading.faults.length > 0 && reading.displays.length + reading.usb.length + reading.ports.length === 0
      ? unreadable(reading.faults[0] ?? '')
      : parsed(reading)
  }
  for (const edid of edidsInText(text)) addEdid(edid, reading)
  readProfile(text, reading)
  readUsbTree(text, reading)
  readUsbVerbose(text, reading)
  readTypeCPorts(text, reading)
  const found = reading.displays.length + reading.usb.length + reading.buses.length + reading.ports.length
  if (found > 0) return parsed(reading)
  return unreadable(
    reading.faults[0] ?? 'Nothing in this is known: it is no EDID, and none of the commands named here prints it so.',
  )
}

function addEdid(bytes: Uint8Array, reading: DeviceReading): void {
  const read = readEdid(bytes)
  if (!read.ok) {
    reading.faults.push(read.problem)
    return
  }
  const edid = read.value
  reading.faults.push(...edid.faults)
  reading.skipped.push(...edid.skipped)
  const mode = edid.preferred
  reading.displays.push({ name: edid.name?.trim() || null, edid, mode })
}
