/** Builds EDIDs by the standards, block by block, for the checks of what reads them. It shares no code with the reader. */

export type Detailed = {
  clock: number
  width: number
  hBlank: number
  height: number
  vBlank: number
  interlaced?: boolean
}

const BLOCK = 128
const summed = (bytes: number[]): number[] => {
  const block = [...bytes, ...Array(BLOCK).fill(0)].slice(0, BLOCK - 1)
  const sum = block.reduce((all, byte) => all + byte, 0) % 256
  return [...block, (256 - sum) % 256]
}
const low = (value: number): number => value & 255
const high = (value: number): number => (value >> 8) & 255

/** A detailed timing of 18 bytes; the clock in units of 10 kHz, active and blank in pixels and lines (of one field). */
export function detailed({ clock, width, hBlank, height, vBlank, interlaced }: Detailed): number[] {
  return [
    low(clock),
    high(clock),
    low(width),
    low(hBlank),
    ((width >> 8) << 4) | (hBlank >> 8),
    low(height),
    low(vBlank),
    ((height >> 8) << 4) | (vBlank >> 8),
    48,
    32,
    0x35,
    0,
    low(600),
    low(340),
    (high(600) << 4) | high(340),
    0,
    0,
    interlaced ? 0x9a : 0x1a,
  ]
}

const text = (tag: number, words: string): number[] => [
  0,
  0,
  0,
  tag,
  0,
  ...[...`${words}\n             `.slice(0, 13)].map((letter) => letter.charCodeAt(0)),
]
export const nameOf = (words: string): number[] => text(0xfc, words)
export const rangeOf = (v: [number, number], h: [number, number], clock: number): number[] => [
  0,
  0,
  0,
  0xfd,
  0,
  v[0],
  v[1],
  h[0],
  h[1],
  clock / 10,
  0x01,
  0x0a,
  32,
  32,
  32,
  32,
  32,
  32,
]
export const establishedThree = (bits: number[]): number[] =>
  [0, 0, 0, 0xf7, 0, 0x0a, ...bits, 0, 0, 0, 0, 0, 0].slice(0, 18)
export const cvtCodes = (codes: number[][]): number[] => [
  0,
  0,
  0,
  0xf8,
  0,
  1,
  ...[...codes.flat(), ...Array(12).fill(0)].slice(0, 12),
]
const DUMMY = [0, 0, 0, 0x10, 0, ...Array(13).fill(0)]

export type Base = {
  revision?: number
  /** Byte 20. */
  input: number
  features?: number
  established?: [number, number, number]
  standard?: [number, number][]
  descriptors: number[][]
  extensions?: number[][]
  /** How many extensions it says it has, where that is not how many it has. */
  promised?: number
}

export function edid({
  revision = 4,
  input,
  features = 0x02,
  established = [0, 0, 0],
  standard = [],
  descriptors,
  extensions = [],
  promised = extensions.length,
}: Base): Uint8Array {
  const stated = [...standard.flat(), ...Array(16).fill(1)].slice(0, 16)
  const four = [...descriptors, DUMMY, DUMMY, DUMMY, DUMMY].slice(0, 4)
  const base = [
    ...[0, 255, 255, 255, 255, 255, 255, 0],
    // "HWY", product 0x1234, serial 1, week 10 of 2024
    ...[0x22, 0xf9, 0x34, 0x12, 1, 0, 0, 0, 10, 34],
    ...[1, revision, input, 60, 34, 120, features],
    ...[0xee, 0x91, 0xa3, 0x54, 0x4c, 0x99, 0x26, 0x0f, 0x50, 0x54],
    ...established,
    ...stated,
    ...four.flat(),
    promised,
  ]
  return Uint8Array.from([...summed(base), ...extensions.flat()])
}

/** An extension of CTA-861: data blocks (tag and payload), then detailed timings. */
export function cta(blocks: [tag: number, payload: number[]][], timings: Detailed[] = [], flags = 0x30): number[] {
  const data = blocks.flatMap(([tag, payload]) => [(tag << 5) | payload.length, ...payload])
  const start = 4 + data.length
  return summed([2, 3, start, flags, ...data, ...timings.flatMap(detailed)])
}
export const hdmi = (depths: number, clock: number, vics: number[] = []): [number, number[]] => [
  3,
  [0x03, 0x0c, 0, 0x10, 0, depths, clock / 5, ...(vics.length > 0 ? [0x20, 0, vics.length << 5, ...vics] : [])],
]
export const forum = (clock: number, frl: number, dsc: boolean): [number, number[]] => [
  3,
  [0xd8, 0x5d, 0xc4, 1, clock / 5, 0x80, frl << 4, 0, 0, 0, dsc ? 0x81 : 0, dsc ? frl << 4 : 0, dsc ? 0x10 : 0],
]

/** An extension that holds a section of DisplayID. */
export function displayId(
  version: 0x12 | 0x13 | 0x20,
  blocks: [tag: number, revision: number, payload: number[]][],
): number[] {
  const data = blocks.flatMap(([tag, revision, payload]) => [tag, revision, payload.length, ...payload])
  const section = [version, data.length, version === 0x20 ? 2 : 3, 0, ...data]
  const sum = section.reduce((all, byte) => all + byte, 0) % 256
  return summed([0x70, ...section, (256 - sum) % 256])
}

const word = (value: number): number[] => [low(value), high(value)]

/** Timings I and VII: the clock in steps of 10 kHz or 1 kHz. */
export const displayIdDetailed = ({ clock, width, hBlank, height, vBlank }: Detailed, preferred = false): number[] => [
  low(clock - 1),
  high(clock - 1),
  (clock - 1) >> 16,
  (preferred ? 0x80 : 0) | 4,
  ...word(width - 1),
  ...word(hBlank - 1),
  ...word(47),
  ...word(31 | 0x8000),
  ...word(height - 1),
  ...word(vBlank - 1),
  ...word(2),
  ...word(4),
]
export const sizedTiming = (width: number, height: number, refresh: number): number[] => [
  0,
  ...word(width - 1),
  ...word(height - 1),
  refresh - 1,
]
export const tiles = (across: number, down: number, width: number, height: number): number[] => [
  0x82,
  ((across - 1) << 4) | (down - 1),
  0,
  0,
  ...word(width - 1),
  ...word(height - 1),
  ...[0, 0, 0, 0, 0],
  ...[0x48, 0x57, 0x59, 1, 0, 0, 0, 0, 0],
]
