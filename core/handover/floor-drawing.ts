import type { SiteIndex } from '../plan/site-index'
import { type Bounds, floorShape } from '../route/floor-shape'
import { type Label, labelPlaces } from '../route/label-places'
import type { Floor, Spot } from '../vocabulary/floor'
import type { Run } from '../vocabulary/run'
import { type Drawing, POINTS_PER_METRE, type Points, type Shape, textWidth } from './drawing'

/** Scales that drawings on paper have: one to so many. */
const SCALES = [10, 20, 25, 50, 100, 200, 250, 500, 1000, 2000, 5000, 10_000] as const

/** The largest usual scale at which all of a floor fits on a sheet. */
export function scaleFor({ width, height }: Bounds, room: { width: Points; height: Points }): number {
  const fits = (scale: number): boolean =>
    (width * POINTS_PER_METRE) / scale <= room.width && (height * POINTS_PER_METRE) / scale <= room.height
  return SCALES.find(fits) ?? 20_000
}

/** Letters of the names on a drawing. */
const NAME_SIZE = 7.5
/** Tags named at one spot or pathway; the rest by number. */
const MOST_TAGS = 6
/** The rule under a drawing is about this long. */
const RULE: Points = 140
const FOOT: Points = 30

export type FloorDrawing = Drawing & { scale: number }

/**
 * A floor to scale: its drawing, its pathways with the runs that follow them, what stands where, and the other runs as straight dashed lines, which say between
 * what they lie and not along which way. `fresh` are runs that are drawn so that they stand out.
 */
export function floorDrawing(
  index: SiteIndex,
  floor: Floor,
  room: { width: Points; height: Points },
  fresh: ReadonlySet<string> = new Set(),
): FloorDrawing {
  const { plan } = index
  const shape = floorShape(plan, floor)
  const { bounds } = shape
  const sheet = { width: room.width, height: room.height - FOOT }
  const scale = scaleFor(bounds, sheet)
  const size = POINTS_PER_METRE / scale
  const x = (metres: number): Points => (metres - bounds.x) * size
  const y = (metres: number): Points => (metres - bounds.y) * size
  const width = bounds.width * size
  const height = bounds.height * size
  const shapes: Shape[] = []
  const labels: (Label & { text: string; ink: 'ink' | 'run' | 'new' })[] = []
  const name = (text: string, at: Spot, sort: Label['sort'], ink: 'ink' | 'run' | 'new'): void => {
    labels.push({ at: { x: x(at.x), y: y(at.y) }, width: textWidth(text, NAME_SIZE), sort, text, ink })
  }
  const { drawing } = floor
  if (drawing)
    shapes.push({
      sort: 'image',
      file: drawing.file,
      x: x(0),
      y: y(0),
      width: drawing.width * drawing.metresPerPixel * size,
      height: drawing.height * drawing.metresPerPixel * size,
    })
  shapes.push({ sort: 'box', x: 0, y: 0, width, height, ink: 'quiet' })
  for (const { pathway, pieces } of shape.lines) {
    const along = index.runsAlong.get(pathway.id) ?? []
    const isNew = along.some(({ id }) => fresh.has(id))
    for (const piece of pieces)
      shapes.push({
        sort: 'line',
        points: piece.map((point) => [x(point.x), y(point.y)] as const),
        ink: isNew ? 'new' : 'pathway',
        width: isNew ? 2.4 : 1.6,
      })
    const [longest] = pieces
      .flatMap((piece) => piece.slice(1).map((to, at) => [piece[at] ?? to, to] as const))
      .sort(([a, b], [c, d]) => Math.hypot(d.x - c.x, d.y - c.y) - Math.hypot(b.x - a.x, b.y - a.y))
    if (!longest) continue
    const [from, to] = longest
    const middle = { floor: floor.id, x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }
    name(named(pathway.name, along), middle, 'pathway', isNew ? 'new' : 'ink')
  }
  for (const run of plan.runs) {
    if (run.route.follows) continue
    const [from, to] = [spotOf(index, run.from.device), spotOf(index, run.to.device)]
    if (from?.floor !== floor.id || to?.floor !== floor.id || (from.x === to.x && from.y === to.y)) continue
    const isNew = fresh.has(run.id)
    const points = [from, to].map((spot) => [x(spot.x), y(spot.y)] as const)
    shapes.push({ sort: 'line', points, ink: isNew ? 'new' : 'run', width: isNew ? 2 : 0.8, dashed: true })
    const middle = { floor: floor.id, x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }
    name(`${run.tag}${isNew ? ' (new)' : ''}`, middle, 'pathway', isNew ? 'new' : 'run')
  }
  const atPlaces = runsAtPlaces(index)
  const marks = shape.joints.filter(({ stands }) => stands.length > 0)
  for (const { at, stands, place } of marks) {
    shapes.push({ sort: 'dot', x: x(at.x), y: y(at.y), radius: 2.6, ink: 'ink' })
    name(named(stands.join(', '), place ? (atPlaces.get(place.id) ?? []) : []), at, 'joint', 'ink')
  }
  const spots = labelPlaces(
    labels,
    marks.map(({ at }) => ({ x: x(at.x), y: y(at.y) })),
    { width, height },
  )
  for (const [at, label] of labels.entries()) {
    const spot = spots[at]
    if (!spot) continue
    const { text, ink } = label
    const { x: left, y: top } = label.at
    shapes.push({ sort: 'text', x: left + spot.dx, y: top + spot.dy, text, size: NAME_SIZE, ink, anchor: spot.anchor })
  }
  shapes.push(...ruleUnder(height, scale))
  return { width, height: height + FOOT, shapes, scale }
}

/** A rule of whole metres, so that the scale survives a copier. */
function ruleUnder(top: Points, scale: number): Shape[] {
  const size = POINTS_PER_METRE / scale
  const metres = [1, 2, 5, 10, 20, 50, 100, 200, 500].findLast((each) => each * size <= RULE) ?? 1
  const length = metres * size
  const y = top + 14
  const tick = (at: Points): Shape => ({
    sort: 'line',
    points: [
      [at, y - 4],
      [at, y + 4],
    ],
    ink: 'ink',
    width: 1,
  })
  return [
    {
      sort: 'line',
      points: [
        [1, y],
        [1 + length, y],
      ],
      ink: 'ink',
      width: 1,
    },
    tick(1),
    tick(1 + length),
    {
      sort: 'text',
      x: length + 8,
      y: y + 3,
      text: `${metres} m, 1:${scale}`,
      size: NAME_SIZE,
      ink: 'ink',
      anchor: 'start',
    },
  ]
}

/** Where a device stands: at its own spot, or at that of its place. */
function spotOf({ devices, places }: SiteIndex, id: string): Spot | undefined {
  const device = devices.get(id)
  return device?.at ?? places.get(device?.place ?? '')?.at
}

/** The runs that end at each place. */
function runsAtPlaces({ plan, devices }: SiteIndex): ReadonlyMap<string, readonly Run[]> {
  const at = new Map<string, Run[]>()
  for (const run of plan.runs)
    for (const place of new Set([run.from, run.to].flatMap(({ device }) => devices.get(device)?.place ?? [])))
      at.set(place, [...(at.get(place) ?? []), run])
  return at
}

function named(name: string, runs: readonly Run[]): string {
  if (runs.length === 0) return name
  const more = runs.length - MOST_TAGS
  return `${name}: ${runs
    .slice(0, MOST_TAGS)
    .map(({ tag }) => tag)
    .join(' ')}${more > 0 ? ` +${more}` : ''}`
}
