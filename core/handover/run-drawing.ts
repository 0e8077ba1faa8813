import type { RunVerdict } from '../checks/assess'
import { openingOf, widthShare } from '../link/doors'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import type { Drawing, Points, Shape } from './drawing'

const HEIGHT: Points = 46
const HALL: Points = 26
const LETTERS: Points = 6.5
/** How far a door is open, as a share of its hall. */
function openness(rate: number): number {
  if (rate <= 0) return 0
  return Math.max(0.06, widthShare(rate))
}

/** A run as a corridor in small: its doors from the host on, each as wide as what it passes, the narrowest with its figure. */
export function runDrawing({ doors, narrowest }: Pick<RunVerdict, 'doors' | 'narrowest'>, width: Points): Drawing {
  const step = (width - HALL) / Math.max(1, doors.length)
  const middle = HEIGHT / 2
  const wall = (x: Points, length: Points, y: Points): Shape => ({
    sort: 'box',
    x,
    y,
    width: length,
    height: 2,
    ink: 'wall',
    filled: true,
  })
  const shapes: Shape[] = [wall(0, width, 0), wall(0, width, HEIGHT - 2)]
  for (const [at, door] of doors.entries()) {
    const x = HALL + at * step
    const opening = openingOf(door)
    const gap = openness(opening) * (HEIGHT - 4)
    const is = at === narrowest
    const ink = is ? 'narrow' : opening > 0 || door.watts > 0 ? 'wall' : 'shut'
    const jamb = (HEIGHT - 4 - gap) / 2
    shapes.push(
      { sort: 'box', x, y: 2, width: 4, height: jamb, ink, filled: true },
      { sort: 'box', x, y: middle + gap / 2, width: 4, height: jamb, ink, filled: true },
    )
    const most = Math.max(4, Math.floor((step - 8) / (LETTERS * 0.56)))
    const figure = opening > 0 ? formatRate(opening) : door.watts > 0 ? formatWatts(door.watts) : 'shut'
    shapes.push(
      text(x + 7, middle - 3, shortened(door.label, most), is ? 'narrow' : 'ink'),
      text(x + 7, middle + 7, shortened(is ? `${figure}, narrowest` : figure, most), is ? 'narrow' : 'quiet'),
    )
  }
  return { width, height: HEIGHT, shapes }
}

const text = (x: Points, y: Points, words: string, ink: 'ink' | 'quiet' | 'narrow'): Shape => ({
  sort: 'text',
  x,
  y,
  text: words,
  size: LETTERS,
  ink,
  anchor: 'start',
})

const shortened = (words: string, most: number): string =>
  words.length > most ? `${words.slice(0, most - 1)}…` : words

/** The same in words, for whoever does not see it. */
export const runDrawingWords = ({ doors, narrowest }: Pick<RunVerdict, 'doors' | 'narrowest'>): string =>
  doors
    .map((door, at) => {
      const opening = openingOf(door)
      const passes = opening > 0 ? formatRate(opening) : door.watts > 0 ? formatWatts(door.watts) : 'nothing'
      return `${door.label} passes ${passes}${at === narrowest ? ', the narrowest door' : ''}`
    })
    .join('; ')
