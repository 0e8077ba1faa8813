import { type KeyboardEvent, type MouseEvent, memo, type RefObject, useRef, useState } from 'react'
import type { AreaReach } from '../../../core/headset/area'
import type { NoiseSource } from '../../../core/placement/floor-noise'
import { formatLength } from '../../../core/quantity/length'
import type { FloorLine, FloorShape, Joint } from '../../../core/route/floor-shape'
import { spotKey } from '../../../core/route/network'
import { pointWords } from '../../../core/survey/points-text'
import type { Floor, PathwayPoint, Spot } from '../../../core/vocabulary/floor'
import { QuietButton } from '../../ui/controls'
import { useUnit } from '../../ui/units'
import { useSlices } from '../../ui/use-slices'
import look from './floor-map.module.css'
import { MAP_HEIGHT, MAP_WIDTH, snapped, wholeFloor } from './floor-view'
import { Fixed, type Hands, JointMark, type Moving } from './joint-mark'
import { useFloorView } from './use-floor-view'
import { useTidyLabels } from './use-tidy-labels'

/** What a hand on the floor does: move what is there, or mark spots for something new. */
export type Hand = 'move' | 'mark'

type Props = {
  siteId: string
  floor: Floor
  shape: FloorShape
  hand: Hand
  /** Spots that were marked, to be joined by a line. */
  marked: readonly Spot[]
  /** Pathways of the way that is shown. */
  way: ReadonlySet<string>
  noise: readonly NoiseSource[]
  areas: readonly AreaReach[]
  mark(spot: Spot): void
  pick(joint: Joint): void
  pickPathway(id: string): void
  /** Where a spot is while it is moved; null when it is let go. */
  moving(from: Spot, to: Spot | null): void
  move(from: Spot, to: Spot): void
}

/** So near in pixels is together. */
const REACH = 14

/** A floor to scale, as it is measured: what stands on it, the pathways over it, and what can be moved. */
export function FloorMap(props: Props) {
  const { siteId, floor, shape, hand, marked, way, noise, areas } = props
  const unit = useUnit()
  const svg = useRef<SVGSVGElement>(null)
  const world = useRef<SVGGElement>(null)
  const [first] = useState(() => wholeFloor(shape.bounds))
  const tidy = useRef<() => void>(() => {})
  const { view, act } = useFloorView(svg, world, first, tidy)
  tidy.current = useTidyLabels(svg, view)
  const [held, setHeld] = useState<Moving | null>(null)
  const all = wholeFloor(shape.bounds)
  const drawn = useSlices(shape.lines.length + shape.joints.length)

  const spotOf = (event: { clientX: number; clientY: number }): Spot | null => {
    const matrix = world.current?.getScreenCTM()
    if (!matrix) return null
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
    return { floor: floor.id, x, y }
  }
  const reach = () => REACH / view.current.k
  const click = (event: MouseEvent) => {
    const spot = hand === 'mark' ? spotOf(event) : null
    if (spot) props.mark(snapped(spot, shape, reach()))
  }
  const hold = (next: Moving | null) => {
    if (held && !next) props.moving(held.from, null)
    if (next) props.moving(next.from, next.to)
    setHeld(next)
  }
  // what a joint asks for, by the latest of this: joints that did not change are not drawn anew
  const hands = useRef<Hands>(null as never)
  hands.current = {
    hold,
    spotOf: (joint, event) => {
      const spot = spotOf(event)
      return spot && snapped(spot, shape, reach(), joint.key)
    },
    pick: (joint) => (hand === 'mark' ? props.mark(joint.at) : props.pick(joint)),
    move: (joint, to) => {
      setHeld(null)
      props.moving(joint.at, null)
      if (spotKey(to) !== joint.key) props.move(joint.at, to)
    },
    pickPathway: props.pickPathway,
  }
  const keys = (event: KeyboardEvent) => {
    if (event.target !== svg.current) return
    const how = VIEW_KEYS[event.key]
    if (!how) return
    event.preventDefault()
    act(how, all)
  }
  const { drawing } = floor
  return (
    <div className={look.frame}>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields */}
      <svg
        ref={svg}
        viewBox={`0 0 ${MAP_WIDTH} ${MAP_HEIGHT}`}
        className={look.map}
        data-hand={hand}
        data-early-keys=""
        style={{ '--k': first.k } as never}
        role="group"
        aria-label={`${floor.name}, drawn to scale. Plus and minus zoom, arrow keys pan, 0 shows all of it.`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: its keys pan and zoom
        tabIndex={0}
        onClick={click}
        onKeyDown={keys}
      >
        <Patterns />
        <g ref={world} transform={`translate(${first.x} ${first.y}) scale(${first.k})`}>
          <rect x={-500} y={-500} width={1000} height={1000} fill="url(#metres)" />
          {drawing && (
            <image
              href={`/sites/${siteId}/files/${drawing.file}`}
              width={drawing.width * drawing.metresPerPixel}
              height={drawing.height * drawing.metresPerPixel}
              preserveAspectRatio="none"
              className={look.drawing}
            />
          )}
          {shape.places.map(({ id, at, area }) =>
            at && area ? (
              <rect
                key={id}
                x={at.x - area.width / 2}
                y={at.y - area.depth / 2}
                width={area.width}
                height={area.depth}
                className={look.area}
              />
            ) : null,
          )}
          {areas.map(({ run, port, radius }) => (
            <circle key={run.id} cx={port.x} cy={port.y} r={radius} className={look.reach} />
          ))}
          {noise.map(({ device, at, rings }) => (
            <g key={device.id}>
              {rings.map(({ wanted, radius }) => (
                <g key={wanted}>
                  <circle cx={at.x} cy={at.y} r={radius} className={look.ring} />
                  <Fixed x={at.x} y={at.y - radius}>
                    <text className={look.ringText}>{wanted} dB</text>
                  </Fixed>
                </g>
              ))}
            </g>
          ))}
          {shape.lines.slice(0, drawn).map((line) => (
            <Line
              key={line.pathway.id}
              line={line}
              on={way.has(line.pathway.id)}
              held={held && touches(line, held.key) ? held : null}
              hands={hands}
            />
          ))}
          {marked.length > 0 && (
            <polyline className={look.marked} points={marked.map(({ x, y }) => `${x},${y}`).join(' ')} />
          )}
          {marked.map(({ x, y }, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a mark is its turn
            <Fixed key={at} x={x} y={y}>
              <circle r={6} className={look.mark} />
              <text y={-10} className={look.label}>
                {at + 1}
              </text>
            </Fixed>
          ))}
          {shape.joints.slice(0, Math.max(0, drawn - shape.lines.length)).map((joint) => (
            <JointMark
              key={joint.key}
              joint={joint}
              held={held?.key === joint.key ? held : null}
              locked={hand !== 'move'}
              words={pointWords(joint.at, unit)}
              hands={hands}
            />
          ))}
        </g>
      </svg>
      <div className={look.view}>
        {(['in', 'out', 'all'] as const).map((how) => (
          <QuietButton key={how} type="button" small onClick={() => act(how, all)} aria-label={VIEW_WORDS[how]}>
            {VIEW_SIGNS[how]}
          </QuietButton>
        ))}
        <span className={look.scale}>a square is {formatLength(1, unit)}</span>
      </div>
    </div>
  )
}

const VIEW_KEYS: Readonly<Record<string, 'in' | 'out' | 'all' | 'left' | 'right' | 'up' | 'down'>> = {
  '+': 'in',
  '=': 'in',
  '-': 'out',
  '0': 'all',
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
}
const VIEW_WORDS = { in: 'Nearer', out: 'Further away', all: 'All of the floor' } as const
const VIEW_SIGNS = { in: '+', out: '−', all: 'All' } as const

const touches = ({ pathway }: FloorLine, key: string): boolean => pathway.points.some((point) => spotKey(point) === key)

function Patterns() {
  return (
    <defs>
      <pattern id="metres" width={1} height={1} patternUnits="userSpaceOnUse">
        <path d="M1 0H0V1" className={look.grid} />
      </pattern>
    </defs>
  )
}

const Line = memo(
  PlainLine,
  (one, other) => one.line.pathway === other.line.pathway && one.on === other.on && one.held === other.held,
)

/** Where the name of a pathway may stand on it: the middle of each of its legs, the longest first, then nearer to the ends of these. */
function nameSpots(pieces: readonly (readonly NameSpot[])[]): NameSpot[] {
  const legs = pieces.flatMap((piece) => piece.slice(1).map((to, index) => [piece[index] ?? to, to] as const))
  const longest = legs
    .sort(([a, b], [c, d]) => Math.hypot(d.x - c.x, d.y - c.y) - Math.hypot(b.x - a.x, b.y - a.y))
    .slice(0, MOST_NAMED_LEGS)
  return [1 / 2, 1 / 4, 3 / 4].flatMap((part) =>
    longest.map(([a, b]) => ({ x: a.x + (b.x - a.x) * part, y: a.y + (b.y - a.y) * part })),
  )
}
type NameSpot = { x: number; y: number }
const MOST_NAMED_LEGS = 6

function PlainLine({
  line: { pathway, pieces, leaves },
  on,
  held,
  hands,
}: {
  line: FloorLine
  on: boolean
  held: Moving | null
  hands: RefObject<Hands>
}) {
  const at = (point: PathwayPoint): Spot => (held && spotKey(point) === held.key ? held.to : point)
  const [named, ...others] = nameSpots(pieces.map((piece) => piece.map(at)))
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the list beside the floor holds the same pathways, by keys
    <g
      data-hold=""
      onClick={() => hands.current.pickPathway(pathway.id)}
      className={look.pathway}
      data-kind={pathway.kind}
      data-on={on || undefined}
      data-closed={pathway.closed || undefined}
    >
      {pieces.map((piece) => (
        <polyline
          key={`${piece[0]?.x} ${piece[0]?.y} ${piece.length}`}
          points={piece
            .map(at)
            .map(({ x, y }) => `${x},${y}`)
            .join(' ')}
        />
      ))}
      {named && (
        <Fixed x={named.x} y={named.y}>
          <text
            y={-6}
            className={look.pathwayName}
            data-name="pathway"
            data-at={`${named.x} ${named.y}`}
            data-also={others.map(({ x, y }) => `${x} ${y}`).join()}
          >
            {pathway.name}
            {leaves ? ' ↕' : ''}
          </text>
        </Fixed>
      )}
    </g>
  )
}
