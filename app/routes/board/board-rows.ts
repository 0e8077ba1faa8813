import { leadTag } from '../../../core/change/differences'
import type { RunVerdict } from '../../../core/checks/assess'
import { GRADES, narrowestOf, type Squeeze, type Verdict } from '../../../core/checks/finding'
import type { SiteIndex } from '../../../core/plan/site-index'
import { NEED_KINDS, type NeedKind } from '../../../core/vocabulary/need'
import type { Run } from '../../../core/vocabulary/run'
import { keptWith } from '../../../core/work/kept'
import type { OpenSite } from '../../ui/site-context'

/** How the board is asked for, as its address says it. */
export type BoardLook = {
  query: string
  grade: Verdict | null
  flow: NeedKind | null
  by: Grouping
  sort: Sorting
}
export const GROUPINGS = ['none', 'place', 'device', 'dock'] as const
export type Grouping = (typeof GROUPINGS)[number]
export const SORTINGS = ['worst', 'list', 'margin', 'length'] as const
export type Sorting = (typeof SORTINGS)[number]

export const groupingWords: Record<Grouping, string> = {
  none: 'one list',
  place: 'by place',
  device: 'by device',
  dock: 'by dock',
}
export const sortingWords: Record<Sorting, string> = {
  list: 'in the order of the list',
  worst: 'worst first',
  margin: 'least to spare first',
  length: 'longest first',
}

export function lookOf(params: URLSearchParams): BoardLook {
  const one = <T extends string>(name: string, known: readonly T[]): T | null =>
    known.find((each) => each === params.get(name)) ?? null
  return {
    query: (params.get('q') ?? '').trim().toLowerCase(),
    grade: one(
      'grade',
      GRADES.filter((grade): grade is Verdict => grade !== 'note'),
    ),
    flow: one('flow', NEED_KINDS),
    by: one('by', GROUPINGS) ?? 'none',
    sort: one('sort', SORTINGS) ?? 'worst',
  }
}

export type RunRow = {
  kind: 'run'
  run: Run
  verdict: RunVerdict
  squeeze: Squeeze | null
}
export type GroupRow = { kind: 'group'; id: string; name: string; dock: string | null; count: number; waiting: number }
export type BoardRow = RunRow | GroupRow

/** What is looked for in a run: its tag and name, its devices and places, its leads. Worked out once a run. */
const written = keptWith((_: OpenSite['assessment']['runs']) => new Map<RunVerdict, string>())

const squeezeOf = keptWith(({ findings }: RunVerdict) => narrowestOf(findings))

/** The runs that are asked for, in the order and the groups that are asked for. */
export function boardRows(
  { plan, index, assessment }: Pick<OpenSite, 'plan' | 'index' | 'assessment'>,
  look: BoardLook,
): BoardRow[] {
  const words = written(assessment.runs)
  const rows: RunRow[] = []
  for (const [at, run] of plan.runs.entries()) {
    const verdict = assessment.runs[at]
    if (!verdict || (look.grade && verdict.grade !== look.grade)) continue
    if (look.flow && !verdict.flows.some(({ kind }) => kind === look.flow)) continue
    if (look.query !== '') {
      const found = words.get(verdict) ?? wordsOf(index, run)
      words.set(verdict, found)
      if (!found.includes(look.query)) continue
    }
    rows.push({ kind: 'run', run, verdict, squeeze: squeezeOf(verdict) })
  }
  const order = orders[look.sort]
  if (order) rows.sort(order)
  return look.by === 'none' ? rows : grouped(index, rows, look.by)
}

/** What is to spare, as a share of what is asked; what asks nothing measured has the most. */
const spareOf = ({ squeeze }: RunRow): number => (squeeze ? squeeze.have / squeeze.need : Number.MAX_VALUE)

const orders: Record<Sorting, ((one: RunRow, other: RunRow) => number) | null> = {
  list: null,
  worst: (one, other) =>
    GRADES.indexOf(one.verdict.grade) - GRADES.indexOf(other.verdict.grade) || spareOf(one) - spareOf(other),
  margin: (one, other) => spareOf(one) - spareOf(other),
  length: (one, other) => other.run.route.length - one.run.route.length,
}

function grouped(index: SiteIndex, rows: readonly RunRow[], by: Exclude<Grouping, 'none'>): BoardRow[] {
  const groups = new Map<string, RunRow[]>()
  for (const row of rows) {
    const id = groupOf(index, row.run, by)
    const list = groups.get(id)
    if (list) list.push(row)
    else groups.set(id, [row])
  }
  return [...groups].flatMap(([id, own]): BoardRow[] => [
    {
      kind: 'group',
      id: `group ${id}`,
      name: nameOf(index, id, by),
      dock: by === 'dock' && id !== '' ? id : null,
      count: own.length,
      waiting: own.filter(({ verdict }) => verdict.grade !== 'clear').length,
    },
    ...own,
  ])
}

/** The group of a run: where its host end stands, its host device, or the dock or hub at either end. */
function groupOf({ devices }: SiteIndex, { from, to }: Run, by: Exclude<Grouping, 'none'>): string {
  if (by === 'device') return from.device
  if (by === 'place') return devices.get(from.device)?.place ?? ''
  const dock = [to.device, from.device].find((id) => ['dock', 'hub'].includes(devices.get(id)?.kind ?? ''))
  return dock ?? ''
}

function nameOf({ devices, places }: SiteIndex, id: string, by: Exclude<Grouping, 'none'>): string {
  if (by === 'place') return places.get(id)?.name ?? 'No place yet'
  return devices.get(id)?.name ?? 'Not behind a dock'
}

function wordsOf({ devices, places, plan }: SiteIndex, run: Run): string {
  const ends = [run.from.device, run.to.device].flatMap((id) => devices.get(id) ?? [])
  const names = ends.flatMap(({ name, place }) => [name, places.get(place ?? '')?.name ?? ''])
  const tags = run.leads.map((lead) => leadTag(plan, lead))
  return [run.tag, run.name ?? '', ...names, ...tags].join(' ').toLowerCase()
}
