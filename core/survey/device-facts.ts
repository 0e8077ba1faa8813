import { type LengthUnit, parseLength } from '../quantity/length'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { MEGABYTE_PER_SECOND, parseRate } from '../quantity/rate'
import { parseWatts } from '../quantity/watts'
import { DEVICE_KINDS, type Device, type DeviceKind, type Port } from '../vocabulary/device'
import {
  batteryExample,
  batteryText,
  installedExample,
  installedText,
  noiseExample,
  noiseText,
  parseBattery,
  parseInstalled,
  parseNoise,
} from './device-text'
import { fromWord, oneWord } from './one-word'

/** What a fact is read and written with: the unit of bare lengths, and the ports of its device. */
export type FactContext = { unit: LengthUnit; ports: readonly Port[] }

type FactName =
  | 'noise'
  | 'battery'
  | 'decoder'
  | 'disk'
  | 'pool'
  | 'keeps'
  | 'rated'
  | 'pictureOverUsb'
  | 'controllers'
  | 'installed'

/** Something that can be said of a device in a line: how it is read, and written so that it reads back the same. */
export type DeviceFact = {
  field: FactName
  label: string
  example: string
  /** The kinds of device it is asked of. */
  kinds: readonly DeviceKind[]
  lines?: number
  read(text: string, context: FactContext): Parsed<Partial<Device>>
  say(device: Partial<Device>, context: FactContext): string
}

const factOf = <Field extends FactName>(
  field: Field,
  about: Omit<DeviceFact, 'field' | 'read' | 'say'> & {
    read(text: string, context: FactContext): Parsed<NonNullable<Device[Field]>>
    say(value: NonNullable<Device[Field]>, context: FactContext): string
  },
): DeviceFact => ({
  ...about,
  field,
  read(text, context) {
    const value = about.read(text, context)
    return value.ok ? parsed({ [field]: value.value } as Partial<Device>) : value
  },
  say: (device, context) => {
    const value = device[field]
    return value === undefined || value === null ? '' : about.say(value as NonNullable<Device[Field]>, context)
  },
})

const megabytes = (rate: number): string => `${decimal(rate / MEGABYTE_PER_SECOND, 6)} MB/s`
const gigabits = (rate: number): string =>
  rate >= 1e9 ? `${decimal(rate / 1e9, 9)} Gb/s` : `${decimal(rate / 1e6, 6)} Mb/s`

const LANES = ['3x1', '3x2', '3x4', '4x1', '4x2', '4x4', '5x2', '5x4'] as const
const diskExample = '3000 MB/s write, 3400 MB/s read, lanes 3x4'

/** A drive: "3000 MB/s write, 3400 MB/s read, lanes 3x4, poor bridge". One rate is both. */
function parseDisk(text: string): Parsed<NonNullable<Device['disk']>> {
  const wrong = unreadable(`"${plainText(text).slice(0, 40)}" is not a drive. Write what it does, like ${diskExample}.`)
  const disk: Partial<NonNullable<Device['disk']>> = { bridge: 'good' }
  for (const part of plainText(text).split(/, ?(?=[a-z]|\d)/i)) {
    const word = part.toLowerCase()
    const lanes = LANES.find((each) => word === `lanes ${each}` || word === each)
    if (lanes) disk.pcie = lanes
    else if (word === 'poor bridge') disk.bridge = 'poor'
    else if (word !== 'good bridge') {
      // the letters tell bits from bytes
      const rate = parseRate(part.replace(/ (write|read)$/i, ''))
      if (!rate.ok) return wrong
      if (!word.endsWith(' read')) disk.write = rate.value
      if (!word.endsWith(' write')) disk.read = rate.value
    }
  }
  const { write = disk.read, read = disk.write, bridge = 'good' } = disk
  if (write === undefined || read === undefined) return wrong
  return parsed({ write, read, bridge, ...(disk.pcie ? { pcie: disk.pcie } : {}) })
}

const diskText = ({ write, read, pcie, bridge }: NonNullable<Device['disk']>): string =>
  [
    `${megabytes(write)} write`,
    `${megabytes(read)} read`,
    ...(pcie ? [`lanes ${pcie}`] : []),
    ...(bridge === 'poor' ? ['poor bridge'] : []),
  ].join(', ')

const poolExample = '60 W shared, or: drops to C 1: 60 W'

/** How ports share what a charger has: "60 W shared", or what each falls to once another is in use: "drops to C 1: 60 W, A 1: 12 W". */
function parsePool(text: string, { ports }: FactContext): Parsed<NonNullable<Device['pool']>> {
  const plain = plainText(text)
  const total = /^(.{1,20}?),? shared$/i.exec(plain)?.[1]
  if (total !== undefined) {
    const watts = parseWatts(total)
    return watts.ok ? parsed({ kind: 'shared', total: watts.value }) : watts
  }
  const falls = /^drops to (.{1,1000})$/i.exec(plain)?.[1]
  if (falls === undefined) return unreadable(`"${plain.slice(0, 40)}" is not understood. Write ${poolExample}.`)
  const together: Record<string, number> = {}
  for (const part of falls.split(',')) {
    const colon = part.lastIndexOf(':')
    const name = part.slice(0, colon).trim().toLowerCase()
    const port = ports.find((each) => each.name.toLowerCase() === name || each.id === name)
    const watts = parseWatts(part.slice(colon + 1))
    if (!port) return unreadable(`There is no port "${part.slice(0, Math.max(0, colon)).trim().slice(0, 40)}" to drop.`)
    if (!watts.ok) return watts
    together[port.id] = watts.value
  }
  return parsed({ kind: 'drops', together })
}

function poolText(pool: NonNullable<Device['pool']>, { ports }: FactContext): string {
  if (pool.kind === 'shared') return `${pool.total} W shared`
  return `drops to ${Object.entries(pool.together)
    .map(([id, watts]) => `${nameOfPort(ports, id)}: ${watts} W`)
    .join(', ')}`
}

/** A port by its name, or by its id where the name would not come back. */
function nameOfPort(ports: readonly Port[], id: string): string {
  const name = ports.find((port) => port.id === id)?.name ?? id
  return /[:,]/.test(name) ? id : name
}

const RATED_WORDS = { cat5: 'Cat 5', cat6: 'Cat 6', cat6a: 'Cat 6A', fibre: 'fibre' } as const
const ratedExample = '25 m Cat 5, 50 m Cat 6'

/** How far an extender is rated over each sort of cable: "25 m Cat 5, 50 m Cat 6, 100 m Cat 6A". */
function parseRated(text: string, { unit }: FactContext): Parsed<NonNullable<Device['rated']>> {
  const rated: NonNullable<Device['rated']> = {}
  for (const part of plainText(text).split(/, ?(?=\d)/)) {
    const sort = (['cat6a', 'cat6', 'cat5', 'fibre'] as const).find((each) =>
      part.toLowerCase().replaceAll(' ', '').endsWith(each),
    )
    const length = sort && parseLength(part.replace(/\s?(cat ?\d ?a?|fibre)$/i, ''), unit)
    if (!sort || !length?.ok)
      return unreadable(
        `"${part.slice(0, 40)}" is not understood. Write how far over which cable, like ${ratedExample}.`,
      )
    rated[sort] = length.value
  }
  return parsed(rated)
}

const ratedText = (rated: NonNullable<Device['rated']>): string =>
  (['cat5', 'cat6', 'cat6a', 'fibre'] as const)
    .flatMap((each) => (rated[each] === undefined ? [] : `${rated[each]} m ${RATED_WORDS[each]}`))
    .join(', ')

const controllersExample = '@rear 10 Gb/s, @add-in_card 8 Gb/s'

/** What controllers carry for all ports on them, named as in a port's line: "@rear 10 Gb/s, @add-in_card 8 Gb/s". */
function parseControllers(text: string): Parsed<NonNullable<Device['controllers']>> {
  const controllers: NonNullable<Device['controllers']> = []
  for (const part of plainText(text).split(/, (?=@)/)) {
    const [word = '', ...said] = part.split(' ')
    const rate = parseRate(said.join(' '))
    if (!/^@./.test(word) || !rate.ok)
      return unreadable(
        `"${part.slice(0, 40)}" is not a controller. Write what each carries, like ${controllersExample}.`,
      )
    controllers.push({ name: fromWord(word.slice(1)), carries: rate.value })
  }
  return parsed(controllers)
}

const controllersText = (controllers: NonNullable<Device['controllers']>): string =>
  controllers.map(({ name, carries }) => `@${oneWord(name)} ${gigabits(carries)}`).join(', ')

/** All that can be said of a device beside its name, its place and its ports, in the order of a form. */
export const deviceFacts: readonly DeviceFact[] = [
  factOf('disk', {
    label: 'The drive inside',
    example: diskExample,
    kinds: ['storage'],
    read: parseDisk,
    say: diskText,
  }),
  factOf('battery', {
    label: 'Battery',
    example: batteryExample,
    kinds: ['headset'],
    read: parseBattery,
    say: batteryText,
  }),
  factOf('decoder', {
    label: 'The most its decoder takes',
    example: '150 Mb/s',
    kinds: ['headset'],
    read: parseRate,
    say: gigabits,
  }),
  factOf('pool', {
    label: 'How its ports share what it has',
    example: poolExample,
    kinds: ['charger', 'dock', 'hub'],
    read: parsePool,
    say: poolText,
  }),
  factOf('keeps', {
    label: 'Charged through, it keeps',
    example: '5 W',
    kinds: ['hub', 'dock'],
    read: parseWatts,
    say: (watts) => `${watts} W`,
  }),
  factOf('pictureOverUsb', {
    label: 'A picture over plain USB takes',
    example: '3 Gb/s',
    kinds: ['dock'],
    read: parseRate,
    say: gigabits,
  }),
  factOf('rated', {
    label: 'How far it is rated',
    example: ratedExample,
    kinds: ['extender'],
    read: parseRated,
    say: ratedText,
  }),
  factOf('controllers', {
    label: 'What its controllers carry in all',
    example: controllersExample,
    kinds: ['computer', 'dock', 'hub'],
    read: parseControllers,
    say: controllersText,
  }),
  factOf('noise', {
    label: 'How loud it is',
    example: noiseExample,
    kinds: DEVICE_KINDS,
    read: (text, { unit }) => parseNoise(text, unit),
    say: (noise, { unit }) => noiseText(noise, unit),
  }),
  factOf('installed', {
    label: 'What is installed, a line each',
    example: installedExample,
    kinds: ['computer', 'dock', 'headset', 'extender'],
    lines: 2,
    read: parseInstalled,
    say: installedText,
  }),
]

/** Something of a device that is so or not, and of which kinds it is asked. */
export const deviceTicks = [
  {
    name: 'busPowered',
    label: 'Has no power supply: it runs on its uplink',
    kinds: ['hub', 'dock', 'extender'],
  },
  { name: 'needsDrivers', label: 'Needs drivers on the computer', kinds: ['dock', 'extender', 'camera', 'other'] },
  { name: 'takesNoDrivers', label: 'No drivers can be put on it', kinds: ['computer'] },
] as const satisfies readonly { name: string; label: string; kinds: readonly DeviceKind[] }[]
export type DeviceTick = (typeof deviceTicks)[number]['name']

/** Which of the ticks a device has. */
export const ticksOf = ({
  busPowered,
  drivers,
}: Pick<Device, 'busPowered' | 'drivers'>): Record<DeviceTick, boolean> => ({
  busPowered,
  needsDrivers: drivers === 'needs',
  takesNoDrivers: drivers === 'takes none',
})

/** The device with its ticks as they are now. */
export function withTicks<T extends Partial<Device>>(
  device: T,
  { busPowered, needsDrivers, takesNoDrivers }: Record<DeviceTick, boolean>,
): T & Pick<Device, 'busPowered'> {
  const { drivers: _, ...rest } = device
  const drivers = needsDrivers ? 'needs' : takesNoDrivers ? 'takes none' : undefined
  return { ...(rest as T), busPowered, ...(drivers ? { drivers } : {}) }
}

/** The device with a fact as it is said now; nothing said takes it away. */
export function withFact<T extends Partial<Device>>(
  device: T,
  { field, label, read }: DeviceFact,
  text: string,
  context: FactContext,
): Parsed<T> {
  const { [field]: _, ...rest } = device
  if (text.trim() === '') return parsed(rest as T)
  const value = read(text, context)
  return value.ok ? parsed({ ...(rest as T), ...value.value }) : unreadable(`${label}: ${value.problem}`)
}
