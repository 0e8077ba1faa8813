import { modeOfVic } from './edid-cta'
import type { Edid, EdidMode } from './edid-shape'

/** An extension that holds a section of DisplayID: version, size, kind of product, then data blocks. The structures of 1.3 and 2.0 have tags of their own. */
export function readDisplayId(block: Uint8Array, edid: Edid): void {
  const at = (place: number): number => block[place] ?? 0
  const size = at(2)
  const end = Math.min(5 + size, 126)
  if (5 + size > 126) edid.faults.push('The DisplayID section says that it is longer than its block.')
  for (let place = 5; place + 3 <= end; ) {
    const [tag, revision, length] = [at(place), at(place + 1), at(place + 2)]
    // what is left is filled with nothing
    if (tag === 0 && length === 0) return
    if (place + 3 + length > end) {
      edid.faults.push('A data block of DisplayID is longer than the room it has.')
      return
    }
    const payload = block.subarray(place + 3, place + 3 + length)
    const readBlock = BLOCKS[tag]
    if (readBlock) readBlock(payload, edid, revision)
    place += 3 + length
  }
}

type Read = (bytes: Uint8Array, edid: Edid, revision: number) => void

const word = (bytes: Uint8Array, place: number): number => (bytes[place] ?? 0) | ((bytes[place + 1] ?? 0) << 8)

/** Reads timings of one size, one after the other. */
const each =
  (
    size: number | ((revision: number) => number),
    read: (bytes: Uint8Array) => (EdidMode & { preferred?: boolean }) | null,
  ): Read =>
  (bytes, edid, revision) => {
    const step = typeof size === 'number' ? size : size(revision)
    for (let place = 0; place + step <= bytes.length; place += step) {
      const found = read(bytes.subarray(place, place + step))
      if (!found) continue
      const { preferred, ...mode } = found
      edid.modes.push(mode)
      if (preferred) edid.preferred = mode
    }
  }

/** A timing from its clock, its size with what is blank, and the options that say whether it is interlaced and preferred. */
function timed(
  from: string,
  clock: number,
  [width, hBlank, height, vBlank]: readonly [number, number, number, number],
  options: number,
) {
  const interlaced = (options & 0x10) !== 0
  const lines = interlaced ? (height + vBlank) / 2 : height + vBlank
  return {
    width,
    height,
    refresh: clock / ((width + hBlank) * lines),
    ...(interlaced ? { interlaced: true as const } : {}),
    from,
    preferred: (options & 0x80) !== 0,
  }
}

const clockOf = (bytes: Uint8Array): number => ((bytes[0] ?? 0) | ((bytes[1] ?? 0) << 8) | ((bytes[2] ?? 0) << 16)) + 1

/** Timings I (in steps of 10 kHz) and VII (of 1 kHz): pixel clock, and active and blank of both directions. */
const detailed = (from: string, stepHz: number) => (bytes: Uint8Array) =>
  timed(
    from,
    clockOf(bytes) * stepHz,
    [word(bytes, 4) + 1, word(bytes, 6) + 1, word(bytes, 12) + 1, word(bytes, 14) + 1],
    bytes[3] ?? 0,
  )

/** Timing II: the same in eleven bytes, across in characters of eight pixels. */
function short(bytes: Uint8Array) {
  const at = (place: number): number => bytes[place] ?? 0
  const width = ((at(4) | ((at(5) & 1) << 8)) + 1) * 8
  const hBlank = ((at(5) >> 1) + 1) * 8
  const height = (at(7) | ((at(8) & 15) << 8)) + 1
  return timed('timing II', clockOf(bytes) * 10_000, [width, hBlank, height, at(9) + 1], at(3))
}

const SHAPES: readonly (readonly [number, number])[] = [
  [1, 1],
  [5, 4],
  [4, 3],
  [15, 9],
  [16, 9],
  [16, 10],
  [64, 27],
  [256, 135],
]

/** Timing III: a shape, a width and a rate. */
function formula(bytes: Uint8Array) {
  const shape = SHAPES[(bytes[0] ?? 0) & 15]
  if (!shape) return null
  const width = ((bytes[1] ?? 0) + 1) * 8
  const refresh = ((bytes[2] ?? 0) & 0x7f) + 1
  const height = Math.floor((width * shape[1]) / shape[0])
  return { width, height, refresh, from: 'timing III', preferred: ((bytes[0] ?? 0) & 0x80) !== 0 }
}

/** Timings V, IX and X: width, height and a rate. */
const sized = (from: string, place: number) => (bytes: Uint8Array) => ({
  width: word(bytes, place) + 1,
  height: word(bytes, place + 2) + 1,
  refresh: ((bytes[place + 4] ?? 0) | (from === 'timing X' && bytes.length > 6 ? ((bytes[6] ?? 0) & 3) << 8 : 0)) + 1,
  from,
})

/** Timings VIII: numbers of modes that other standards keep. */
const numbered: Read = (bytes, edid, revision) => {
  if (revision >> 6 !== 1) {
    edid.skipped.push('DisplayID modes by number')
    return
  }
  const step = revision & 8 ? 2 : 1
  for (let place = 0; place + step <= bytes.length; place += step) {
    const mode = modeOfVic(step === 2 ? word(bytes, place) : (bytes[place] ?? 0))
    if (mode) edid.modes.push(mode)
  }
}

const tiled: Read = (bytes, edid) => {
  const at = (place: number): number => bytes[place] ?? 0
  edid.tiles = {
    across: ((at(1) >> 4) | ((at(3) >> 2) & 0x30)) + 1,
    down: ((at(1) & 15) | (at(3) & 0x30)) + 1,
    width: word(bytes, 4) + 1,
    height: word(bytes, 6) + 1,
  }
}

const BLOCKS: Readonly<Record<number, Read>> = {
  3: each(20, detailed('timing I', 10_000)),
  4: each(11, short),
  5: each(3, formula),
  17: each(7, sized('timing V', 2)),
  18: tiled,
  34: each(20, detailed('timing VII', 1000)),
  35: numbered,
  36: each(6, sized('timing IX', 1)),
  40: tiled,
  42: each((revision) => 6 + ((revision >> 4) & 7), sized('timing X', 1)),
}
