import type { Corridor, Walker } from '../../core/checks/corridor'
import { type Door, openingOf, widthShare } from '../../core/link/doors'
import type { BitsPerSecond } from '../../core/quantity/rate'

/** The corridor as figures: where each chamber stands, how wide its door is, where each ribbon runs. All from the verdict. */
export type CorridorShape = {
  width: number
  height: number
  middle: number
  chambers: Chamber[]
  ribbons: Ribbon[]
  powered: boolean
}
export type Chamber = {
  door: Door
  x: number
  width: number
  opening: number
  narrowest: boolean
  /** Something that walks through it asks for power. */
  powered: boolean
}
export type Ribbon = { flow: Walker; y: number; width: number; from: number; to: number; stopped: boolean }

const WIDTH = 1000
export const HALL_WIDTH = 72
/** A row of many parts makes the corridor longer rather than its chambers too narrow to read. */
const NARROWEST_CHAMBER = 150
export const HALL_HEIGHT = 136
const TOP = 24
const FOOT = 10
const POWER_FOOT = 28
/** Width on the page of a rate, on a log scale; nothing at all is a shut door. */
export function widthOf(rate: BitsPerSecond): number {
  if (rate <= 0) return 0
  return Math.max(5, widthShare(rate) * HALL_HEIGHT)
}

export function corridorShape(verdict: Corridor): CorridorShape {
  const { doors } = verdict
  const chamber = Math.max(NARROWEST_CHAMBER, (WIDTH - HALL_WIDTH * (doors.length + 1)) / doors.length)
  const chambers = doors.map(
    (door, at): Chamber => ({
      door,
      x: HALL_WIDTH + at * (chamber + HALL_WIDTH),
      width: chamber,
      opening: widthOf(openingOf(door)),
      narrowest: at === verdict.narrowest,
      powered: verdict.flows.some(
        ({ watts, stretch }) => watts !== null && (!stretch || (stretch[0] <= at && at <= stretch[1])),
      ),
    }),
  )
  const width = HALL_WIDTH + doors.length * (chamber + HALL_WIDTH)
  const middle = TOP + HALL_HEIGHT / 2
  const powered = chambers.some((chamber) => chamber.powered)
  const height = TOP + HALL_HEIGHT + FOOT + (powered ? POWER_FOOT : 0)
  return { width, height, middle, chambers, ribbons: ribbonsOf(verdict, chambers, width, middle), powered }
}

/** Ribbons lie side by side, together as wide as their summed rate; one that is refused ends at the door that stops it. */
function ribbonsOf(verdict: Corridor, chambers: readonly Chamber[], width: number, middle: number): Ribbon[] {
  const flows = verdict.flows.filter((flow) => flow.rate !== null)
  const total = flows.reduce((sum, flow) => sum + (flow.rate ?? 0), 0)
  const band = Math.max(widthOf(total), flows.length * 5)
  let y = middle - band / 2
  return flows.map((flow) => {
    const share = Math.max(5, band * ((flow.rate ?? 0) / total))
    const own = flow.stretch ? chambers.slice(flow.stretch[0], flow.stretch[1] + 1) : chambers
    const stopAt = flow.passes ? null : stoppingChamber(flow, own)
    const ribbon = spanOf(flow, stopAt, extentOf(flow, chambers, width))
    const placed: Ribbon = { flow, y: y + share / 2, width: share, ...ribbon, stopped: stopAt !== null }
    y += share
    return placed
  })
}

/** From where to where a flow may walk: all of the corridor, or from the hall before its first door to the hall behind its last. */
function extentOf({ stretch }: Walker, chambers: readonly Chamber[], width: number): { start: number; end: number } {
  const first = chambers[stretch?.[0] ?? 0]
  const last = chambers[stretch?.[1] ?? chambers.length - 1]
  const begins = !first || first === chambers[0]
  const ends = !last || last === chambers.at(-1)
  return {
    start: begins ? 0 : first.x - HALL_WIDTH * IN_A_HALL,
    end: ends ? width : last.x + last.width + HALL_WIDTH * IN_A_HALL,
  }
}
/** So far into a hall goes what turns off there. */
const IN_A_HALL = 0.6

/** The first door, in the way it walks, that is too narrow for it, or else the narrowest of all. */
function stoppingChamber(flow: Walker, chambers: readonly Chamber[]): Chamber | null {
  const walked = flow.way === 'down' ? chambers : [...chambers].reverse()
  const tooNarrow = walked.find(({ door }) => openingOf(door) < (flow.rate ?? 0))
  return (
    tooNarrow ??
    walked.reduce<Chamber | null>((least, each) => (least && least.opening <= each.opening ? least : each), null)
  )
}

function spanOf(
  flow: Walker,
  stop: Chamber | null,
  { start, end }: { start: number; end: number },
): { from: number; to: number } {
  if (flow.way === 'down') return { from: start, to: stop ? stop.x : end }
  return { from: end, to: stop ? stop.x + stop.width : start }
}

export const hallTop = (shape: CorridorShape): number => shape.middle - HALL_HEIGHT / 2
export const hallBottom = (shape: CorridorShape): number => shape.middle + HALL_HEIGHT / 2
