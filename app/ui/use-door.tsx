import type { CSSProperties } from 'react'
import type { Abilities } from '../../core/link/abilities'
import { formatRate } from '../../core/quantity/rate'
import { linkModeFacts } from '../../core/standards/link-modes'
import { HALL_HEIGHT, widthOf } from './corridor-shape'

/** What a cable is good for at a glance: a doorway seen from above, as wide as what it passes, and the figure beside it. */
export function UseDoor({ abilities, size = 22 }: { abilities: Abilities; size?: number }) {
  const { mode, rate, picture, known } = abilities
  const unknown = mode === null && picture === null && known.grade.value === null && known.links.length === 0
  const colour = mode === null && picture ? 'picture' : 'data'
  return (
    <span style={side}>
      <Doorway
        gap={(widthOf(mode === null ? (picture?.rate ?? 0) : rate) / HALL_HEIGHT) * 20}
        fill={unknown ? null : colour}
        size={size}
      />
      <span style={mode === null ? wordy : figures} data-open={unknown ? '' : undefined}>
        {unknown ? 'unknown' : wordsOf(abilities)}
      </span>
    </span>
  )
}

// plain styles: a list draws hundreds of these at every stroke of a key
const side: CSSProperties = {
  display: 'inline-flex',
  gap: '6px',
  alignItems: 'center',
  whiteSpace: 'nowrap',
  lineHeight: 1,
}
const wordy: CSSProperties = { fontWeight: 600, paddingTop: '2px' }
const figures: CSSProperties = { fontWeight: 600, fontFamily: 'var(--hw-fonts-mono)', paddingTop: '3px' }

function wordsOf({ mode, rate, picture, watts, known }: Abilities): string {
  if (mode === 'usb2') return linkModeFacts.usb2.name
  if (mode !== null) return formatRate(rate)
  if (picture) return 'pictures'
  if (known.grade.value === 'charge-only') return 'charging'
  return watts > 0 ? 'charging, no data' : 'nothing'
}

/** Two stubs of wall with what passes between them; dashed where nobody knows. */
function Doorway({ gap, fill, size }: { gap: number; fill: 'data' | 'picture' | null; size: number }) {
  const solid = 11 - gap / 2
  return (
    <svg viewBox="0 0 16 22" width={(size * 16) / 22} height={size} aria-hidden="true" style={{ flex: 'none' }}>
      {fill === null ? (
        <rect
          x="4"
          y="1"
          width="8"
          height="20"
          fill="none"
          stroke="var(--hw-colors-tight)"
          strokeWidth="1.5"
          strokeDasharray="3 2"
        />
      ) : (
        <>
          <rect x="0" y={solid} width="16" height={gap} fill={`var(--hw-colors-${fill})`} opacity="0.55" />
          <g fill="var(--hw-colors-ink)">
            <rect x="5" y="0" width="6" height={solid} />
            <rect x="5" y={22 - solid} width="6" height={solid} />
          </g>
        </>
      )}
    </svg>
  )
}
