import { Ledger } from '../../core/observe/ledger'
import { type LinkSeries, type LinkTried, linkSort } from '../../core/observe/links'
import { placeKey, type Spot } from '../../core/observe/spot'
import type { LinkMode } from '../../core/standards/link-modes'

/** One try of a link, as a test says it. */
export type LinkTry = {
  at?: string
  basis?: 'measured' | 'soaked'
  tried: LinkMode
  cameUp: LinkMode | null
  seconds?: number
  spot?: Spot
  /** Before somebody set it right. */
  before?: true
}

/** What tries of a link come to, as it is learnt from observations. */
export function linksOf(tries: readonly LinkTry[]): LinkSeries[] {
  const ledger = new Ledger<LinkTried>(linkSort)
  const placed = tries.map(({ at = '2026-04-01T09:00:00.000Z', ...rest }) => ({ at, ...rest }))
  placed.sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0))
  for (const { at, basis = 'measured', tried, cameUp, seconds, spot = {}, before = false } of placed)
    ledger.add(
      { tried, cameUp, ...(cameUp === null && basis === 'soaked' ? { dropped: true as const } : {}) },
      { spot, place: placeKey({ spot, before }), before, at },
      seconds ?? (basis === 'soaked' ? 60 : undefined),
    )
  return ledger.series()
}
