import type { Port } from '../vocabulary/device'
import type { DeviceReading, ReadUsb } from './reading-shape'

/** Lines that are looked at, and how much of each. */
const MOST_LINES = 200_000
const LONGEST_LINE = 300

function* linesOf(text: string): Iterable<string> {
  let count = 0
  for (let at = 0; at < text.length && count < MOST_LINES; count += 1) {
    const end = text.indexOf('\n', at)
    const stop = end < 0 ? text.length : end
    yield text.slice(at, Math.min(stop, at + LONGEST_LINE)).replace(/\r$/, '')
    at = stop + 1
  }
}

/** Megabits as lsusb prints them; the slow speeds of keyboards are USB 2.0. */
export function modeOfMegabits(megabits: number): Port['usb'] | null {
  if (megabits >= 20_000) return 'gen2x2'
  if (megabits >= 10_000) return 'gen2x1'
  if (megabits >= 5000) return 'gen1x1'
  return megabits > 0 ? 'usb2' : null
}

const ROOT =
  /^\/:\s{1,4}Bus (\d{1,3})\.Port \d{1,3}: Dev \d{1,3}, Class=root_hub, Driver=([\w-]{1,40})\/(\d{1,3})p, (\d{1,6})M$/
const BRANCH = /\|__ Port (\d{1,3}): Dev (\d{1,3}), If (\d{1,3}), Class=([^,]{0,80}), Driver=([^,]{0,60}), (\d{1,6})M$/

/** The tree that `lsusb -t` prints: buses with their root ports, and at which speed each thing on them came up. */
export function readUsbTree(text: string, reading: DeviceReading): void {
  let bus: string | null = null
  const seen = new Set<string>()
  for (const line of linesOf(text)) {
    const root = line.startsWith('/:') ? ROOT.exec(line.trim()) : null
    if (root) {
      bus = `bus ${Number(root[1])}`
      reading.buses.push({ name: bus, ports: Number(root[3]), speed: modeOfMegabits(Number(root[4])) })
      continue
    }
    const branch = bus === null ? null : BRANCH.exec(line)
    if (!branch) continue
    // a thing has a line for each of its interfaces
    const key = `${bus} ${branch[2]}`
    if (seen.has(key)) continue
    seen.add(key)
    reading.usb.push({
      name: `${branch[4] || 'unknown class'} on port ${Number(branch[1])}`,
      cameUp: modeOfMegabits(Number(branch[6])),
      best: null,
      milliamps: null,
      bus,
    })
  }
}

const DEVICE = /^Bus (\d{3}) Device (\d{3}): ID ([0-9a-f]{4}:[0-9a-f]{4})(.{0,200})$/
const PRODUCT = /^\s{1,20}iProduct\s{1,20}\d{1,3} (.{1,120})$/
const POWER = /^\s{1,20}MaxPower\s{1,20}(\d{1,4})mA$/
const VERSION = /^\s{1,20}bcdUSB\s{1,20}(\d)\.(\d)(\d)$/
const SPEED =
  /^\s{1,40}(?:Device can operate at|Negotiated speed:) (Low|Full|High|SuperSpeed\+?) ?(?:Speed)? ?\((\d{1,5}(?:\.\d)?)(M|G)bps\)$/i
const PLUS = /^\s{1,40}Speed Attribute ID: \d{1,3} (\d{1,3})Gb\/s/

/** What `lsusb -v` prints of each thing: its name, the best speed it says it can, the speed at which it came up, what it draws. */
export function readUsbVerbose(text: string, reading: DeviceReading): void {
  let device: ReadUsb | null = null
  for (const line of linesOf(text)) {
    const head = DEVICE.exec(line)
    if (head) {
      device = {
        name: (head[4] ?? '').trim() || `ID ${head[3]}`,
        cameUp: null,
        best: null,
        milliamps: null,
        bus: `bus ${Number(head[1])}`,
      }
      reading.usb.push(device)
      continue
    }
    if (!device) continue
    const product = PRODUCT.exec(line)
    if (product) device.name = (product[1] ?? device.name).trim()
    const power = POWER.exec(line)
    if (power) device.milliamps = Math.max(device.milliamps ?? 0, Number(power[1]))
    const version = VERSION.exec(line)
    if (version) device.best = better(device.best, Number(version[1]) >= 3 ? 'gen1x1' : 'usb2')
    const speed = SPEED.exec(line)
    if (speed) {
      const mode = modeOfMegabits(Number(speed[2]) * (speed[3] === 'G' ? 1000 : 1))
      if (line.includes('Negotiated')) device.cameUp = mode
      else device.best = better(device.best, mode)
    }
    const plus = PLUS.exec(line)
    if (plus) device.best = better(device.best, modeOfMegabits(Number(plus[1]) * 1000))
  }
}

const ORDER: readonly (Port['usb'] | null)[] = [null, 'usb2', 'gen1x1', 'gen2x1', 'gen2x2']
const better = (one: ReadUsb['best'], other: ReadUsb['best']): ReadUsb['best'] =>
  ORDER.indexOf(other) > ORDER.indexOf(one) ? other : one
