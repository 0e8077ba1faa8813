import type { SoakStanding } from '../../../core/prove/run-soak'
import { durationText } from '../../../core/quantity/duration'
import { useSeconds } from '../../ui/use-seconds'

/** How long a soak has gone on, counted on while the page is open. */
export function SoakClock({ standing: { soak, seconds: from } }: { standing: SoakStanding }) {
  const seconds = Math.floor(useSeconds(from))
  const over = seconds >= soak.seconds
  return (
    <span role="timer" suppressHydrationWarning>
      {durationText(seconds)} of {durationText(soak.seconds)}
      {over && ', long enough'}
    </span>
  )
}
