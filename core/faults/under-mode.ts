import { isBetterMode, type LinkMode } from '../standards/link-modes'

/** Whether a link that came up as USB 2.0 is less than what ought to come up. */
export const isUnderMode = (planned: LinkMode | null, cameUp: LinkMode): boolean =>
  cameUp === 'usb2' && planned !== null && isBetterMode(planned, cameUp)
