/** One field of a 32-bit word that a cable's chip gives: which bits, what they are called, and what a value means. */
export type FieldSpec = {
  high: number
  low: number
  name: string
  /** Must be zero; a chip that sets it says something this revision does not know. */
  reserved?: true
  meaning(value: number): string
}

export type DecodedField = { bits: string; name: string; value: number; meaning: string; reservedSet: boolean }

/** A word decoded field by field, from its highest bit to its lowest. */
export function decodeFields(word: number, specs: readonly FieldSpec[]): DecodedField[] {
  return specs.map(({ high, low, name, reserved, meaning }) => {
    const value = bitsOf(word, high, low)
    return {
      bits: high === low ? String(high) : `${high}:${low}`,
      name,
      value,
      meaning: meaning(value),
      reservedSet: reserved === true && value !== 0,
    }
  })
}

/** The value in bits `high` to `low` of an unsigned 32-bit word. */
export const bitsOf = (word: number, high: number, low: number): number =>
  Math.floor(word / 2 ** low) % 2 ** (high - low + 1)

const field = (high: number, low: number, name: string, meaning: FieldSpec['meaning']): FieldSpec => ({
  high,
  low,
  name,
  meaning,
})
const reserved = (high: number, low = high): FieldSpec => ({
  high,
  low,
  name: 'reserved',
  reserved: true,
  meaning: (value) => (value === 0 ? 'zero, as it must be' : 'set, though this revision keeps it zero'),
})
const oneOf =
  (...meanings: string[]) =>
  (value: number): string =>
    meanings[value] ?? 'not a value this revision knows'
const yesNo = oneOf('no', 'yes')
/** Several fields of the active cable's second word say what is missing. */
const noYes = oneOf('yes', 'no')
const number = (value: number): string => String(value)
const hex =
  (digits: number) =>
  (value: number): string =>
    `0x${value.toString(16).padStart(digits, '0')}`
const degrees = (value: number): string => (value === 0 ? 'not stated' : `${value} °C`)

/** The layout of every word follows the field comments of the Linux kernel header `pd_vdo.h`. */
const latency = (active: boolean) => (value: number) => latencyMeaning(value, active)

function latencyMeaning(value: number, active: boolean): string {
  if (value >= 1 && value <= 7) return `${(value - 1) * 10} to ${value * 10} ns, up to about ${value} m`
  if (value === 8) return active ? '1000 ns, about 100 m' : 'over 70 ns, longer than about 7 m'
  if (active && (value === 9 || value === 10)) return `${(value - 7) * 1000} ns, about ${(value - 7) * 100} m`
  return 'not a value this revision knows'
}

const plugType = field(19, 18, 'plug', oneOf('type-A', 'type-B', 'type-C', 'captive'))
const current = field(6, 5, 'current', oneOf('USB default', '3 A', '5 A'))
const voltage = field(10, 9, 'most volts', oneOf('20 V', '30 V', '40 V', '50 V'))
const speed = field(
  2,
  0,
  'highest speed',
  oneOf('USB 2.0 only', 'USB 3.2 Gen 1', 'USB 3.2 and USB4 Gen 2', 'USB4 Gen 3', 'USB4 Gen 4'),
)
const versions = [field(31, 28, 'hardware version', number), field(27, 24, 'firmware version', number)]

export const PRODUCT_TYPES = [
  'not a cable',
  '',
  '',
  'passive cable',
  'active cable',
  '',
  'VCONN-powered device',
] as const

export const idHeaderFields = (revision: 2 | 3): readonly FieldSpec[] => [
  field(31, 31, 'data as a host', yesNo),
  field(30, 30, 'data as a device', yesNo),
  field(29, 27, 'product type', (value) => PRODUCT_TYPES[value] || 'not a kind of cable'),
  field(26, 26, 'alternate modes of its own', yesNo),
  ...(revision === 2
    ? [reserved(25, 16)]
    : [
        reserved(25, 23),
        field(22, 21, 'connector', oneOf('not stated', 'reserved', 'socket', 'plug')),
        reserved(20, 16),
      ]),
  field(15, 0, 'vendor', hex(4)),
]

export const certFields: readonly FieldSpec[] = [
  field(31, 0, 'certification number', (value) =>
    value === 0 ? 'none: never certified, or not entered' : hex(8)(value),
  ),
]

export const productFields: readonly FieldSpec[] = [
  field(31, 16, 'product', hex(4)),
  field(15, 0, 'release', (value) => `${value >> 8}.${(value & 0xff).toString(16).padStart(2, '0')}`),
]

/** Power Delivery 2.0 had one layout for passive and active cables. */
export const cableFieldsRevision2: readonly FieldSpec[] = [
  ...versions,
  reserved(23, 20),
  plugType,
  reserved(17),
  field(16, 13, 'latency', latency(false)),
  field(12, 11, 'termination', oneOf('VCONN not needed', 'VCONN needed', 'one end active', 'both ends active')),
  field(10, 10, 'first transmit pair', oneOf('fixed', 'configurable')),
  field(9, 9, 'second transmit pair', oneOf('fixed', 'configurable')),
  field(8, 8, 'first receive pair', oneOf('fixed', 'configurable')),
  field(7, 7, 'second receive pair', oneOf('fixed', 'configurable')),
  current,
  field(4, 4, 'supply through the cable', yesNo),
  field(3, 3, 'second chip at the far end', yesNo),
  field(2, 0, 'highest speed', oneOf('USB 2.0 only', 'USB 3.1 Gen 1', 'USB 3.1 Gen 1 and Gen 2')),
]

/** Bit 17 became the extended power range flag in later versions (from memory). */
const extendedRange = field(17, 17, 'extended power range', yesNo)
/** From this version of the word on, bit 17 has a meaning (USB PD 3.1, from memory). */
export const FIRST_VERSION_WITH_EXTENDED_RANGE = 3

const bit17 = (version: number): FieldSpec =>
  version >= FIRST_VERSION_WITH_EXTENDED_RANGE ? extendedRange : reserved(17)
const wordVersion = field(23, 21, 'version of this word', (value) => `1.${value}`)
const pluggable = { ...plugType, meaning: oneOf('not allowed', 'not allowed', 'type-C', 'captive') }

export const passiveFields = (version: number): readonly FieldSpec[] => [
  ...versions,
  wordVersion,
  reserved(20),
  pluggable,
  bit17(version),
  field(16, 13, 'latency', latency(false)),
  field(12, 11, 'termination', oneOf('VCONN not needed', 'VCONN needed', 'not allowed here', 'not allowed here')),
  voltage,
  reserved(8, 7),
  current,
  reserved(4, 3),
  speed,
]

export const activeFields = (version: number): readonly FieldSpec[] => [
  ...versions,
  wordVersion,
  reserved(20),
  pluggable,
  bit17(version),
  field(16, 13, 'latency', latency(true)),
  field(12, 11, 'termination', oneOf('not allowed here', 'not allowed here', 'one end active', 'both ends active')),
  voltage,
  field(8, 8, 'sideband use', noYes),
  field(7, 7, 'sideband', oneOf('passive', 'active')),
  current,
  field(4, 4, 'supply through the cable', yesNo),
  field(3, 3, 'second chip at the far end', yesNo),
  speed,
]

export const activeSecondFields: readonly FieldSpec[] = [
  field(31, 24, 'warmest it works at', degrees),
  field(23, 16, 'shuts down at', degrees),
  reserved(15),
  field(
    14,
    12,
    'power asleep',
    oneOf('over 10 mW', '5 to 10 mW', '1 to 5 mW', '0.5 to 1 mW', '0.2 to 0.5 mW', '50 to 200 µW', 'under 50 µW'),
  ),
  field(11, 11, 'waking', oneOf('direct', 'through a lighter sleep')),
  field(10, 10, 'made of', oneOf('copper', 'optical fibre')),
  field(9, 9, 'active element', oneOf('redriver', 'retimer')),
  field(8, 8, 'USB4', noYes),
  field(7, 6, 'USB 2.0 hubs it counts as', number),
  field(5, 5, 'USB 2.0', noYes),
  field(4, 4, 'USB 3.2', noYes),
  field(3, 3, 'lanes', oneOf('one', 'two')),
  field(2, 2, 'isolates by light', yesNo),
  reserved(1),
  field(0, 0, 'USB generation', oneOf('Gen 1', 'Gen 2 or better')),
]
