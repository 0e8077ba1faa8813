import type { EdidMode } from './edid-shape'

const mode = (width: number, height: number, refresh: number, from: string): EdidMode => ({
  width,
  height,
  refresh,
  from,
})

/** The modes that a bit each stands for, the highest bit first (VESA E-EDID 1.4, established timings I and II, and the first of the maker's). */
const ESTABLISHED: readonly (readonly [number, number, number, 'i'?])[] = [
  [720, 400, 70],
  [720, 400, 88],
  [640, 480, 60],
  [640, 480, 67],
  [640, 480, 72],
  [640, 480, 75],
  [800, 600, 56],
  [800, 600, 60],
  [800, 600, 72],
  [800, 600, 75],
  [832, 624, 75],
  [1024, 768, 87, 'i'],
  [1024, 768, 60],
  [1024, 768, 70],
  [1024, 768, 75],
  [1280, 1024, 75],
  [1152, 870, 75],
]

export function established(first: number, second: number, third: number): EdidMode[] {
  const bits = (first << 16) | (second << 8) | third
  return ESTABLISHED.flatMap(([width, height, refresh, interlaced], at) =>
    bits & (1 << (23 - at))
      ? { ...mode(width, height, refresh, 'established timing'), ...(interlaced ? { interlaced: true as const } : {}) }
      : [],
  )
}

/** Established timings III, six bytes, the highest bit first (VESA E-EDID 1.4). */
const ESTABLISHED_THREE: readonly (readonly [number, number, number])[] = [
  [640, 350, 85],
  [640, 400, 85],
  [720, 400, 85],
  [640, 480, 85],
  [848, 480, 60],
  [800, 600, 85],
  [1024, 768, 85],
  [1152, 864, 75],
  [1280, 768, 60],
  [1280, 768, 60],
  [1280, 768, 75],
  [1280, 768, 85],
  [1280, 960, 60],
  [1280, 960, 85],
  [1280, 1024, 60],
  [1280, 1024, 85],
  [1360, 768, 60],
  [1440, 900, 60],
  [1440, 900, 60],
  [1440, 900, 75],
  [1440, 900, 85],
  [1400, 1050, 60],
  [1400, 1050, 60],
  [1400, 1050, 75],
  [1400, 1050, 85],
  [1680, 1050, 60],
  [1680, 1050, 60],
  [1680, 1050, 75],
  [1680, 1050, 85],
  [1600, 1200, 60],
  [1600, 1200, 65],
  [1600, 1200, 70],
  [1600, 1200, 75],
  [1600, 1200, 85],
  [1792, 1344, 60],
  [1792, 1344, 75],
  [1856, 1392, 60],
  [1856, 1392, 75],
  [1920, 1200, 60],
  [1920, 1200, 60],
  [1920, 1200, 75],
  [1920, 1200, 85],
  [1920, 1440, 60],
  [1920, 1440, 75],
]

export const establishedThree = (bytes: Uint8Array): EdidMode[] =>
  ESTABLISHED_THREE.flatMap(([width, height, refresh], at) =>
    (bytes[at >> 3] ?? 0) & (0x80 >> (at & 7)) ? mode(width, height, refresh, 'established timing III') : [],
  )

/** A standard timing of two bytes; null where the place is not used. Its first shape was square before revision 3. */
export function standardMode(first: number, second: number, revision: number): EdidMode | null {
  if (first <= 1 && (first === 0 || second === 1)) return null
  const width = (first + 31) * 8
  const shape = (second >> 6) & 3
  const height =
    shape === 0
      ? revision < 3
        ? width
        : (width * 10) / 16
      : shape === 1
        ? (width * 3) / 4
        : shape === 2
          ? (width * 4) / 5
          : (width * 9) / 16
  // 1366 x 768 cannot be said, as its width is no whole number of characters
  const [across, down] = shape === 3 && width === 1360 ? [1360, 765] : [width, Math.floor(height)]
  return mode(across, down, (second & 63) + 60, 'standard timing')
}

/** A detailed timing of 18 bytes; null where it is none. */
export function detailedTiming(bytes: Uint8Array): EdidMode | null {
  const at = (place: number): number => bytes[place] ?? 0
  const clock = (at(0) | (at(1) << 8)) * 10_000
  const width = at(2) | ((at(4) & 0xf0) << 4)
  const hBlank = at(3) | ((at(4) & 0x0f) << 8)
  const height = at(5) | ((at(7) & 0xf0) << 4)
  const vBlank = at(6) | ((at(7) & 0x0f) << 8)
  if (clock === 0 || width === 0 || height === 0) return null
  const interlaced = (at(17) & 0x80) !== 0
  // an interlaced frame is two fields, of half its lines and half a line
  const lines = interlaced ? height + vBlank + 0.5 : height + vBlank
  const refresh = clock / ((width + hBlank) * lines)
  return {
    width,
    height: interlaced ? height * 2 : height,
    refresh,
    ...(interlaced ? { interlaced: true as const } : {}),
    from: 'detailed timing',
  }
}
