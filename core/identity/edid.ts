import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import { readCta } from './edid-cta'
import { readDisplayId } from './edid-displayid'
import { detailedTiming, established, establishedThree, standardMode } from './edid-modes'
import type { Edid, EdidMode } from './edid-shape'

export const BLOCK = 128
const HEADER = [0, 255, 255, 255, 255, 255, 255, 0]
/** The count of extensions is one byte; nothing that is sold has more than a few. */
const MOST_EXTENSIONS = 32

export const isEdid = (bytes: Uint8Array): boolean => HEADER.every((value, at) => bytes[at] === value)

/**
 * Reads an EDID. What is wrong with it (a sum that does not fit, extensions that are missing) is told and the rest read; only what has no first block at all
 * is refused.
 */
export function readEdid(bytes: Uint8Array): Parsed<Edid> {
  if (bytes.length < BLOCK)
    return unreadable(`An EDID has 128 bytes or more; this has ${bytes.length}. Take the whole file.`)
  if (!isEdid(bytes)) return unreadable('This does not begin as an EDID does (00 FF FF FF FF FF FF 00).')
  const edid = baseBlock(bytes.subarray(0, BLOCK))
  const promised = bytes[126] ?? 0
  const there = Math.floor(bytes.length / BLOCK) - 1
  if (promised > there)
    edid.faults.push(
      `It promises ${count(promised, 'extension')}, and ${there === 0 ? 'none is' : `${there} are`} there.`,
    )
  for (let number = 1; number <= Math.min(promised, there, MOST_EXTENSIONS); number += 1) {
    const block = bytes.subarray(number * BLOCK, (number + 1) * BLOCK)
    checkSum(block, `Extension ${number}`, edid)
    if (block[0] === CTA) readCta(block, edid)
    else if (block[0] === DISPLAY_ID) readDisplayId(block, edid)
    else if (block[0] !== BLOCK_MAP) edid.skipped.push(`extension ${number} of kind 0x${hex(block[0] ?? 0)}`)
  }
  edid.modes = distinct(edid.modes)
  edid.preferred = edid.preferred ?? edid.modes[0] ?? null
  return parsed(edid)
}
const CTA = 0x02
const DISPLAY_ID = 0x70
const BLOCK_MAP = 0xf0

const count = (number: number, what: string): string => `${number} ${what}${number === 1 ? '' : 's'}`
const hex = (byte: number): string => byte.toString(16).padStart(2, '0')

function checkSum(block: Uint8Array, what: string, { faults }: Edid): void {
  const sum = block.reduce((all, byte) => all + byte, 0) % 256
  if (sum !== 0) faults.push(`${what}: its checksum does not fit, so a byte of it was read or written wrong.`)
}

const INTERFACES: Readonly<Record<number, Edid['input']>> = { 1: 'DVI', 2: 'HDMI', 3: 'HDMI', 5: 'DisplayPort' }
const DEPTHS: Readonly<Record<number, number>> = { 1: 6, 2: 8, 3: 10, 4: 12, 5: 14, 6: 16 }

function baseBlock(block: Uint8Array): Edid {
  const at = (place: number): number => block[place] ?? 0
  const revision = at(19)
  const digital = (at(20) & 0x80) !== 0
  const told = digital && revision >= 4
  const edid: Edid = {
    name: null,
    input: digital ? (told && INTERFACES[at(20) & 15]) || 'digital' : 'analogue',
    bits: told ? (DEPTHS[(at(20) >> 4) & 7] ?? null) : null,
    modes: [],
    preferred: null,
    range: null,
    hdmi: null,
    chromas: [],
    hdr: false,
    tiles: null,
    faults: [],
    skipped: [],
  }
  checkSum(block, 'The first block', edid)
  if (told && at(24) & 0x08) edid.chromas.push('444')
  if (told && at(24) & 0x10) edid.chromas.push('422')
  for (let place = 54; place < 126; place += 18) descriptor(block.subarray(place, place + 18), edid, revision)
  const [first] = edid.modes
  // since 1.3 the first detailed timing is the one it is made for
  if (first && (revision >= 3 || at(24) & 0x02)) edid.preferred = first
  edid.modes.push(...established(at(35), at(36), at(37)))
  for (let place = 38; place < 54; place += 2) standard(at(place), at(place + 1), edid, revision)
  return edid
}

function standard(first: number, second: number, edid: Edid, revision: number): void {
  const mode = standardMode(first, second, revision)
  if (mode) edid.modes.push(mode)
}

/** One of the four descriptors of 18 bytes: a detailed timing, or something about the display. */
function descriptor(bytes: Uint8Array, edid: Edid, revision: number): void {
  const at = (place: number): number => bytes[place] ?? 0
  if (at(0) !== 0 || at(1) !== 0) {
    const mode = detailedTiming(bytes)
    if (mode) edid.modes.push(mode)
    return
  }
  switch (at(3)) {
    case 0xfc:
      edid.name = (edid.name ?? '') + textOf(bytes.subarray(5))
      return
    case 0xfd: {
      const [v0, v1, h0, h1] = [at(4) & 1 ? 255 : 0, at(4) & 2 ? 255 : 0, at(4) & 4 ? 255 : 0, at(4) & 8 ? 255 : 0]
      edid.range = {
        vertical: [at(5) + v0, at(6) + v1],
        horizontal: [at(7) + h0, at(8) + h1],
        maxClockMHz: at(9) === 0 || at(9) === 255 ? null : at(9) * 10,
      }
      return
    }
    case 0xf7:
      edid.modes.push(...establishedThree(bytes.subarray(6, 12)))
      return
    case 0xf8:
      for (let place = 6; place + 3 <= 18; place += 3) cvtCode(bytes.subarray(place, place + 3), edid)
      return
    case 0xfa:
      for (let place = 5; place < 17; place += 2) standard(at(place), at(place + 1), edid, revision)
  }
}

/** A code of three bytes for a mode of CVT (VESA E-EDID 1.4). */
function cvtCode(bytes: Uint8Array, edid: Edid): void {
  const [low, middle, high] = bytes
  if (low === undefined || middle === undefined || high === undefined) return
  if (low === 0 && middle === 0 && high === 0) return
  const height = ((low | ((middle & 0xf0) << 4)) + 1) * 2
  const [across, down] = CVT_SHAPES[(middle >> 2) & 3] ?? [4, 3]
  const width = Math.floor((height * across) / down / 8) * 8
  const rates = [
    high & 0x10 ? 50 : 0,
    high & 0x08 ? 60 : 0,
    high & 0x04 ? 75 : 0,
    high & 0x02 ? 85 : 0,
    high & 1 ? 60 : 0,
  ]
  for (const refresh of new Set(rates)) if (refresh > 0) edid.modes.push({ width, height, refresh, from: 'CVT code' })
}
const CVT_SHAPES: readonly (readonly [number, number])[] = [
  [4, 3],
  [16, 9],
  [16, 10],
  [15, 9],
]

/** The text of a descriptor: up to a line's end, without what no name holds. */
function textOf(bytes: Uint8Array): string {
  let text = ''
  for (const byte of bytes) {
    if (byte === 0x0a || byte === 0) break
    text += byte >= 0x20 && byte < 0x7f ? String.fromCharCode(byte) : ''
  }
  return text
}

/** A mode once, however often it is said: sizes and refresh to a hundredth. The one that is made for it comes first. */
function distinct(modes: readonly EdidMode[]): EdidMode[] {
  const known = new Map<string, EdidMode>()
  for (const mode of modes) {
    const key = `${mode.width}x${mode.height}${mode.interlaced ? 'i' : ''}@${mode.refresh.toFixed(2)}`
    if (!known.has(key)) known.set(key, mode)
  }
  return [...known.values()]
}
