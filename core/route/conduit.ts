import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { commonPractice, published, type Source } from '../standards/source'

/** Share of a conduit's cross-section that cables may fill: one, two, more. */
export const FILL_LIMITS: readonly [number, number, number] = [0.53, 0.31, 0.4]
export const fillSource: Source = published('NEC chapter 9 table 1')

/** A moulded type-C plug needs about this much to pass; copper bends no tighter than four diameters. */
export const TYPE_C_PLUG: { width: Metres; height: Metres } = { width: 0.0125, height: 0.007 }
export const BEND_DIAMETERS = 4
export const plugSource: Source = commonPractice(
  'moulded type-C plugs about 12.5 x 7 mm; bend radius at least four diameters',
)

export type Fill = { share: number; limit: number; allowed: boolean }

/** Cables that lie together: how many, and the sum of the squares of their diameters. */
export type Bundle = { cables: number; squares: number }

export const bundleOf = (diameters: readonly number[]): Bundle => ({
  cables: diameters.length,
  squares: diameters.reduce((sum, diameter) => sum + diameter ** 2, 0),
})

export const together = (one: Bundle, other: Bundle): Bundle => ({
  cables: one.cables + other.cables,
  squares: one.squares + other.squares,
})

/** How full a bundle makes a round conduit of this inner diameter, beside what is allowed for so many. */
export function bundleInConduit(inner: Metres, { cables, squares }: Bundle): Fill {
  const share = squares / inner ** 2
  const limit = cables <= 1 ? FILL_LIMITS[0] : cables === 2 ? FILL_LIMITS[1] : FILL_LIMITS[2]
  return { share, limit, allowed: atMost(share, limit) }
}

/** The same of cables of these diameters. */
export const conduitFill = (inner: Metres, diameters: readonly Metres[]): Fill =>
  bundleInConduit(inner, bundleOf(diameters))

/** The cross-section in mm² that round cables of these diameters in mm take together. */
export const crossSection = (diameters: readonly number[]): number =>
  diameters.reduce((sum, diameter) => sum + (Math.PI / 4) * diameter ** 2, 0)

/** How full a bundle in mm makes a free cross-section in mm²: it takes what is free in it. */
export function bundleInSection(free: number, { squares }: Bundle): Fill {
  const share = ((Math.PI / 4) * squares) / free
  return { share, limit: 1, allowed: atMost(share, 1) }
}

/** The same of cables of these diameters in mm. */
export const sectionFill = (free: number, diameters: readonly number[]): Fill =>
  bundleInSection(free, bundleOf(diameters))

/** Whether a moulded plug passes a round opening: its diagonal must be less than the diameter. */
export const plugPasses = (inner: Metres, plug = TYPE_C_PLUG): boolean => Math.hypot(plug.width, plug.height) < inner

/** The tightest bend a copper lead allows. */
export const tightestBend = (diameter: Metres): Metres => BEND_DIAMETERS * diameter
