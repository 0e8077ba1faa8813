import { type KeyboardEvent, memo, type PointerEvent, type RefObject, useEffect, useRef } from 'react'
import type { Joint } from '../../../core/route/floor-shape'
import type { Spot } from '../../../core/vocabulary/floor'
import look from './floor-map.module.css'

/** A spot that is being moved. */
export type Moving = { key: string; from: Spot; to: Spot }

/** What hands do with a spot or a pathway. */
export type Hands = {
  hold(moving: Moving | null): void
  spotOf(joint: Joint, event: PointerEvent): Spot | null
  pick(joint: Joint): void
  move(joint: Joint, to: Spot): void
  pickPathway(id: string): void
}

/** A nudge with the arrow keys, in metres; with shift, and with alt. */
const NUDGE = 0.1
const FAR_NUDGE = 1
const FINE_NUDGE = 0.01
/** Nudges end when the keys have rested so long. */
const REST_MS = 800

/** Something that keeps its size however near one looks. */
export const Fixed = ({ x, y, children }: { x: number; y: number; children: React.ReactNode }) => (
  <g transform={`translate(${x} ${y})`}>
    <g className={look.fixed}>{children}</g>
  </g>
)

/** A joint is drawn anew where it, or what is done with it, is another. */
export const JointMark = memo(
  PlainJoint,
  (one, other) =>
    one.joint.key === other.joint.key &&
    one.joint.place === other.joint.place &&
    one.joint.names.join() === other.joint.names.join() &&
    one.held === other.held &&
    one.locked === other.locked &&
    one.words === other.words,
)

function PlainJoint({
  joint,
  held,
  locked,
  words,
  hands,
}: {
  joint: Joint
  held: Moving | null
  locked: boolean
  words: string
  hands: RefObject<Hands>
}) {
  const pressed = useRef<{ x: number; y: number } | null>(null)
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  useEffect(() => () => clearTimeout(resting.current), [])
  const { at, place, names, stands } = joint
  const here = held?.to ?? at
  const nudge = (event: KeyboardEvent) => {
    const step = event.shiftKey ? FAR_NUDGE : event.altKey ? FINE_NUDGE : NUDGE
    const [right, down] = NUDGES[event.key] ?? [0, 0]
    if (event.key === 'Escape' && held) {
      clearTimeout(resting.current)
      return hands.current.hold(null)
    }
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault()
      clearTimeout(resting.current)
      return held ? hands.current.move(joint, held.to) : hands.current.pick(joint)
    }
    if (locked || (right === 0 && down === 0)) return
    event.preventDefault()
    const kept = (metres: number) => Math.round(metres * 1000) / 1000
    const to = { floor: at.floor, x: kept(here.x + right * step), y: kept(here.y + down * step) }
    hands.current.hold({ key: joint.key, from: at, to })
    clearTimeout(resting.current)
    resting.current = setTimeout(() => hands.current.move(joint, to), REST_MS)
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no buttons
    <g
      data-hold=""
      role="button"
      tabIndex={0}
      className={look.joint}
      aria-label={`${names.join(', ')}: ${words}. ${locked ? 'Enter marks it.' : 'Arrow keys move it, Enter opens it.'}`}
      onKeyDown={nudge}
      onClick={(event) => event.stopPropagation()}
      onPointerDown={(event) => {
        if (event.button !== 0) return
        event.currentTarget.setPointerCapture(event.pointerId)
        pressed.current = { x: event.clientX, y: event.clientY }
      }}
      onPointerMove={(event) => {
        const from = pressed.current
        if (!from || locked || Math.hypot(event.clientX - from.x, event.clientY - from.y) < 4) return
        const to = hands.current.spotOf(joint, event)
        if (to) hands.current.hold({ key: joint.key, from: at, to })
      }}
      onPointerUp={() => {
        if (!pressed.current) return
        pressed.current = null
        if (held) hands.current.move(joint, held.to)
        else hands.current.pick(joint)
      }}
      onPointerCancel={() => {
        pressed.current = null
        hands.current.hold(null)
      }}
    >
      <Fixed x={here.x} y={here.y}>
        {stands.length > 0 ? (
          <>
            <rect
              x={-7}
              y={-7}
              width={14}
              height={14}
              className={look.place}
              data-device={place ? undefined : ''}
              data-mark={`${here.x} ${here.y}`}
            />
            <text x={-7} y={-11} className={look.label} data-name="joint" data-at={`${here.x} ${here.y}`}>
              {stands.join(', ')}
            </text>
          </>
        ) : (
          <circle r={5} className={look.knot} data-mark={`${here.x} ${here.y}`} />
        )}
      </Fixed>
    </g>
  )
}

const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
