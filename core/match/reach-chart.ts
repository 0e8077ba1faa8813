import type { Assessed } from '../checks/assess'
import { narrowestOf, type Verdict } from '../checks/finding'
import type { Metres } from '../quantity/length'
import type { BitsPerSecond } from '../quantity/rate'
import { CABLE_GRADES, type Construction } from '../standards/grades'
import { linkModeFacts } from '../standards/link-modes'
import { displayPortLane, hdmiLink } from '../standards/picture-links'
import { leadReach } from '../standards/reach'

/** How leads may be made, as the chart tells them apart. */
export const MAKES = ['passive', 'active', 'optical', 'category cable'] as const
export type Make = (typeof MAKES)[number]

/** What one construction covers: the furthest any lead of it carries each rate, a corner each, the longest first. */
export type Cover = { make: Make; corners: readonly { length: Metres; rate: BitsPerSecond }[] }

/** A run as a dot: how far it goes, and what is asked of it at most. */
export type ReachDot = { id: string; tag: string; length: Metres; rate: BitsPerSecond; grade: Verdict }

/** What each construction covers by the tables, data and pictures together. The same for every site. */
export function covers(): Cover[] {
  return MAKES.map((make) => {
    const rows: { length: Metres; rate: BitsPerSecond }[] = []
    for (const grade of CABLE_GRADES) {
      const category = grade.startsWith('cat') || grade === 'fibre'
      if (category !== (make === 'category cable')) continue
      const construction: Construction = make === 'category cable' ? 'passive' : make
      for (const shape of category ? (['other'] as const) : (['c-c', 'legacy', 'other'] as const)) {
        const { data, displayport, hdmi } = leadReach(grade, construction, shape)
        for (const { mode, reach } of data) rows.push({ length: reach, rate: linkModeFacts[mode].line })
        for (const { mode, reach } of displayport) rows.push({ length: reach, rate: displayPortLane[mode].payload * 4 })
        for (const { mode, reach } of hdmi) rows.push({ length: reach, rate: hdmiLink[mode].payload })
      }
    }
    const corners = rows
      .filter((row) => !rows.some((other) => beats(other, row)))
      .filter((row, at, all) => all.findIndex((each) => each.length === row.length && each.rate === row.rate) === at)
      .sort((one, other) => other.length - one.length)
    return { make, corners }
  })
}

const beats = (one: Cover['corners'][number], other: Cover['corners'][number]): boolean =>
  one.length >= other.length && one.rate >= other.rate && (one.length > other.length || one.rate > other.rate)

/** Every run of a site that is asked for a rate, as a dot. */
export function reachDots({ index, assessment }: Assessed): ReachDot[] {
  return index.plan.runs.flatMap((run, at): ReachDot[] => {
    const verdict = assessment.runs[at]
    if (!verdict) return []
    const rate = Math.max(0, ...verdict.flows.map((flow) => flow.rate ?? 0), neededOf(verdict.findings))
    return rate > 0 ? [{ id: run.id, tag: run.tag, length: run.route.length, rate, grade: verdict.grade }] : []
  })
}

function neededOf(findings: Parameters<typeof narrowestOf>[0]): BitsPerSecond {
  const squeeze = narrowestOf(findings)
  return squeeze?.unit === 'bit/s' ? squeeze.need : 0
}

/** Steps of a decade within which dots cannot be told apart on a chart of some hundred pixels a decade. */
const STEPS_A_DECADE = 60

/** Dots of one verdict that fall on one spot of the chart, as one: where the first of them falls. */
export function spotsOf(dots: readonly ReachDot[]): [ReachDot, ...ReachDot[]][] {
  const step = (value: number): number => Math.round(Math.log10(value) * STEPS_A_DECADE)
  const spots = new Map<string, [ReachDot, ...ReachDot[]]>()
  for (const dot of dots) {
    const key = `${dot.grade} ${step(dot.length)} ${step(dot.rate)}`
    const spot = spots.get(key)
    if (spot) spot.push(dot)
    else spots.set(key, [dot])
  }
  return [...spots.values()]
}
