import type { RunVerdict } from '../../core/checks/assess'
import { openingOf } from '../../core/link/doors'
import { formatRate } from '../../core/quantity/rate'
import { formatWatts } from '../../core/quantity/watts'
import { HALL_HEIGHT, widthOf } from './corridor-shape'
import look from './door-strip.module.css'

const STEP = 42
const HEIGHT = 44
const WALL = 10
/** Wide enough for a port, a lead and a port; a longer corridor draws its steps closer together. */
const WIDTH = 3 * STEP

/** The corridor of a run in miniature: a wall a part with a gap as wide as what it passes, the narrowest in brass with its figure below. */
export function DoorStrip({ verdict }: { verdict: RunVerdict }) {
  const { doors } = verdict
  const narrow = verdict.narrowest === null ? undefined : doors[verdict.narrowest]
  const opening = narrow ? openingOf(narrow) : 0
  const words = opening > 0 ? formatRate(opening) : narrow && narrow.watts > 0 ? formatWatts(narrow.watts) : 'shut'
  const step = Math.min(STEP, WIDTH / Math.max(1, doors.length))
  const wall = Math.min(WALL, step / 2)
  return (
    <span className={look.strip}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={narrow ? `narrowest door ${narrow.label}, ${words}` : 'no door open'}
      >
        <rect width={doors.length * step} height={HEIGHT} fill="var(--hw-colors-floor)" />
        {doors.map((door, place) => {
          const gap = (widthOf(openingOf(door)) / HALL_HEIGHT) * (HEIGHT - 4)
          const fill = `var(--hw-colors-${place === verdict.narrowest ? 'brass' : 'solid'})`
          const solid = (HEIGHT - gap) / 2
          const x = place * step + (step - wall) / 2
          return (
            <g key={door.id} fill={fill}>
              <rect x={x} y="0" width={wall} height={solid} />
              <rect x={x} y={HEIGHT - solid} width={wall} height={solid} />
            </g>
          )
        })}
      </svg>
      {narrow && (
        <span className={look.narrowest} aria-hidden="true">
          <b>{words}</b> {narrow.label}
        </span>
      )}
    </span>
  )
}
