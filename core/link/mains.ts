import type { SiteIndex, Socket } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'
import type { Device } from '../vocabulary/device'

/** Whether mains is within reach of a device: there, not there, or nobody has said. */
export type Mains = 'there' | 'none' | 'not known'

export function mainsAt(index: SiteIndex, { device }: Pick<Socket, 'device'>): Mains {
  const mains = index.places.get(device.place ?? '')?.mains ?? 'not known'
  return mains === 'not known' ? mains : mains ? 'there' : 'none'
}

/** How far the cord of the supply of a lead reaches; undefined where it has none or nobody has said. */
export const cordOf = ({ kinds }: Pick<SiteIndex, 'kinds'>, { kind, feed }: Pick<Cable, 'kind' | 'feed'>) =>
  feed === 'bus' ? undefined : kinds.get(kind ?? '')?.cord

/** What plugs into the wall: chargers, and docks, hubs and extender ends that live neither on the bus nor on what they pass on. */
export const needsMains = ({ kind, busPowered, keeps, battery }: Device): boolean =>
  (kind === 'charger' && battery === undefined) ||
  ((kind === 'dock' || kind === 'hub' || kind === 'extender') && !busPowered && keeps === undefined)
