import type { Assessed } from '../checks/assess'
import { dayOf } from '../checks/wording'
import { proofsOf } from '../prove/proof'
import { formatLength, type Metres } from '../quantity/length'
import { judgeUpgrade } from '../variants/upgrades'
import type { BookUnits, Handover, Paper } from '../vocabulary/handover'
import { SECTIONS } from '../vocabulary/handover'
import { finished } from '../work/in-slices'
import type { Block, Title } from './block'
import type { Points } from './drawing'
import type { BookOf } from './section'
import { sections } from './sections'

/** Sheets in points: ISO 216 A4, and ANSI letter. */
export const paperSizes: Readonly<Record<Paper, { width: Points; height: Points }>> = {
  a4: { width: 595.28, height: 841.89 },
  letter: { width: 612, height: 792 },
}
export const PAGE_MARGIN: Points = 48

const lengthIn: Readonly<Record<BookUnits, (metres: Metres) => string>> = {
  m: (metres) => formatLength(metres, 'm'),
  ft: (metres) => formatLength(metres, 'ft'),
  both: (metres) => `${formatLength(metres, 'm')} (${formatLength(metres, 'ft')})`,
}
export const bookLength = (units: BookUnits): ((metres: Metres) => string) => lengthIn[units]

/** What a book is made from, worked out once for all of its parts. */
export function bookOf(site: Assessed, handover: Handover): BookOf {
  const { width, height } = paperSizes[handover.paper]
  const wanted = new Set(handover.sections)
  return {
    site,
    handover,
    proofs: proofsOf(site),
    grown: wanted.has('changes')
      ? site.index.plan.upgrades.map((upgrade) => finished(judgeUpgrade(site, upgrade)))
      : [],
    length: bookLength(handover.units),
    // a title, and a line or two under it, stand on the sheet as well
    room: { width: width - 2 * PAGE_MARGIN, height: height - 2 * PAGE_MARGIN - 90 },
  }
}

/** The book of a handover, a block at a time: its parts in the order in which people use them, however they were chosen. */
export function* blocksOf(of: BookOf): Iterable<Block> {
  for (const name of SECTIONS) {
    if (!of.handover.sections.includes(name)) continue
    const { title, blocks } = sections[name]
    yield { sort: 'section', id: name, text: title }
    yield* blocks(of)
  }
}

/** What stands on the first page. */
export function titleOf({ site, handover }: Pick<BookOf, 'site' | 'handover'>): Title {
  const { name, client, at, by, place, open } = handover
  const { plan } = site.index
  return {
    title: name,
    client,
    about: [
      `${plan.site.name}. Handed over on ${dayOf(at)}${by ? ` by ${by}` : ''}.`,
      `It stands for the plan after change ${place}. ${plan.runs.length} runs, ${plan.cables.length} leads, ${plan.devices.length} devices.`,
      ...(open.length > 0 ? ['Not settled when it was made:', ...open] : ['Nothing was left open.']),
    ],
  }
}
