import { atMost } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { CHROMAS, HDR_BITS, type PictureMode } from '../vocabulary/need'
import { isTmds, type LinkSpec, linkFacts } from './link-spec'
import { bitsPerPixel, ctaTimingFor, cvtTiming, type Timing } from './timing'

/** How a mode stands to a link: what it asks, what there is, and what compression it took. */
export type Fit = {
  fits: boolean
  need: BitsPerSecond
  have: BitsPerSecond
  /** Bits a pixel after compression; null where none is used. */
  compressedBits: number | null
  timing: Timing
}

/** Compression never goes below 8 bits a pixel, and 3:1 is the most called visually lossless (VESA DSC 1.2a, from memory). */
const LEAST_COMPRESSED_BITS = 8
const MOST_COMPRESSION = 3
/** Targets are steps of a sixteenth of a bit. */
const TARGET_STEPS = 16

/** Both ends must have compression; TMDS links have none. */
export type Ends = { compression: boolean }

/**
 * Whether a mode fits a link, by what margin. DisplayPort takes reduced blanking v2; HDMI takes the CTA-861 format of the mode
 * where there is one. On TMDS the character rate counts: pixel clock x bits / 8, halved for 4:2:0, and 4:2:2 costs what 8 bit 4:4:4
 * costs (HDMI 2.0, from memory). Compression is used only where the mode does not fit without.
 */
export function fitPicture(mode: PictureMode, spec: LinkSpec, ends: Ends, timing: Timing = timingOn(mode, spec)): Fit {
  const have = linkFacts(spec).payload
  const plain = bitsOnWire(mode, spec)
  const need = timing.pixelClockHz * plain
  if (atMost(need, have)) return { fits: true, need, have, compressedBits: null, timing }
  const compressedBits = ends.compression && !isTmds(spec) ? compressedTarget(have, timing, plain) : null
  if (compressedBits === null) return { fits: false, need, have, compressedBits, timing }
  return { fits: true, need: timing.pixelClockHz * compressedBits, have, compressedBits, timing }
}

export const timingOn = (mode: PictureMode, spec: LinkSpec): Timing =>
  (spec.family === 'hdmi' ? ctaTimingFor(mode) : null) ?? cvtTiming(mode)

/** HDMI and DVI carry 8 bits a colour at least, whatever fewer the picture has (HDMI 1.4, from memory). */
const LEAST_BITS_ON_HDMI = 8

function bitsOnWire(mode: PictureMode, spec: LinkSpec): number {
  if (spec.family !== 'hdmi') return bitsPerPixel(mode)
  if (isTmds(spec) && mode.chroma === '422') return 24
  return mode.bits < LEAST_BITS_ON_HDMI ? bitsPerPixel({ ...mode, bits: LEAST_BITS_ON_HDMI }) : bitsPerPixel(mode)
}

/**
 * Whether a mode fits every link that it passes one after the other, each by its own rules and timing: a lead that turns DisplayPort into HDMI is two. The
 * link that leaves it least decides, and one that does not carry it before any that does.
 */
export function fitThrough(
  mode: PictureMode,
  specs: readonly LinkSpec[],
  ends: Ends,
): { spec: LinkSpec; fit: Fit } | null {
  let least: { spec: LinkSpec; fit: Fit } | null = null
  for (const spec of specs) {
    const fit = fitPicture(mode, spec, ends)
    const lessLeft = least === null || fit.have - fit.need < least.fit.have - least.fit.need
    if (least === null || (least.fit.fits === fit.fits ? lessLeft : !fit.fits)) least = { spec, fit }
  }
  return least
}

/** The most bits a pixel that go through, if those are enough to be called lossless to the eye. */
export function compressedTarget(have: BitsPerSecond, timing: Timing, plain: number): number | null {
  const target = Math.floor((have / timing.pixelClockHz) * TARGET_STEPS) / TARGET_STEPS
  return target >= leastCompressed(plain) ? target : null
}

/** The fewest bits a pixel that a picture of so many may be compressed to. */
export const leastCompressed = (plain: number): number =>
  Math.min(plain, Math.max(LEAST_COMPRESSED_BITS, Math.ceil((plain / MOST_COMPRESSION) * TARGET_STEPS) / TARGET_STEPS))

/** What is given up to make a picture fit, in the order people would rather give it up. */
export const CONCESSIONS = [
  'compression',
  'standard range',
  'fewer bits',
  'lower refresh',
  'less colour',
  'smaller picture',
] as const
export type Concession = (typeof CONCESSIONS)[number]
export type Alternative = { mode: PictureMode; concession: Concession; fit: Fit }

const REFRESHES = [240, 165, 144, 120, 100, 90, 75, 60, 50, 30, 24]
const SIZES: readonly [number, number][] = [
  [7680, 4320],
  [5120, 2880],
  [3840, 2160],
  [3440, 1440],
  [2560, 1600],
  [2560, 1440],
  [1920, 1200],
  [1920, 1080],
  [1280, 720],
]
const FEWER_BITS: readonly PictureMode['bits'][] = [12, 10, 8]

/**
 * The best modes that do fit where the wanted one does not, each giving up one thing only, in the order a person would choose:
 * compression that both ends could use, then fewer bits (not seen in office work), then the highest refresh at this size, then 4:2:2 or
 * 4:2:0 (text blurs), then the largest picture at this refresh. Empty where the mode fits, or where nothing does.
 */
export function alternatives(mode: PictureMode, spec: LinkSpec, ends: Ends): Alternative[] {
  if (fitPicture(mode, spec, ends).fits) return []
  const found: Alternative[] = []
  const tryOne = (concession: Concession, candidate: PictureMode, given: Ends = ends): boolean => {
    const fit = fitPicture(candidate, spec, given)
    if (fit.fits) found.push({ mode: candidate, concession, fit })
    return fit.fits
  }
  if (!ends.compression) tryOne('compression', mode, { compression: true })
  FEWER_BITS.filter((bits) => bits < mode.bits).some((bits) => tryOne('fewer bits', withBits(mode, bits)))
  REFRESHES.filter((refresh) => refresh < mode.refresh).some((refresh) => tryOne('lower refresh', { ...mode, refresh }))
  lessColour(mode).some((chroma) => tryOne('less colour', { ...mode, chroma }))
  const area = mode.width * mode.height
  SIZES.filter(([width, height]) => width * height < area).some(([width, height]) =>
    tryOne('smaller picture', { ...mode, width, height }),
  )
  return found
}

/** So many steps down of each sort are thought of; a person who gives up more looks for another cable. */
const MOST_STEPS = 4

/**
 * Modes that ask for less than one, whatever the link: of each thing that could be given up a few steps, the least given up first. Which of them fit is
 * for whoever judges them.
 */
export function* lesserModes(
  mode: PictureMode,
): Iterable<{ mode: PictureMode; concession: Exclude<Concession, 'compression'> }> {
  if (mode.hdr) yield { mode: inStandardRange(mode), concession: 'standard range' }
  for (const bits of FEWER_BITS.filter((each) => each < mode.bits))
    yield { mode: withBits(mode, bits), concession: 'fewer bits' }
  for (const refresh of REFRESHES.filter((each) => each < mode.refresh).slice(0, MOST_STEPS))
    yield { mode: { ...mode, refresh }, concession: 'lower refresh' }
  for (const chroma of lessColour(mode)) yield { mode: { ...mode, chroma }, concession: 'less colour' }
  const area = mode.width * mode.height
  for (const [width, height] of SIZES.filter(([w, h]) => w * h < area).slice(0, MOST_STEPS))
    yield { mode: { ...mode, width, height }, concession: 'smaller picture' }
}

const lessColour = ({ chroma }: PictureMode): PictureMode['chroma'][] => CHROMAS.slice(CHROMAS.indexOf(chroma) + 1)

/** High dynamic range goes with the bits that it needs. */
const withBits = (mode: PictureMode, bits: PictureMode['bits']): PictureMode => ({
  ...(bits < HDR_BITS ? inStandardRange(mode) : mode),
  bits,
})

/** The same picture without high dynamic range. */
export function inStandardRange({ hdr: _, ...mode }: PictureMode): PictureMode {
  return mode
}
