import type { Place } from '../plan/plan'
import { formatLength, type LengthUnit, parseOffset } from '../quantity/length'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import type { PathwayPoint } from '../vocabulary/floor'
import { MOST_POINTS, toMillimetre } from '../vocabulary/floor'

export const pointsExample = '6.4, 2, 2.5'

/**
 * The points of a pathway, a line each: how far right, how far down and how high, or a place by its name and how high. `floor` is the one the line is drawn
 * on; "floor: name" before a point goes on upon another.
 */
export function parsePoints(text: string, { floor, floors, places, unit = 'm' }: PointContext): Parsed<PathwayPoint[]> {
  const points: PathwayPoint[] = []
  let on = floor
  for (const [at, line] of text.split('\n').entries()) {
    const said = plainText(line)
    if (said === '') continue
    const named = floors.find(({ name }) => said.toLowerCase().startsWith(`${name.toLowerCase()}:`))
    if (named) on = named.id
    const rest = named ? said.slice(named.name.length + 1).trim() : said
    if (rest === '') continue
    const point = pointOf(rest, on, places, unit)
    if (!point.ok) return unreadable(`Line ${at + 1}: ${point.problem}`)
    points.push(point.value)
    if (points.length > MOST_POINTS) return unreadable(`A pathway has at most ${MOST_POINTS} points.`)
  }
  return points.length < 2 ? unreadable('A pathway needs two points or more, a line each.') : parsed(points)
}

export type PointContext = {
  floor: string
  floors: readonly { id: string; name: string }[]
  places: readonly Place[]
  unit?: LengthUnit
}

function pointOf(said: string, floor: string, places: readonly Place[], unit: LengthUnit): Parsed<PathwayPoint> {
  const cells = said.split(/, |;/).map((cell) => cell.trim())
  const place = places.find(({ name }) => name.toLowerCase() === cells.slice(0, -1).join(', ').toLowerCase())
  if (place && !place.at) return unreadable(`${place.name} is not on a floor yet.`)
  const figures = (place ? cells.slice(-1) : cells).map((cell) => parseOffset(cell, unit))
  const wrong = figures.find((figure) => !figure.ok)
  if (wrong && !wrong.ok) return wrong
  const [x, y, height] = figures.map((figure) => (figure.ok ? toMillimetre(figure.value) : 0))
  if (place?.at) return parsed({ ...place.at, height: x ?? 0 })
  if (figures.length !== 3 || x === undefined || y === undefined || height === undefined)
    return unreadable(
      `"${said.slice(0, 40)}" is not a point. Write how far right, down and up, like ${pointsExample}, or a place and how high.`,
    )
  return parsed({ floor, x, y, height })
}

/** A distance as its reader reads it back to the millimetre, whatever unit is in force. */
export const offsetText = (metres: number, unit: LengthUnit): string =>
  `${decimal(metres, 3)}${unit === 'm' || metres === 0 ? '' : ' m'}`

/** Points as `parsePoints` reads them back: the floor where it changes, then the figures in metres. */
export function pointsText(
  points: readonly PathwayPoint[],
  { floor, floors, unit = 'm' }: Omit<PointContext, 'places'>,
): string {
  let on = floor
  return points
    .map((point) => {
      const name = point.floor === on ? '' : `${floors.find(({ id }) => id === point.floor)?.name ?? point.floor}: `
      on = point.floor
      return `${name}${[point.x, point.y, point.height].map((figure) => offsetText(figure, unit)).join(', ')}`
    })
    .join('\n')
}

/** A point in words, in the unit asked for. */
export const pointWords = ({ x, y }: { x: number; y: number }, unit: LengthUnit): string =>
  `${signed(x, unit)} right, ${signed(y, unit)} down`
const signed = (metres: number, unit: LengthUnit): string =>
  `${metres < 0 ? '-' : ''}${formatLength(Math.abs(metres), unit)}`
