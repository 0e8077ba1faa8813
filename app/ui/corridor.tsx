import { useId, useState } from 'react'
import type { Corridor as CorridorOf, Walker } from '../../core/checks/corridor'
import { gradeWords } from '../../core/checks/wording'
import { type Door, openingOf } from '../../core/link/doors'
import { formatLength } from '../../core/quantity/length'
import { formatRate } from '../../core/quantity/rate'
import { formatWatts } from '../../core/quantity/watts'
import { linkModeFacts } from '../../core/standards/link-modes'
import { citeSource } from '../../core/standards/source'
import type { NeedKind } from '../../core/vocabulary/need'
import text from '../theme/text.module.css'
import look from './corridor.module.css'
import {
  type Chamber,
  type CorridorShape,
  corridorShape,
  HALL_HEIGHT,
  HALL_WIDTH,
  hallBottom,
  hallTop,
  type Ribbon,
  widthOf,
} from './corridor-shape'
import { useUnit } from './units'

const ink = (token: string): string =>
  `var(--hw-colors-${token.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`

const flowColours: Record<NeedKind, string> = {
  picture: 'picture',
  'own screen': 'picture',
  storage: 'data',
  data: 'data',
  audio: 'data',
  sensor: 'data',
  camera: 'picture',
  headset: 'headset',
  power: 'power',
}

/**
 * A run, or the whole path of a need, seen from above: walls, doorways as wide as what each part passes at this length, and what wants to walk through.
 * Below stands each door's plate, to be looked at closer; on a phone the plates stand under each other, each with its doorway, and are walked downward.
 */
export function Corridor({ corridor, title }: { corridor: CorridorOf; title: string }) {
  const id = useId()
  const [open, setOpen] = useState<number | null>(null)
  const shape = corridorShape(corridor)
  const step = (shape.chambers[0]?.width ?? 0) + HALL_WIDTH
  const columns = `${HALL_WIDTH / 2}fr repeat(${corridor.doors.length}, ${step}fr) ${HALL_WIDTH / 2}fr`
  const shown = open === null ? null : corridor.doors[open]
  return (
    <div className={look.corridor}>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways is scrolled by keys as well */}
      <section aria-label={`Corridor of ${title}`} tabIndex={0} className={look.hall}>
        <svg
          viewBox={`0 0 ${shape.width} ${shape.height}`}
          role="img"
          aria-labelledby={`${id}-title ${id}-desc`}
          className={look.plan}
        >
          <title id={`${id}-title`}>{`${title}: ${gradeWords[corridor.grade]}`}</title>
          <desc id={`${id}-desc`}>{described(corridor)}</desc>
          <defs>
            <pattern
              id={`${id}-hatch`}
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="6" height="6" fill="none" />
              <line x1="0" y1="0" x2="0" y2="6" stroke={ink('power')} strokeWidth="3" />
            </pattern>
          </defs>
          <rect
            x="0"
            y={hallTop(shape) - 8}
            width={shape.width}
            height={hallBottom(shape) - hallTop(shape) + 16}
            fill={ink('floor')}
          />
          {[hallTop(shape) - 8, hallBottom(shape)].map((y) => (
            <rect key={y} x="0" y={y} width={shape.width} height="8" fill={ink('solid')} />
          ))}
          {shape.ribbons.map((ribbon) => (
            <RibbonMark key={keyOf(ribbon.flow)} ribbon={ribbon} />
          ))}
          {shape.chambers.map((chamber) => (
            <Walls key={chamber.x} chamber={chamber} shape={shape} />
          ))}
          {shape.ribbons.map((ribbon) => (
            <RibbonLabel key={keyOf(ribbon.flow)} ribbon={ribbon} />
          ))}
          {shape.powered && <PowerLine shape={shape} hatch={`url(#${id}-hatch)`} />}
        </svg>
        <ul className={look.flows} aria-label="What walks through">
          {corridor.flows.map((flow) => (
            <li key={keyOf(flow)} style={{ borderColor: ink(flowColours[flow.kind]) }}>
              {flow.way === 'down' ? 'down' : 'up'}: {flow.stretch && 'beside it, '}
              {flow.label} {flow.rate === null ? '' : formatRate(flow.rate)}
              {flow.watts === null ? '' : ` ${formatWatts(flow.watts)}`}, {gradeWords[flow.grade]}
              {stretchWords(corridor, flow)}
            </li>
          ))}
        </ul>
        <ol className={look.plates} style={{ gridTemplateColumns: columns }}>
          {corridor.doors.map((door, at) => (
            <Plate
              key={door.id}
              door={door}
              narrowest={at === corridor.narrowest}
              open={open === at}
              first={at === 0}
              powered={shape.chambers[at]?.powered ?? false}
              look={() => setOpen(at)}
            />
          ))}
        </ol>
      </section>
      {shown && <Closer door={shown} behind={corridor.doors.slice((open ?? 0) + 1)} />}
    </div>
  )
}

/** What stands beside a door: which part, what it passes, and who says so. */
function Plate({
  door,
  narrowest,
  open,
  first,
  powered,
  look: lookAt,
}: {
  door: Door
  narrowest: boolean
  open: boolean
  first: boolean
  /** Something that walks through it asks for power. */
  powered: boolean
  look: () => void
}) {
  const unit = useUnit()
  const opening = openingOf(door)
  const { text: detail, length } = door.detail
  return (
    <li
      className={look.plate}
      data-narrowest={narrowest || undefined}
      style={first ? { gridColumnStart: 2 } : undefined}
    >
      <button type="button" aria-expanded={open} onClick={lookAt} onMouseEnter={lookAt} onFocus={lookAt}>
        <b>{door.label}</b>
        <span className={text.quiet}>{length === null ? detail : `${detail} ${formatLength(length, unit)}`}</span>
        <span aria-hidden="true" className={look.doorway}>
          <span style={{ width: `${(100 * widthOf(opening)) / HALL_HEIGHT}%` }} />
        </span>
        <span className={look.figure}>
          {opening > 0 ? formatRate(opening) : door.watts > 0 ? `${formatWatts(door.watts)}, power only` : 'shut'}
        </span>
        {opening > 0 && powered && <span className={look.watts}>{formatWatts(door.watts)}</span>}
        <span className={text.quiet}>says {door.saidBy}</span>
        {narrowest && <span className={look.narrow}>narrowest door</span>}
      </button>
    </li>
  )
}

/** A door looked at closer: what it passes, who says so, at which length that would change, and what is behind it. */
function Closer({ door, behind }: { door: Door; behind: readonly Door[] }) {
  const unit = useUnit()
  return (
    <div className={look.closer} aria-live="polite">
      <b>{door.label}</b> passes{' '}
      {[
        door.data ? `${linkModeFacts[door.data.mode].name}` : '',
        door.picture ? `${door.picture.name} (${formatRate(door.picture.rate)})` : '',
        door.watts > 0 ? formatWatts(door.watts) : '',
      ]
        .filter(Boolean)
        .join(', ') || 'nothing'}
      . Says {door.saidBy}: {citeSource(door.source)}.
      {door.reaches.length > 0 && (
        <>
          {' '}
          By the book a lead of this sort carries{' '}
          {door.reaches.map(({ name, reach }) => `${name} to ${formatLength(reach, unit)}`).join(', ')}.
        </>
      )}{' '}
      {behind.length > 0 ? `Behind it: ${behind.map(({ label }) => label).join(', ')}.` : 'Nothing is behind it.'}
    </div>
  )
}

/** The solid of the wall on both sides of a doorway, with the door leaf swung open into the hall before it. */
function Walls({ chamber, shape }: { chamber: Chamber; shape: CorridorShape }) {
  const { x, width, opening, narrowest } = chamber
  const top = hallTop(shape)
  const jamb = shape.middle - opening / 2
  const sill = shape.middle + opening / 2
  const fill = ink(narrowest ? 'brass' : 'solid')
  // the leaf stands out from the floor in the dark as well
  const leafInk = ink(narrowest ? 'brass' : 'quiet')
  const leaf = Math.min(opening, 46)
  const mark = x + width / 2
  return (
    <g>
      <rect x={x} y={top} width={width} height={jamb - top} fill={ink('solid')} opacity="0.9" />
      <rect x={x} y={sill} width={width} height={hallBottom(shape) - sill} fill={ink('solid')} opacity="0.9" />
      {narrowest && <path d={`M${mark - 7} 3h14l-7 9z`} fill={ink('brass')} />}
      {opening === 0 ? (
        <rect x={x} y={top} width="6" height={hallBottom(shape) - top} fill={ink('blocked')} />
      ) : (
        <>
          <rect x={x} y={jamb - 4} width={width} height="4" fill={fill} />
          <rect x={x} y={sill} width={width} height="4" fill={fill} />
          <path d={`M${x} ${jamb - 2}h${-leaf}`} stroke={leafInk} strokeWidth="4" />
          <path
            d={`M${x - leaf} ${jamb}A${leaf} ${leaf} 0 0 0 ${x} ${jamb + leaf}`}
            fill="none"
            stroke={leafInk}
            strokeWidth="1.2"
            strokeDasharray="3 3"
          />
        </>
      )}
    </g>
  )
}

/** What only shares the way stands back. */
const BESIDE = 0.6

/** One need may share two stretches of a way. */
const keyOf = ({ needId, stretch }: Walker): string => `${needId} ${stretch?.[0] ?? ''}`

/** Between which doors something shares the way. */
const stretchWords = ({ doors }: CorridorOf, { stretch }: Walker): string =>
  stretch ? `, from ${doors[stretch[0]]?.label} to ${doors[stretch[1]]?.label}` : ''

function RibbonMark({ ribbon }: { ribbon: Ribbon }) {
  const { flow, y, width, from, to, stopped } = ribbon
  return (
    <line
      x1={from}
      x2={to}
      y1={y}
      y2={y}
      stroke={ink(flowColours[flow.kind])}
      strokeWidth={width - 1}
      opacity={(stopped ? 0.5 : 0.85) * (flow.stretch ? BESIDE : 1)}
    />
  )
}

/** What a ribbon is and which way it walks; a cross where it is stopped. */
function RibbonLabel({ ribbon }: { ribbon: Ribbon }) {
  const { flow, y, width, from, to, stopped } = ribbon
  const forward = to > from ? 1 : -1
  const tip = Math.min(12, width - 1)
  const label = `${shortened(flow.label, 24)} ${formatRate(flow.rate ?? 0)}`
  const wide = width >= 15
  // past the words, which stand in the first hall and chamber
  const arrows = stopped ? [] : [0.36, 0.6, 0.84].map((share) => from + (to - from) * share)
  return (
    <g>
      {arrows.map((x) => (
        <path
          key={x}
          d={`M${x} ${y - tip / 2}l${(forward * tip) / 2} ${tip / 2}l${(-forward * tip) / 2} ${tip / 2}`}
          fill="none"
          stroke={ink('card')}
          strokeWidth="2"
        />
      ))}
      {stopped && (
        <path d={`M${to - 7} ${y - 7}l14 14M${to + 7} ${y - 7}l-14 14`} stroke={ink('blocked')} strokeWidth="4" />
      )}
      <text
        x={from + forward * 8}
        y={wide ? y + 4 : y - width / 2 - 4}
        fontSize="12.5"
        fontWeight="700"
        textAnchor={forward > 0 ? 'start' : 'end'}
        fill={ink(wide && !flow.stretch ? 'card' : 'ink')}
      >
        {label}
      </text>
    </g>
  )
}

/** Power runs along the wall where something asks for it, hatched, and breaks where a part passes none. */
function PowerLine({ shape, hatch }: { shape: CorridorShape; hatch: string }) {
  const y = hallBottom(shape) + 10
  return (
    <g>
      {shape.chambers.map(({ door, x, width, powered }, at) => {
        if (!powered) return null
        const before = shape.chambers[at - 1]
        const start = before ? before.x + before.width : 0
        return (
          <g key={x}>
            {door.watts > 0 ? (
              <rect x={start} y={y} width={width + x - start} height="8" fill={hatch} stroke={ink('power')} />
            ) : (
              <path d={`M${x + width / 2 - 6} ${y - 2}l12 12m0 -12l-12 12`} stroke={ink('blocked')} strokeWidth="3" />
            )}
            <text x={x + width / 2} y={y + 21} fontSize="11" textAnchor="middle" fill={ink('power')}>
              {formatWatts(door.watts)}
            </text>
          </g>
        )
      })}
    </g>
  )
}

const shortened = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

/** The picture in words. */
function described(verdict: CorridorOf): string {
  const doors = verdict.doors.map((door, at) => {
    const opening = openingOf(door)
    return `${door.label} passes ${opening > 0 ? formatRate(opening) : 'nothing'}${at === verdict.narrowest ? ', the narrowest door' : ''}`
  })
  const flows = verdict.flows.map(
    (flow) =>
      `${flow.label} ${flow.way === 'down' ? 'from host to device' : 'from device to host'}${stretchWords(verdict, flow)}: ${gradeWords[flow.grade]}`,
  )
  return `${doors.join('; ')}. ${flows.join('; ')}`
}
