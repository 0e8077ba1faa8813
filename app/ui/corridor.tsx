import { Box } from '@chakra-ui/react'
import { useId } from 'react'
import type { RunVerdict } from '../../core/checks/assess'
import { gradeWords } from '../../core/checks/sentences'
import { openingOf } from '../../core/link/doors'
import type { NeedKind } from '../../core/plan/need'
import { formatLength } from '../../core/quantity/length'
import { formatRate } from '../../core/quantity/rate'
import { formatWatts } from '../../core/quantity/watts'
import { citeSource } from '../../core/standards/source'
import { type Chamber, type CorridorShape, corridorShape, hallBottom, hallTop, type Ribbon } from './corridor-shape'
import { useUnit } from './units'

const ink = (token: string): string =>
  `var(--hw-colors-${token.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`

const flowColours: Record<NeedKind, string> = {
  picture: 'picture',
  storage: 'data',
  data: 'data',
  audio: 'data',
  sensor: 'data',
  camera: 'picture',
  headset: 'headset',
  power: 'power',
}

/** A run seen from above: walls, doorways as wide as what each part passes at this length, and what wants to walk through. */
export function Corridor({ verdict, title }: { verdict: RunVerdict; title: string }) {
  const id = useId()
  const shape = corridorShape(verdict)
  return (
    <Box
      overflowX="auto"
      tabIndex={0}
      role="region"
      aria-label={`Corridor of ${title}`}
      bg="card"
      border="1px solid"
      borderColor="line"
      borderRadius="2px"
    >
      <svg
        viewBox={`0 0 ${shape.width} ${shape.height}`}
        role="img"
        aria-labelledby={`${id}-title ${id}-desc`}
        style={{
          display: 'block',
          width: '100%',
          minWidth: '720px',
          maxHeight: '360px',
          fontFamily: 'var(--hw-fonts-body)',
        }}
      >
        <title id={`${id}-title`}>{`${title}: ${gradeWords[verdict.grade]}`}</title>
        <desc id={`${id}-desc`}>{described(verdict)}</desc>
        <defs>
          <pattern id={`${id}-hatch`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
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
          <RibbonMark key={ribbon.flow.needId} ribbon={ribbon} />
        ))}
        {shape.chambers.map((chamber) => (
          <Walls key={chamber.door.id} chamber={chamber} shape={shape} />
        ))}
        {shape.ribbons.map((ribbon) => (
          <RibbonLabel key={ribbon.flow.needId} ribbon={ribbon} />
        ))}
        {shape.powered && <PowerLine shape={shape} hatch={`url(#${id}-hatch)`} />}
        {shape.chambers.map((chamber) => (
          <Plate key={chamber.door.id} chamber={chamber} shape={shape} />
        ))}
      </svg>
    </Box>
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
  return (
    <g>
      <rect x={x} y={top} width={width} height={jamb - top} fill={ink('solid')} opacity="0.9" />
      <rect x={x} y={sill} width={width} height={hallBottom(shape) - sill} fill={ink('solid')} opacity="0.9" />
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
      opacity={stopped ? 0.5 : 0.85}
    />
  )
}

/** What a ribbon is and which way it walks; a cross where it is stopped. */
function RibbonLabel({ ribbon }: { ribbon: Ribbon }) {
  const { flow, y, width, from, to, stopped } = ribbon
  const forward = to > from ? 1 : -1
  const tip = Math.min(12, width - 1)
  const label = `${shortened(flow.label, 24)} ${formatRate(flow.rate ?? 0)}`
  // past the words, which stand in the first hall and chamber
  const arrows = stopped ? [] : [0.36, 0.6, 0.84].map((share) => from + (to - from) * share)
  const outside = width < 15
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
        y={outside ? y - width / 2 - 4 : y + 4}
        fontSize="12.5"
        fontWeight="700"
        textAnchor={forward > 0 ? 'start' : 'end'}
        fill={ink(outside ? 'ink' : 'card')}
      >
        {label}
      </text>
    </g>
  )
}

/** Power runs along the wall, hatched, and breaks where a part passes none. */
function PowerLine({ shape, hatch }: { shape: CorridorShape; hatch: string }) {
  const y = hallBottom(shape) + 10
  return (
    <g>
      {shape.chambers.map(({ door, x, width }, at) => {
        const before = shape.chambers[at - 1]
        const start = before ? before.x + before.width : 0
        return (
          <g key={door.id}>
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

/** What stands on the wall beside a door: which part, what it passes, and who says so. */
function Plate({ chamber, shape }: { chamber: Chamber; shape: CorridorShape }) {
  const unit = useUnit()
  const { door, x, width, narrowest } = chamber
  const centre = x + width / 2
  const opening = openingOf(door)
  const detail =
    door.detail.length === null ? door.detail.text : `${door.detail.text} ${formatLength(door.detail.length, unit)}`
  const foot = hallBottom(shape) + (shape.powered ? 38 : 12)
  return (
    <g>
      <title>{`${door.label}: ${opening > 0 ? formatRate(opening) : 'passes no data or picture'}. Says ${door.saidBy}. ${citeSource(door.source)}`}</title>
      <text x={centre} y="18" fontSize="15" fontWeight="700" textAnchor="middle" fill={ink('ink')}>
        {shortened(door.label, 28)}
      </text>
      <text x={centre} y="35" fontSize="12.5" textAnchor="middle" fill={ink('quiet')}>
        {shortened(detail, 36)}
      </text>
      <text
        x={centre}
        y={foot + 14}
        fontSize="16"
        fontWeight="700"
        textAnchor="middle"
        fill={ink(narrowest ? 'brassInk' : 'ink')}
      >
        {opening > 0 ? formatRate(opening) : door.watts > 0 ? 'power only' : 'shut'}
      </text>
      <text x={centre} y={foot + 31} fontSize="12" textAnchor="middle" fill={ink('quiet')}>
        {shortened(`says ${door.saidBy}`, 36)}
      </text>
      {narrowest && (
        <g>
          <path d={`M${centre - 7} 41h14l-7 9z`} fill={ink('brass')} />
          <text x={centre} y={foot + 48} fontSize="12.5" fontWeight="700" textAnchor="middle" fill={ink('brassInk')}>
            narrowest door
          </text>
        </g>
      )}
    </g>
  )
}

const shortened = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

/** The picture in words. */
function described(verdict: RunVerdict): string {
  const doors = verdict.doors.map((door, at) => {
    const opening = openingOf(door)
    return `${door.label} passes ${opening > 0 ? formatRate(opening) : 'nothing'}${at === verdict.narrowest ? ', the narrowest door' : ''}`
  })
  const flows = verdict.flows.map(
    (flow) =>
      `${flow.label} ${flow.way === 'down' ? 'from host to device' : 'from device to host'}: ${gradeWords[flow.grade]}`,
  )
  return `${doors.join('; ')}. ${flows.join('; ')}`
}
