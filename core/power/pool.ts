import type { Watts } from '../quantity/watts'
import { commonPractice, type Source } from '../standards/source'
import type { Device, Port } from '../vocabulary/device'

/** How a charger with several ports divides what it has. */
export type Pool =
  /** Each port gives its own rating whatever the others do. */
  | { kind: 'assured'; ports: readonly Watts[] }
  /** One total for all; each port has a ceiling, and the first plugged in is served first. */
  | { kind: 'shared'; total: Watts; ports: readonly Watts[] }
  /** Ratings fall to a second list as soon as anything, even a bare cable, is in another port. */
  | { kind: 'drops'; alone: readonly Watts[]; together: readonly Watts[] }

export const poolSource: Source = commonPractice(
  'multi-port chargers: assured, shared, or dropping when another port is used',
)

/** What each port gives while the ports in `used` have something plugged in, in the order it was plugged in. Unused ports give nothing. */
export function sharePool(pool: Pool, used: readonly number[]): Watts[] {
  const ports = pool.kind === 'drops' ? pool.alone : pool.ports
  const given = ports.map(() => 0)
  if (pool.kind === 'shared') {
    let left = pool.total
    for (const port of used) {
      const watts = Math.min(left, ports[port] ?? 0)
      given[port] = watts
      left -= watts
    }
    return given
  }
  const ratings = pool.kind === 'drops' && used.length > 1 ? pool.together : ports
  for (const port of used) given[port] = ratings[port] ?? 0
  return given
}

/** A port as it gives while the ports in `used`, in the order they were plugged in, share what their device has. */
export function pooledPort({ pool, ports }: Device, port: Port, used: readonly Port[]): Port {
  if (!pool || port.gives === undefined) return port
  const givers = ports.filter((each) => each.gives !== undefined)
  const ratings = givers.map((each) => each.gives ?? 0)
  const places = used.map((each) => givers.indexOf(each)).filter((place) => place >= 0)
  const shared: Pool =
    pool.kind === 'shared'
      ? { kind: 'shared', total: pool.total, ports: ratings }
      : {
          kind: 'drops',
          alone: ratings,
          together: givers.map((each, at) => pool.together[each.id] ?? ratings[at] ?? 0),
        }
  const gives = sharePool(shared, places)[givers.indexOf(port)] ?? 0
  // a plate lists what the port gives alone; what it falls to follows the rules for its rating
  return gives === port.gives ? port : { ...port, gives, levels: undefined }
}

/** What a hub or display passes on of the supply behind it, after keeping some for itself. */
export const passOn = (supply: Watts, kept: Watts): Watts => Math.max(0, supply - kept)

/** Of two supplies a device takes the stronger; they never add up. */
export const strongerOf = (supplies: readonly Watts[]): Watts => Math.max(0, ...supplies)
