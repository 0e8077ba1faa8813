import type { LogPosition } from '../change/change'
import { type Assessed, assessRun, type RunVerdict } from '../checks/assess'
import type { Verdict } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { captiveLength } from '../link/captive'
import { knownOf } from '../link/lay'
import { recordRank } from '../match/offers'
import { plugsInto } from '../match/rank'
import { freeCables } from '../match/rank-all'
import { byId } from '../plan/lookup'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import { findWaysOut } from '../remedy/search'
import { laidCables, leadKey, type Run, type RunLead } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import { manyBy } from '../work/index-by'
import { type Article, articleKey, articlesOf } from './articles'

/** Why a choice may turn out other than it is planned. */
export const RISKS = ['no record', 'bad record', 'no returns', 'returns not known'] as const
export type Risk = (typeof RISKS)[number]

/** One way to serve one run: leads of the drawer, leads to buy, or both in series. */
export type Choice = {
  /** The run and what would lie in it: `r-07/c-0021`. It stays the same however the choices of the run change. */
  id: string
  run: string
  leads: readonly RunLead[]
  grade: Exclude<Verdict, 'blocked'>
  /** Cables of the drawer that it uses. */
  cables: readonly string[]
  /** Articles that it buys one of, each as often as it is needed. */
  articles: readonly string[]
  risks: readonly Risk[]
}

/** A run that wants something, and what could serve it. */
export type WantingRun = { run: string; tag: string; now: Verdict; choices: readonly Choice[] }

/** Of the drawer so many leads are looked at for a run: the best, and enough that another run may take one. */
const MOST_FREE = 12

/** Runs that want a lead, a better one, or both: those with nothing in them and those that are not clear. In the order of the plan. */
export const wantingRuns = ({ index, assessment }: Pick<Assessed, 'index' | 'assessment'>): string[] =>
  assessment.runs.flatMap(({ id, grade }) => {
    const run = index.runs.get(id)
    const toBuy = run?.leads.some((lead) => 'kind' in lead)
    return run && (grade !== 'clear' || run.leads.length === 0 || toBuy) ? [id] : []
  })

/**
 * What could serve each of some runs, each judged by the one evaluator of Match as if it lay there: the run as it is where that does the job, the free leads of
 * the drawer, every kind at every length that spans the route, and ways out where no single lead is clear. What is blocked is left out.
 */
export function* choicesOf(
  site: Assessed,
  runs: readonly string[],
  base: LogPosition,
  tell: (done: number) => void = () => {},
): InSlices<WantingRun[]> {
  const { index, walks, assessment } = site
  const now = byId(assessment.runs)
  const wanting: WantingRun[] = []
  for (const [at, id] of runs.entries()) {
    yield
    tell(at)
    const run = index.runs.get(id)
    const verdict = now.get(id)
    if (!run || !verdict) continue
    const crossings = walks.crossings.get(id) ?? []
    const found = [
      ...asItIs(index, run, verdict),
      ...fromDrawer(index, run, crossings),
      ...fromShops(index, run, crossings),
    ]
    if (!found.some(({ grade }) => grade === 'clear')) found.push(...(yield* waysOut(site, run, base)))
    const choices = found.map((each) => ({ ...each, id: `${id}/${each.leads.map(leadKey).join('+')}`, run: id }))
    wanting.push({ run: id, tag: run.tag, now: verdict.grade, choices })
  }
  return wanting
}

type Found = Omit<Choice, 'id' | 'run'>

/** The run as it lies, where nothing of it is yet to be bought and it does the job. */
function asItIs(index: SiteIndex, run: Run, { grade }: RunVerdict): Found[] {
  if (grade === 'blocked' || run.leads.some((lead) => 'kind' in lead)) return []
  return [{ ...NOTHING_BOUGHT, leads: run.leads, grade, cables: laidCables(run), risks: risksOfCables(index, run) }]
}

const NOTHING_BOUGHT = { articles: [] } as const

function fromDrawer(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Found[] {
  return freeCables(index, run, crossings, MOST_FREE).flatMap(({ cable, grade }): Found[] => {
    if (grade === 'blocked') return []
    const leads = [{ cable: cable.id, reversed: false }]
    return [{ ...NOTHING_BOUGHT, leads, grade, cables: [cable.id], risks: risksOfCables(index, { ...run, leads }) }]
  })
}

/** Cables of which nothing was ever tried are a risk, however good their marks. */
function risksOfCables(index: SiteIndex, { leads }: Run): Risk[] {
  const untried = leads.some((lead) => {
    const cable = 'cable' in lead ? index.cables.get(lead.cable) : undefined
    return cable !== undefined && knownOf(index, cable).trials.length === 0
  })
  return untried ? ['no record'] : []
}

function fromShops(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Found[] {
  const route = run.route.length - captiveLength(index, run)
  const from = socketAt(index, run.from).port
  const to = socketAt(index, run.to).port
  const found: Found[] = []
  for (const [kindId, articles] of articlesOfKind(index)) {
    const kind = index.kinds.get(kindId)
    if (!kind || !plugsInto(kind, from, to)) continue
    const record = recordRank(index, run, kind)
    for (const article of articles) {
      const { length } = article
      if (!atLeast(length, route)) continue
      const leads = [{ kind: kindId, length, reversed: false }]
      const { grade } = assessRun(index, { ...run, leads }, crossings)
      if (grade === 'blocked') continue
      found.push({
        leads,
        grade,
        cables: [],
        articles: [article.key],
        risks: [
          ...(record === 2 ? (['bad record'] as const) : record === 1 ? (['no record'] as const) : []),
          ...termsOf(article),
        ],
      })
    }
  }
  return found
}

/** What may be bought, by kind, each the shortest first. */
function articlesOfKind(index: SiteIndex): ReadonlyMap<string, readonly Article[]> {
  const all = [...articlesOf(index).values()].sort((one, other) => one.length - other.length)
  return byKind(all)
}
const byKind = manyBy(({ kind }: Article) => [kind.id])

/** Whether it can go back, by the best of its sources. */
function termsOf({ sources }: Article): Risk[] {
  const days = sources.map(({ returnDays }) => returnDays)
  if (days.some((each) => each !== null && each > 0)) return []
  return days.some((each) => each === null) ? ['returns not known'] : ['no returns']
}

/**
 * The ways out of a run that no single lead makes clear, where these are leads alone: an extension before a lead, a feed adapter. What moves equipment, asks for
 * less or changes other runs is for people to weigh, and so is what nobody knows the price of.
 */
function* waysOut(site: Assessed, run: Run, base: LogPosition): InSlices<Found[]> {
  const { ways } = yield* findWaysOut(site, run.id, base)
  const articles = articlesOf(site.index)
  return ways.flatMap(({ edits, price, after }): Found[] => {
    const [edit, ...others] = edits
    if (after === 'blocked' || price === null || others.length > 0 || edit?.list !== 'runs' || edit.id !== run.id)
      return []
    const { leads } = edit.value as Run
    if (leads.length < 2) return []
    const bought = leads.flatMap((lead) =>
      'kind' in lead ? (articles.get(articleKey(lead.kind, lead.length)) ?? []) : [],
    )
    return [
      {
        leads,
        grade: after,
        cables: laidCables({ leads: [...leads] }),
        articles: bought.map(({ key }) => key),
        risks: [...new Set([...risksOfCables(site.index, { ...run, leads }), ...bought.flatMap(termsOf)])],
      },
    ]
  })
}
