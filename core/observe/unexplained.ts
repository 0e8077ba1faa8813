import { isBetterMode, LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { CopySeries, Read } from './figures'
import { leastOf, mostOf, reliedOn } from './figures'
import type { KnownCable } from './known'
import { seenOfMode, type TriedLead } from './links'
import { pairOf, type Spot } from './spot'

/** A reading with where it was read. */
export type ReadAt<M extends 'write' | 'read' | 'watts'> = Read<M> & { spot: Spot }

/** Two things that were seen of a cable in different places, and nothing explains why they differ. One more look in the place that is named would settle it. */
export type Unexplained =
  | { code: 'mode'; mode: LinkMode; held: number; failed: number; repeat: string | null }
  | { code: 'copy'; way: CopySeries['measure']; least: ReadAt<'write' | 'read'>; most: ReadAt<'write' | 'read'> }
  | { code: 'watts'; least: ReadAt<'watts'>; most: ReadAt<'watts'> }

/** What was seen of a cable that crosses: both stand, each in its place. */
export function* unexplainedOf(known: KnownCable, lead: TriedLead): Iterable<Unexplained> {
  let widest: Unexplained | null = null
  for (const mode of LINK_MODES) {
    const { held, failed } = seenOfMode(known.links, mode, lead, null)
    if (held === 0 || failed === 0 || (widest?.code === 'mode' && !isBetterMode(mode, widest.mode))) continue
    widest = { code: 'mode', mode, held, failed, repeat: failedIn(known, mode, lead) }
  }
  if (widest) yield widest
  for (const way of ['write', 'read'] as const) {
    const copies = known.copies.filter(({ measure }) => measure === way)
    const least = copies.find((series) => reliedOn(series, 'lead') !== null)
    const most = copies.findLast(
      (series) => least && mostOf(series).rate > leastOf(least).rate && pairOf(series.spot) !== pairOf(least.spot),
    )
    if (least && most)
      yield {
        code: 'copy',
        way,
        least: { ...leastOf(least), spot: least.spot },
        most: { ...mostOf(most), spot: most.spot },
      }
  }
  const least = known.watts.find((series) => reliedOn(series, 'lead') !== null)
  const most = known.watts.findLast(
    (series) => least && mostOf(series).watts > leastOf(least).watts && series.spot.port !== least.spot.port,
  )
  if (least && most)
    yield { code: 'watts', least: { ...leastOf(least), spot: least.spot }, most: { ...mostOf(most), spot: most.spot } }
}

/** The socket that a mode failed in, where somebody noted it. */
function failedIn(known: KnownCable, mode: LinkMode, lead: TriedLead): string | null {
  for (const { spot } of known.links.toReversed())
    if (
      spot.port !== undefined &&
      seenOfMode(
        known.links.filter((series) => series.spot.port === spot.port),
        mode,
        lead,
        null,
      ).failed > 0
    )
      return spot.port
  return null
}
