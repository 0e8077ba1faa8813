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

/** How full cables of these diameters make a round conduit of this inner diameter, beside what is allowed for so many. */
export function conduitFill(inner: Metres, diameters: readonly Metres[]): Fill {
  const share = diameters.reduce((sum, diameter) => sum + diameter ** 2, 0) / inner ** 2
  const limit = diameters.length <= 1 ? FILL_LIMITS[0] : diameters.length === 2 ? FILL_LIMITS[1] : FILL_LIMITS[2]
  return { share, limit, allowed: atMost(share, limit) }
}

/** The cross-section in mm² that round cables of these diameters in mm take together. */
export const crossSection = (diameters: readonly number[]): number =>
  diameters.reduce((sum, diameter) => sum + (Math.PI / 4) * diameter ** 2, 0)

/** How full cables of these diameters in mm make a free cross-section in mm²: it takes what is free in it. */
export function sectionFill(free: number, diameters: readonly number[]): Fill {
  const share = crossSection(diameters) / free
  return { share, limit: 1, allowed: atMost(share, 1) }
}

/** Whether a moulded plug passes a round opening: its diagonal must be less than the diameter. */
export const plugPasses = (inner: Metres, plug = TYPE_C_PLUG): boolean => Math.hypot(plug.width, plug.height) < inner

/** The tightest bend a copper lead allows. */
export const tightestBend = (diameter: Metres): Metres => BEND_DIAMETERS * diameter
