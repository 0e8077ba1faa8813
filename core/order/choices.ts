import type { Edit, LogPosition } from '../change/change'
import { type Assessed, assessRun, type RunVerdict } from '../checks/assess'
import type { Verdict } from '../checks/finding'
import type { Crossing } from '../checks/situation'
import { captiveLength } from '../link/captive'
import type { Estimate } from '../link/estimate'
import { knownOf } from '../link/lay'
import type { ToldByOthers } from '../link/outcomes'
import { likelyOnRun, recordRank } from '../match/offers'
import { plugsInto } from '../match/rank'
import { freeCables } from '../match/rank-all'
import { byId } from '../plan/lookup'
import { priceAt, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import type { MoveWords } from '../remedy/move'
import { findWaysOut } from '../remedy/search'
import type { CableKind } from '../vocabulary/cable'
import { laidCables, leadKey, type Run, type RunLead } from '../vocabulary/run'
import type { InSlices } from '../work/in-slices'
import { manyBy } from '../work/index-by'
import { type Article, articleKey, articlesOf, missingParts } from './articles'

/** Why a choice may turn out other than it is planned. */
export const RISKS = [
  'no record',
  'bad record',
  'no returns',
  'returns not known',
  'not for this socket',
  'stiff in the hand',
  'parts without a price',
] as const
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
  /** How likely its lead is to hold here, and how much of that rests on what is thought of one that nobody tried. */
  likely?: Pick<Estimate, 'odds' | 'open'>
  /** What is set up beside the leads: extender ends, a hub, a charger, with the runs to them. */
  setUp?: { words: readonly MoveWords[]; price: number; edits: readonly Edit[] }
}

/** A run that wants something, and what could serve it. */
export type WantingRun = { run: string; tag: string; now: Verdict; choices: readonly Choice[] }

/** Of the drawer so many leads are looked at for a run: the best, and enough that another run may take one. */
const MOST_FREE = 12

/** Runs that want a lead, a better one, or both: those with nothing in them and those that are not clear. What is accepted as it lies is left alone. In the order of the plan. */
export const wantingRuns = ({ index, assessment }: Pick<Assessed, 'index' | 'assessment'>): string[] =>
  assessment.runs.flatMap(({ id, grade }) => {
    const run = index.runs.get(id)
    const toBuy = run?.leads.some((lead) => 'kind' in lead)
    return run && !run.waits && (grade !== 'clear' || run.leads.length === 0 || toBuy) ? [id] : []
  })

/**
 * What could serve each of some runs, each judged by the one evaluator of Match as if it lay there: the run as it is where that does the job, the free leads of
 * the drawer, every kind at every length that spans the route, and ways out where no single lead is clear. What is blocked is left out. `told` is what other
 * sites counted of kinds: it ranks and prices.
 */
export function* choicesOf(
  site: Assessed,
  runs: readonly string[],
  base: LogPosition,
  told: readonly ToldByOthers[] = [],
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
      ...fromShops(index, run, crossings, told),
    ]
    if (!found.some(({ grade }) => grade === 'clear')) found.push(...(yield* waysOut(site, run, base)))
    const choices = found.map((each) => ({ ...each, id: choiceId(id, each), run: id }))
    wanting.push({ run: id, tag: run.tag, now: verdict.grade, choices })
  }
  return wanting
}

type Found = Omit<Choice, 'id' | 'run'>

const choiceId = (run: string, { leads, setUp }: Found): string =>
  `${run}/${[...leads.map(leadKey), ...(setUp?.words ?? []).map(({ code }) => code.replaceAll(' ', '-'))].join('+')}`

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
    return cable !== undefined && knownOf(index, cable).links.length === 0
  })
  return untried ? ['no record'] : []
}

function fromShops(index: SiteIndex, run: Run, crossings: readonly Crossing[], told: readonly ToldByOthers[]): Found[] {
  const route = run.route.length - captiveLength(index, run)
  const from = socketAt(index, run.from)
  const to = socketAt(index, run.to)
  const found: Found[] = []
  for (const [kindId, articles] of articlesOfKind(index)) {
    const kind = index.kinds.get(kindId)
    if (!kind || !plugsInto(kind, from.port, to.port)) continue
    for (const article of articles) {
      const { length } = article
      if (!atLeast(length, route)) continue
      const leads = [{ kind: kindId, length, reversed: false }]
      const { grade } = assessRun(index, { ...run, leads }, crossings)
      if (grade === 'blocked') continue
      const likely = likelyOnRun(index, run, kind, length, told)
      const rank = recordRank(index, kind, likely)
      found.push({
        leads,
        grade,
        cables: [],
        articles: [article.key],
        ...(likely ? { likely: { odds: likely.odds, open: likely.open } } : {}),
        risks: [
          ...(rank === 2 ? (['bad record'] as const) : rank === 1 ? (['no record'] as const) : []),
          ...termsOf(article, [from, to]),
          ...inTheHand(kind, [from, to]),
          ...partsOf(article),
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

/** Whether it can go back, by the best of its sources: some take nothing back from certain sockets. */
function termsOf({ sources }: Article, ends: readonly Socket[]): Risk[] {
  const days = sources.map(({ returnDays }) => returnDays)
  if (!days.some((each) => each !== null && each > 0))
    return days.some((each) => each === null) ? ['returns not known'] : ['no returns']
  const sites = ends.flatMap(({ port }) => port.sits ?? [])
  const taken = sources.some(
    ({ returnDays, excludes }) =>
      returnDays !== null && returnDays > 0 && !sites.some((site) => excludes.includes(site)),
  )
  return taken ? [] : ['not for this socket']
}

/** A stiff lead loads the socket of what hangs on a head or stands on a lap; a plug at a right angle or a strap takes that off it. */
function inTheHand({ hand }: CableKind, ends: readonly Socket[]): Risk[] {
  const hangs = ends.some(({ device }) => device.kind === 'headset' || (device.kind === 'computer' && device.battery))
  return hangs && hand?.feel === 'stiff' && !hand.angled && !hand.strap ? ['stiff in the hand'] : []
}

/** What it needs beside it costs something, and nobody said how much. */
const partsOf = ({ kind }: Article): Risk[] =>
  missingParts(kind).length > 0 && kind.wantsPrice === undefined ? ['parts without a price'] : []

/** Ways out that buy or set up something and leave everything else where it is. What moves equipment or asks for less is for people to weigh. */
const SET_UP: ReadonlySet<MoveWords['code']> = new Set([
  'drawer lead',
  'bought lead',
  'extension',
  'feed adapter',
  'extender pair',
  'second dock',
  'hub instead',
  'power lead',
  'larger charger',
  'powered hub',
  'other charger',
])

/**
 * The ways out of a run that no single lead makes clear: an extension before a lead, a feed adapter, an extender pair, a hub, a charger. What nobody knows the
 * price of is left out, and so is what makes another run worse or changes one that is there.
 */
function* waysOut(site: Assessed, run: Run, base: LogPosition): InSlices<Found[]> {
  const { ways } = yield* findWaysOut(site, run.id, base)
  const articles = articlesOf(site.index)
  const ends = [socketAt(site.index, run.from), socketAt(site.index, run.to)]
  return ways.flatMap(({ moves, edits, price, after, worse }): Found[] => {
    if (after === 'blocked' || price === null || worse.length > 0 || !moves.every(({ code }) => SET_UP.has(code)))
      return []
    const others = edits.filter(({ list, id }) => list !== 'runs' || id !== run.id)
    if (
      others.some(
        ({ list, base: from, value }) => value === null || list === 'kinds' || (list === 'runs' && from !== null),
      )
    )
      return []
    const laid = edits.flatMap(({ list, value }) => (list === 'runs' && value ? [value as Run] : []))
    const leads = (laid.find(({ id }) => id === run.id) ?? run).leads
    // a single lead was tried as such
    if (others.length === 0 && leads.length < 2) return []
    const wanted = laid.flatMap((each) => each.leads).flatMap((lead) => ('kind' in lead ? [lead] : []))
    const bought = wanted.flatMap((lead) => articles.get(articleKey(lead.kind, lead.length)) ?? [])
    if (bought.length < wanted.length) return []
    const goods = bought.reduce((sum, { kind, length }) => sum + (priceAt(kind, length) ?? 0), 0)
    const all = laid.length > 0 ? laid : [run]
    return [
      {
        leads,
        grade: after,
        cables: all.flatMap(laidCables),
        articles: bought.map(({ key }) => key),
        risks: [
          ...new Set([
            ...all.flatMap((each) => risksOfCables(site.index, each)),
            ...bought.flatMap((article) => [...termsOf(article, ends), ...partsOf(article)]),
          ]),
        ],
        ...(others.length === 0 ? {} : { setUp: { words: moves, price: Math.max(0, price - goods), edits } }),
      },
    ]
  })
}
