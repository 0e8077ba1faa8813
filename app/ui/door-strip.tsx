import type { RunVerdict } from '../../core/checks/assess'
import { openingOf } from '../../core/link/doors'
import { formatRate } from '../../core/quantity/rate'
import { formatWatts } from '../../core/quantity/watts'
import { HALL_HEIGHT, widthOf } from './corridor-shape'

const STEP = 30
const HEIGHT = 40
const WALL = 8
/** Half of the widest figure below a strip. */
const HALF_FIGURE = 34

/** The corridor of a run in miniature: a wall a part with a gap as wide as what it passes, the narrowest in brass with its figure below. */
export function DoorStrip({ verdict }: { verdict: RunVerdict }) {
  const { doors } = verdict
  const width = doors.length * STEP
  const narrow = verdict.narrowest === null ? undefined : doors[verdict.narrowest]
  const opening = narrow ? openingOf(narrow) : 0
  const words = opening > 0 ? formatRate(opening) : narrow && narrow.watts > 0 ? formatWatts(narrow.watts) : 'shut'
  const at = verdict.narrowest ?? 0
  const whole = Math.max(width, 92)
  return (
    <svg
      viewBox={`0 0 ${whole} ${HEIGHT + 14}`}
      width={whole}
      height={HEIGHT + 14}
      role="img"
      aria-label={narrow ? `narrowest door ${narrow.label}, ${words}` : 'no door open'}
    >
      <rect width={width} height={HEIGHT} fill="var(--hw-colors-floor)" />
      {doors.map((door, place) => {
        const gap = (widthOf(openingOf(door)) / HALL_HEIGHT) * (HEIGHT - 4)
        const fill = `var(--hw-colors-${place === verdict.narrowest ? 'brass' : 'solid'})`
        const solid = (HEIGHT - gap) / 2
        const x = place * STEP + (STEP - WALL) / 2
        return (
          <g key={door.id} fill={fill}>
            <rect x={x} y="0" width={WALL} height={solid} />
            <rect x={x} y={HEIGHT - solid} width={WALL} height={solid} />
          </g>
        )
      })}
      {narrow && (
        <text
          x={Math.min(Math.max(at * STEP + STEP / 2, HALF_FIGURE), whole - HALF_FIGURE)}
          y={HEIGHT + 12}
          fontSize="11.5"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--hw-colors-brass-ink)"
        >
          {words}
        </text>
      )}
    </svg>
  )
}
