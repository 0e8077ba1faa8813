import type { RunVerdict } from '../../core/checks/assess'
import { openingOf } from '../../core/link/doors'
import { formatRate } from '../../core/quantity/rate'
import { HALL_HEIGHT, widthOf } from './corridor-shape'

/** The corridor of a run in miniature: one gap a part, as wide as what it passes, the narrowest in brass. */
export function DoorStrip({ verdict }: { verdict: RunVerdict }) {
  const step = 16
  const width = verdict.doors.length * step + 4
  const narrow = verdict.narrowest === null ? undefined : verdict.doors[verdict.narrowest]
  return (
    <svg
      viewBox={`0 0 ${width} 32`}
      width={width}
      height={32}
      role="img"
      aria-label={narrow ? `narrowest door ${narrow.label}, ${formatRate(openingOf(narrow))}` : 'no door open'}
    >
      <rect width={width} height="32" fill="var(--hw-colors-floor)" />
      {verdict.doors.map((door, at) => {
        const gap = (widthOf(openingOf(door)) / HALL_HEIGHT) * 28
        const fill = `var(--hw-colors-${at === verdict.narrowest ? 'brass' : 'solid'})`
        const solid = 16 - gap / 2
        return (
          <g key={door.id} fill={fill}>
            <rect x={at * step + 4} y="0" width={step - 4} height={solid} />
            <rect x={at * step + 4} y={32 - solid} width={step - 4} height={solid} />
          </g>
        )
      })}
    </svg>
  )
}
