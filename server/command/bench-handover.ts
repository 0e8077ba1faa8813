import { assessAnew } from '../../core/checks/assess'
import { blocksOf, bookOf, PAGE_MARGIN, paperSizes, titleOf } from '../../core/handover/book'
import type { Plan } from '../../core/plan/plan'
import { handoverSchema } from '../../core/vocabulary/handover'
import { bookPdf } from '../paper/book-pdf'
import { benchSite } from './bench-site'

const FLOORS = 12
/** Places in a row on a floor, two metres apart. */
const IN_A_ROW = 20

/** A made-up site on twelve floors: every device at a place of its own row. */
function building(runs: number): Plan {
  const plan = benchSite(runs, runs * 2.5)
  const spots = Math.ceil(plan.devices.length / 4)
  return {
    ...plan,
    floors: Array.from({ length: FLOORS }, (_, level) => ({
      id: `f${level}`,
      name: `Floor ${level}`,
      level: level * 3,
    })),
    places: Array.from({ length: spots }, (_, at) => {
      const row = Math.floor(at / FLOORS)
      const x = 2 * (row % IN_A_ROW)
      return {
        id: `p${at}`,
        name: `Place ${at}`,
        mains: true,
        at: { floor: `f${at % FLOORS}`, x, y: 2 * Math.floor(row / IN_A_ROW) },
      }
    }),
    devices: plan.devices.map((device, at) => ({ ...device, place: `p${Math.floor(at / 4)}` })),
  }
}

export type BookFigures = { runs: number; pages: number; seconds: number; judging: number; megabytes: number }

/** What a book costs: its pages, the seconds it takes beside those of judging the site it tells of, and the room it takes while it is drawn. */
export async function benchHandover(): Promise<BookFigures[]> {
  const figures: BookFigures[] = []
  for (const runs of [250, 500, 1000, 2000]) {
    const plan = building(runs)
    const begun = performance.now()
    const site = assessAnew(plan)
    const judged = performance.now()
    const handed = {
      id: 'bench',
      name: 'Bench',
      client: 'nobody',
      at: '2026-01-01T00:00:00.000Z',
      log: 'bench',
      place: 1,
    }
    const of = bookOf(site, handoverSchema.parse(handed))
    let pages = 0
    let most = 0
    await bookPdf({
      title: titleOf(of),
      blocks: blocksOf(of),
      size: paperSizes.a4,
      margin: PAGE_MARGIN,
      address: 'http://127.0.0.1:4310',
      imageOf: () => null,
      progress: (count) => {
        pages = count
        most = Math.max(most, process.memoryUsage().heapUsed)
      },
    })
    const seconds = (performance.now() - judged) / 1000
    figures.push({ runs, pages, seconds, judging: (judged - begun) / 1000, megabytes: most / 1e6 })
  }
  return figures
}
