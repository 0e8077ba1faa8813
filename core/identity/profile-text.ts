import type { Port } from '../vocabulary/device'
import type { DeviceReading } from './reading-shape'

/** Things of one listing at most. */
const MOST_THINGS = 500
const DEEPEST = 12

type Thing = Readonly<Record<string, unknown>>

/** What other systems print of displays and USB: JSON whatever its nesting, or CSV with a line of names (from memory of their manuals). What is not known of it is left. */
export function readProfile(text: string, reading: DeviceReading): void {
  const trimmed = text.trim()
  if (trimmed.startsWith('{') || trimmed.startsWith('[')) {
    const json = jsonOf(trimmed)
    if (json === undefined)
      reading.faults.push('This begins like JSON and cannot be read to its end: take the whole of it.')
    else for (const thing of thingsIn(json)) readThing(thing, reading)
    return
  }
  for (const thing of tableIn(trimmed)) readThing(thing, reading)
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

/** Every object within a value, however deep. */
function* thingsIn(json: unknown): Iterable<Thing> {
  const waiting: [unknown, number][] = [[json, 0]]
  for (let count = 0; waiting.length > 0 && count < MOST_THINGS * 20; count += 1) {
    const [value, depth] = waiting.shift() as [unknown, number]
    if (typeof value !== 'object' || value === null || depth > DEEPEST) continue
    if (!Array.isArray(value)) yield value as Thing
    for (const inner of Object.values(value)) waiting.push([inner, depth + 1])
  }
}

/** A small CSV with its names in the first line, or under a line of a type as one shell writes it. */
function* tableIn(text: string): Iterable<Thing> {
  const lines = text.split(/\r?\n/, MOST_THINGS).filter((line) => line.trim() !== '' && !line.startsWith('#TYPE'))
  const names = cellsOf(lines[0] ?? '')
  if (names.length < 2 || !names.some((name) => KNOWN_COLUMNS.has(name.toLowerCase()))) return
  for (const line of lines.slice(1)) {
    const cells = cellsOf(line)
    yield Object.fromEntries(names.map((name, at) => [name, cells[at] ?? '']))
  }
}
const KNOWN_COLUMNS = new Set(['friendlyname', 'currenthorizontalresolution'])
const cellsOf = (line: string): string[] =>
  line
    .slice(0, 2000)
    .split(',')
    .map((cell) => cell.trim().replace(/^"|"$/g, ''))

const textAt = (thing: Thing, ...names: string[]): string | null => {
  for (const name of names) {
    const value = thing[name]
    if (typeof value === 'string' && value.trim() !== '') return value.trim().slice(0, 120)
    if (typeof value === 'number') return String(value)
  }
  return null
}

const SPEEDS: Readonly<Record<string, Port['usb']>> = {
  low_speed: 'usb2',
  full_speed: 'usb2',
  high_speed: 'usb2',
  super_speed: 'gen1x1',
  super_speed_plus: 'gen2x1',
}

function readThing(thing: Thing, reading: DeviceReading): void {
  const name = textAt(thing, '_name', 'Name', 'FriendlyName', 'Caption')
  const speed = textAt(thing, 'device_speed')
  if (speed !== null && name !== null) {
    const mode = SPEEDS[speed] ?? null
    if (mode === null) reading.skipped.push(`the speed "${speed}" of ${name}`)
    const drawn = Number(textAt(thing, 'bus_power_used', 'bus_power') ?? Number.NaN)
    reading.usb.push({ name, cameUp: mode, best: null, milliamps: Number.isFinite(drawn) ? drawn : null, bus: null })
    return
  }
  const size = /^(\d{3,5}) ?x ?(\d{3,5})(?: ?@ ?(\d{1,3}(?:\.\d{1,3})?) ?Hz)?/.exec(
    textAt(thing, '_spdisplays_resolution', 'spdisplays_resolution', '_spdisplays_pixels') ?? '',
  )
  if (size) {
    const refresh = size[3] === undefined ? null : Number(size[3])
    reading.displays.push({ name, edid: null, mode: { width: Number(size[1]), height: Number(size[2]), refresh } })
    return
  }
  const [width, height, refresh] = [
    'CurrentHorizontalResolution',
    'CurrentVerticalResolution',
    'CurrentRefreshRate',
  ].map((field) => Number(textAt(thing, field) ?? Number.NaN))
  if (width && height) {
    reading.displays.push({ name, edid: null, mode: { width, height, refresh: refresh || null } })
    return
  }
  if (textAt(thing, 'FriendlyName') !== null) reading.skipped.push(`${name}: its speed is not said here`)
}
