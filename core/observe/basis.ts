/** How something about a cable is known, weakest first; the stronger overrules the weaker, the later the earlier of the same weight. */
export const BASES = [
  'assumed',
  'looks',
  'told',
  'listed',
  'claimed',
  'supplied',
  'chip',
  'measured',
  'soaked',
] as const
export type Basis = (typeof BASES)[number]

export const basisNames: Record<Basis, string> = {
  assumed: 'assumed: nothing says otherwise',
  looks: 'the look of it',
  told: 'what somebody said',
  listed: 'its listing',
  claimed: 'the mark on it',
  supplied: 'the device it came with',
  chip: 'its chip',
  measured: 'a measurement',
  soaked: 'a soak',
}

/** A run that held for so long where it lies is proved in its place, which is more than a soak on the bench (common practice). */
export const IN_PLACE_SECONDS = 86_400
