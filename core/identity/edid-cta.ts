import { ctaFormats } from '../standards/cta-861'
import { detailedTiming } from './edid-modes'
import type { Edid, EdidHdmi, EdidMode } from './edid-shape'

const formats = new Map(ctaFormats.map((row) => [row[0], row]))

/** The mode of a video identification code; null where it is interlaced, or none that is known. */
export function modeOfVic(vic: number, from = `VIC ${vic}`): EdidMode | null {
  const row = formats.get(vic)
  if (!row) return null
  const [, width, height, hTotal, vTotal, kilohertz] = row
  return { width, height, refresh: (kilohertz * 1000) / (hTotal * vTotal), from }
}

/** The formats of the first HDMI with more than full HD, by their own codes (HDMI 1.4). */
const HDMI_VICS: Readonly<Record<number, number>> = { 1: 95, 2: 94, 3: 93, 4: 98 }

const HDMI_OUI = 0x000c03
const HDMI_FORUM_OUI = 0xc45dd8
const FRL_GBPS: readonly (number | null)[] = [null, 9, 18, 24, 32, 40, 48]

const noHdmi = (): EdidHdmi => ({ maxTmdsMHz: null, frlGbps: null, compression: false, bits: 8 })

/** An extension of CTA-861: its data blocks, then detailed timings to the end. */
export function readCta(block: Uint8Array, edid: Edid): void {
  const at = (place: number): number => block[place] ?? 0
  const [revision, timings] = [at(1), at(2)]
  if (revision >= 2) {
    if (at(3) & 0x20) add(edid, '444')
    if (at(3) & 0x10) add(edid, '422')
  }
  if (revision >= 3) {
    const end = Math.min(timings === 0 ? 127 : timings, 127)
    for (let place = 4; place < end; ) {
      const length = at(place) & 31
      if (place + 1 + length > end) {
        edid.faults.push('A data block of the CTA extension is longer than the room it has.')
        break
      }
      dataBlock(at(place) >> 5, block.subarray(place + 1, place + 1 + length), edid)
      place += 1 + length
    }
  }
  if (timings >= 4)
    for (let place = timings; place + 18 <= 127; place += 18) {
      if (at(place) === 0 && at(place + 1) === 0) break
      const mode = detailedTiming(block.subarray(place, place + 18))
      if (mode) edid.modes.push(mode)
    }
}

const add = ({ chromas }: Edid, chroma: '444' | '422' | '420'): void => {
  if (!chromas.includes(chroma)) chromas.push(chroma)
}

function dataBlock(tag: number, bytes: Uint8Array, edid: Edid): void {
  if (tag === 2) {
    for (const byte of bytes) vic(byte, edid)
  } else if (tag === 3) vendorBlock(bytes, edid)
  else if (tag === 7) extendedBlock(bytes[0] ?? 0, bytes.subarray(1), edid)
}

/** A short video descriptor: below 193 the highest bit says that the mode is native. */
function vic(byte: number, edid: Edid): void {
  const code = byte >= 129 && byte <= 192 ? byte & 127 : byte
  const mode = modeOfVic(code)
  if (mode) edid.modes.push(mode)
}

function vendorBlock(bytes: Uint8Array, edid: Edid): void {
  const at = (place: number): number => bytes[place] ?? 0
  const oui = at(0) | (at(1) << 8) | (at(2) << 16)
  if (oui === HDMI_OUI) hdmiBlock(bytes, edid)
  else if (oui === HDMI_FORUM_OUI) forumBlock(bytes.subarray(3), edid)
  else edid.skipped.push("a maker's own data block")
}

/** The data block of HDMI 1.4: depths of colour, the highest clock, formats of its own. */
function hdmiBlock(bytes: Uint8Array, edid: Edid): void {
  const at = (place: number): number => bytes[place] ?? 0
  edid.hdmi ??= noHdmi()
  const { hdmi } = edid
  if (at(5) & 0x40) hdmi.bits = 16
  else if (at(5) & 0x20) hdmi.bits = 12
  else if (at(5) & 0x10) hdmi.bits = 10
  if (at(6) > 0) hdmi.maxTmdsMHz = Math.max(hdmi.maxTmdsMHz ?? 0, at(6) * 5)
  if (edid.input === 'digital') edid.input = 'HDMI'
  if (!(at(7) & 0x20)) return
  const video = 8 + (at(7) & 0x80 ? 2 : 0) + (at(7) & 0x40 ? 2 : 0)
  const formats = at(video + 1) >> 5
  for (let number = 1; number <= formats; number += 1) {
    const code = HDMI_VICS[at(video + 1 + number)]
    const mode = code === undefined ? null : modeOfVic(code, `HDMI VIC ${at(video + 1 + number)}`)
    if (mode) edid.modes.push(mode)
  }
}

/** The data block of the HDMI Forum: character rates above 340 MHz, fixed rate links, compression. Begins with its version. */
function forumBlock(bytes: Uint8Array, edid: Edid): void {
  const at = (place: number): number => bytes[place] ?? 0
  edid.hdmi ??= noHdmi()
  const { hdmi } = edid
  if (at(1) > 0) hdmi.maxTmdsMHz = at(1) * 5
  hdmi.frlGbps = FRL_GBPS[at(3) >> 4] ?? null
  hdmi.compression = (at(7) & 0x80) !== 0
  if (edid.input === 'digital') edid.input = 'HDMI'
}

function extendedBlock(tag: number, bytes: Uint8Array, edid: Edid): void {
  switch (tag) {
    case 6:
      // transfer functions by bit: two of old, then the perceptual quantiser and hybrid log-gamma (CTA-861.3)
      edid.hdr = ((bytes[0] ?? 0) & 0x0c) !== 0
      return
    case 14:
      // formats in 4:2:0 only
      add(edid, '420')
      for (const byte of bytes) vic(byte, edid)
      return
    case 15:
      add(edid, '420')
      return
    case 0x79:
      // two bytes are kept for later
      forumBlock(bytes.subarray(2), edid)
      return
    case 0x22:
    case 0x23:
    case 0x2a:
      edid.skipped.push('DisplayID timings within the CTA extension')
  }
}
