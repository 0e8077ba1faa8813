import { z } from 'zod'
import { type FolderFile, readClassFolder } from './class-folder'
import { readEdid } from './edid'
import type { DeviceReading } from './reading-shape'
import { modeOfMegabits } from './usb-text'

/** What a Linux computer tells of itself, file by file: paths below its root, without the leading slash. */
export type SystemTree = {
  texts: ReadonlyMap<string, string>
  bytes: ReadonlyMap<string, Uint8Array>
  /** Where a folder of a class really lies. */
  real: ReadonlyMap<string, string>
}

const text = z.string().max(200)
const optional = text.nullable()

/** The open format of `./hallway probe`: what came up where, as the computer itself says it. */
export const probeSchema = z.strictObject({
  format: z.literal('hallway-probe'),
  version: z.literal(1),
  usb: z
    .array(
      z.strictObject({
        path: text.describe('Where it hangs: bus, then port by port'),
        name: text,
        megabits: z.number().min(0).max(1e6).describe('The speed at which it came up'),
        lanes: z.number().int().min(1).max(4).nullable(),
        controller: optional.describe('The controller behind it, by its address on the bus of the board'),
        hub: z.boolean(),
      }),
    )
    .max(500),
  typec: z
    .array(
      z.strictObject({
        port: text,
        data: optional.describe('Which end it is now'),
        power: optional.describe('Whether it gives or takes now'),
        partner: z.boolean().describe('Something is plugged in'),
        cable: z.strictObject({ type: optional, plug: optional, words: z.array(text).max(6) }).nullable(),
      }),
    )
    .max(64),
  pictures: z
    .array(
      z.strictObject({
        connector: text,
        connected: z.boolean(),
        active: z.boolean(),
        edid: z
          .string()
          .regex(/^[0-9a-f]*$/)
          .max(8192)
          .nullable(),
      }),
    )
    .max(64),
  power: z
    .array(
      z.strictObject({
        name: text,
        kind: optional,
        online: z.boolean().nullable(),
        volts: z.number().nullable(),
        amps: z.number().nullable(),
        watts: z.number().nullable(),
        percent: z.number().nullable(),
        level: optional.describe('What was agreed on, of those it could be'),
      }),
    )
    .max(64),
  tunnels: z
    .array(z.strictObject({ name: text, generation: z.number().nullable(), gigabits: z.number().nullable() }))
    .max(64),
  faults: z.array(text).max(50),
})
export type ProbeReading = z.output<typeof probeSchema>

/** The folders that a probe looks into, and the files that it reads of each entry there. No other is opened. */
export const PROBED: readonly { folder: string; files: readonly string[]; bytes?: readonly string[] }[] = [
  {
    folder: 'sys/bus/usb/devices',
    files: ['product', 'manufacturer', 'speed', 'rx_lanes', 'idVendor', 'idProduct', 'bDeviceClass'],
  },
  {
    folder: 'sys/class/typec',
    files: [
      'data_role',
      'power_role',
      'type',
      'plug_type',
      'usb_power_delivery_revision',
      'identity/id_header',
      'identity/cert_stat',
      'identity/product',
      'identity/product_type_vdo1',
      'identity/product_type_vdo2',
    ],
  },
  { folder: 'sys/class/drm', files: ['status', 'enabled'], bytes: ['edid'] },
  {
    folder: 'sys/class/power_supply',
    files: ['type', 'online', 'voltage_now', 'current_now', 'power_now', 'capacity', 'usb_type'],
  },
  {
    folder: 'sys/bus/thunderbolt/devices',
    files: ['device_name', 'generation', 'rx_speed', 'rx_lanes', 'unique_id'],
  },
]

/** What a tree says: in the shapes that the kernel's ABI documents give for usb, typec, drm, power_supply and thunderbolt. What cannot be read is told. */
export function probeOf(tree: SystemTree): ProbeReading {
  const faults: string[] = []
  return {
    format: 'hallway-probe',
    version: 1,
    usb: usbOf(tree),
    typec: typecOf(tree, faults),
    pictures: picturesOf(tree),
    power: powerOf(tree),
    tunnels: tunnelsOf(tree),
    faults: faults.slice(0, 50).map((fault) => fault.slice(0, 200)),
  }
}

/** The entries of a folder, each with a way to read its files. */
function entriesOf({ texts }: SystemTree, folder: string): { name: string; read: (file: string) => string | null }[] {
  const names = new Set<string>()
  const start = `${folder}/`
  for (const path of texts.keys()) if (path.startsWith(start)) names.add(path.slice(start.length).split('/')[0] ?? '')
  return [...names].sort(byNumbers).map((name) => ({
    name,
    read: (file) => texts.get(`${start}${name}/${file}`)?.replaceAll('\u0000', '').trim().slice(0, 200) || null,
  }))
}
const byNumbers = (one: string, other: string): number => one.localeCompare(other, 'en', { numeric: true })

const figure = (value: string | null): number | null =>
  value !== null && /^-?\d+(\.\d+)?$/.test(value) ? Number(value) : null

/** Devices on USB; interfaces of theirs are passed over. */
function usbOf(tree: SystemTree): ProbeReading['usb'] {
  return entriesOf(tree, 'sys/bus/usb/devices').flatMap(({ name, read }) => {
    const megabits = figure(read('speed'))
    if (!/^(usb\d+|\d+-\d+(\.\d+)*)$/.test(name) || megabits === null || megabits < 0) return []
    const ids = [read('idVendor'), read('idProduct')].filter(Boolean).join(':')
    return [
      {
        path: name,
        name: [read('manufacturer'), read('product')].filter(Boolean).join(' ').slice(0, 200) || ids || name,
        megabits,
        lanes: lanesOf(read('rx_lanes')),
        controller: controllerIn(tree.real.get(`sys/bus/usb/devices/${name}`)),
        hub: read('bDeviceClass') === '09',
      },
    ]
  })
}

const lanesOf = (value: string | null): number | null => {
  const lanes = figure(value)
  return lanes !== null && Number.isInteger(lanes) && lanes >= 1 && lanes <= 4 ? lanes : null
}

/** The last address of the board's bus on the way to a device: that of its controller. */
const controllerIn = (real: string | undefined): string | null =>
  real?.match(/[0-9a-f]{4}:[0-9a-f]{2}:[0-9a-f]{2}\.[0-7]/g)?.at(-1) ?? null

function typecOf(tree: SystemTree, faults: string[]): ProbeReading['typec'] {
  const entries = entriesOf(tree, 'sys/class/typec')
  const names = new Set(entries.map(({ name }) => name))
  return entries.flatMap(({ name, read }) => {
    if (!/^port\d{1,2}$/.test(name)) return []
    const cable = entries.find((entry) => entry.name === `${name}-cable`)
    return [
      {
        port: name,
        data: chosen(read('data_role')),
        power: chosen(read('power_role')),
        partner: names.has(`${name}-partner`),
        cable: cable
          ? { type: cable.read('type'), plug: cable.read('plug_type'), words: wordsOf(tree, name, faults) }
          : null,
      },
    ]
  })
}

/** The words of a cable's chip, as far as the computer asked for them. */
function wordsOf({ texts }: SystemTree, port: string, faults: string[]): string[] {
  const start = `sys/class/typec/${port}-cable/`
  const files: FolderFile[] = [...texts].flatMap(([path, text]) => (path.startsWith(start) ? [{ path, text }] : []))
  if (!files.some(({ path }) => path.endsWith('id_header'))) return []
  const read = readClassFolder(files)
  if (!read.ok) {
    faults.push(read.problem)
    return []
  }
  const { idHeader, certStat, product, vdo1, vdo2 } = read.value[0]?.words ?? {}
  return [idHeader, certStat, product, vdo1, vdo2].flatMap((word) =>
    typeof word === 'number' ? `0x${word.toString(16).padStart(8, '0')}` : [],
  )
}

/** "[host] device" is host now. */
const chosen = (value: string | null): string | null => value?.match(/\[(\w+)\]/)?.[1] ?? value

const MOST_EDID_BYTES = 4096

function picturesOf(tree: SystemTree): ProbeReading['pictures'] {
  return entriesOf(tree, 'sys/class/drm').flatMap(({ name, read }) => {
    const status = read('status')
    if (status === null) return []
    const edid = tree.bytes.get(`sys/class/drm/${name}/edid`)
    return [
      {
        connector: name.replace(/^card\d+-/, ''),
        connected: status === 'connected',
        active: read('enabled') === 'enabled',
        edid: edid && edid.length > 0 ? hexOf(edid.subarray(0, MOST_EDID_BYTES)) : null,
      },
    ]
  })
}

const hexOf = (bytes: Uint8Array): string => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('')
const bytesOf = (hex: string): Uint8Array =>
  Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16))

const MICRO = 1e-6

function powerOf(tree: SystemTree): ProbeReading['power'] {
  return entriesOf(tree, 'sys/class/power_supply').map(({ name, read }) => {
    const micro = (file: string): number | null => {
      const value = figure(read(file))
      return value === null ? null : Math.round(value * MICRO * 1000) / 1000
    }
    const [volts, amps] = [micro('voltage_now'), micro('current_now')]
    const said = micro('power_now')
    const online = read('online')
    return {
      name,
      kind: read('type'),
      online: online === null ? null : online === '1',
      volts,
      amps,
      watts: said ?? (volts === null || amps === null ? null : Math.round(volts * Math.abs(amps) * 100) / 100),
      percent: figure(read('capacity')),
      level: chosen(read('usb_type')),
    }
  })
}

/** What hangs on a tunnel, with the speed of both its lanes together. */
function tunnelsOf(tree: SystemTree): ProbeReading['tunnels'] {
  return entriesOf(tree, 'sys/bus/thunderbolt/devices').flatMap(({ name, read }) => {
    const device = read('device_name')
    // the host itself hangs on nothing
    if (device === null || /^\d+-0$/.test(name)) return []
    const speed = figure(read('rx_speed')?.match(/^[\d.]+/)?.[0] ?? null)
    const lanes = lanesOf(read('rx_lanes')) ?? 1
    return [{ name: device, generation: figure(read('generation')), gigabits: speed === null ? null : speed * lanes }]
  })
}

/** A probe that somebody pasted, as Survey reads what a device says. Text that is none is left to others. */
export function readProbe(given: string, reading: DeviceReading): void {
  if (!given.includes('hallway-probe')) return
  let json: unknown
  try {
    json = JSON.parse(given)
  } catch {
    reading.faults.push('The probe is cut short: run it again, and take all that it printed.')
    return
  }
  const probe = probeSchema.safeParse(json)
  if (!probe.success) {
    const [issue] = probe.error.issues
    reading.faults.push(`The probe cannot be read: ${issue?.path.join('.') || 'it'} ${issue?.message ?? ''}.`)
    return
  }
  for (const { edid, connector } of probe.data.pictures) {
    if (!edid) continue
    const read = readEdid(bytesOf(edid))
    if (!read.ok) reading.faults.push(`${connector}: ${read.problem}`)
    else
      reading.displays.push({
        name: read.value.name?.trim() || connector,
        edid: read.value,
        mode: read.value.preferred,
      })
  }
  for (const { path, name, megabits, hub } of probe.data.usb) {
    const cameUp = modeOfMegabits(megabits)
    if (/^usb\d+$/.test(path)) reading.buses.push({ name, ports: null, speed: cameUp })
    else if (!hub) reading.usb.push({ name, cameUp, best: null, milliamps: null, bus: path.split('-')[0] ?? null })
  }
  for (const { port, data } of probe.data.typec)
    reading.ports.push({ name: port, pictures: false, thunderbolt: false, role: data === 'device' ? 'device' : 'host' })
}

/** What changed between two looks: what came, what went, and what came up at another speed. */
export type ProbeEvent = { event: 'came' | 'went' | 'changed'; what: string; name: string; megabits: number | null }

/** Each drop and each plug between two looks, in the order of their paths. */
export function probeEvents(before: ProbeReading, now: ProbeReading): ProbeEvent[] {
  const things = ({ usb, pictures, tunnels }: ProbeReading): Map<string, ProbeEvent> =>
    new Map([
      ...usb.map(({ path, name, megabits }) => [`usb ${path}`, thing(`usb ${path}`, name, megabits)] as const),
      ...pictures
        .filter(({ connected }) => connected)
        .map(({ connector }) => [`picture ${connector}`, thing(`picture ${connector}`, connector, null)] as const),
      ...tunnels.map(
        ({ name, gigabits }) =>
          [`tunnel ${name}`, thing(`tunnel ${name}`, name, gigabits === null ? null : gigabits * 1000)] as const,
      ),
    ])
  const [was, is] = [things(before), things(now)]
  return [...new Set([...was.keys(), ...is.keys()])].sort(byNumbers).flatMap((key): ProbeEvent[] => {
    const [old, fresh] = [was.get(key), is.get(key)]
    if (!fresh) return old ? [{ ...old, event: 'went' }] : []
    if (!old) return [fresh]
    return old.megabits === fresh.megabits ? [] : [{ ...fresh, event: 'changed' }]
  })
}
const thing = (what: string, name: string, megabits: number | null): ProbeEvent => ({
  event: 'came',
  what,
  name,
  megabits,
})
