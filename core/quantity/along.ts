import type { Metres } from './length'

/** A stretch as it is measured on site; `across` where it goes straight over two measured sides. */
type Stretch = { length: Metres; across?: Metres | undefined }

/** A leg is kept to the tenth of a millimetre, so that what is shown adds up. */
export const asKept = (metres: Metres): Metres => Math.round(metres * 1e4) / 1e4

/** How long one leg is: along the real way, or straight across where two sides were measured. */
export const lengthOfLeg = ({ length, across }: Stretch): Metres =>
  across === undefined ? length : asKept(Math.hypot(length, across))

/** How long legs are together: every leg along the real way, never the straight line. */
export const lengthOfLegs = (legs: readonly Stretch[]): Metres =>
  asKept(legs.reduce((sum, leg) => sum + lengthOfLeg(leg), 0))
