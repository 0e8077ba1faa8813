import { isBetterMode, LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { KnownCable } from './known'
import type { Copy, WattsSeen } from './learnt'
import { pairOf } from './spot'
import { seenOfMode, type TriedLead } from './trials'

/** Two things that were seen of a cable in different places, and nothing explains why they differ. One more look in the place that is named would settle it. */
export type Unexplained =
  | { code: 'mode'; mode: LinkMode; held: number; failed: number; repeat: string | null }
  | { code: 'copy'; way: Copy['way']; least: Copy; most: Copy }
  | { code: 'watts'; least: WattsSeen; most: WattsSeen }

/** What was seen of a cable that crosses: both stand, each in its place. */
export function* unexplainedOf(known: KnownCable, lead: TriedLead): Iterable<Unexplained> {
  let widest: Unexplained | null = null
  for (const mode of LINK_MODES) {
    const { held, failed } = seenOfMode(known.trials, mode, lead, null)
    if (held === 0 || failed === 0 || (widest?.code === 'mode' && !isBetterMode(mode, widest.mode))) continue
    widest = { code: 'mode', mode, held, failed, repeat: failedIn(known, mode, lead) }
  }
  if (widest) yield widest
  for (const way of ['write', 'read'] as const) {
    const copies = known.copies.filter((copy) => copy.way === way)
    const least = copies.find(({ limit }) => limit === 'lead')
    const most = copies.findLast(({ rate, spot }) => least && rate > least.rate && pairOf(spot) !== pairOf(least.spot))
    if (least && most) yield { code: 'copy', way, least, most }
  }
  const least = known.watts.find(({ limit }) => limit === 'lead')
  const most = known.watts.findLast(({ watts, spot }) => least && watts > least.watts && spot.port !== least.spot.port)
  if (least && most) yield { code: 'watts', least, most }
}

/** The socket that a mode failed in, where somebody noted it. */
function failedIn(known: KnownCable, mode: LinkMode, lead: TriedLead): string | null {
  for (const { spot } of known.trials.toReversed())
    if (
      spot.port !== undefined &&
      seenOfMode(
        known.trials.filter((trial) => trial.spot.port === spot.port),
        mode,
        lead,
        null,
      ).failed > 0
    )
      return spot.port
  return null
}
