import { moveSpot } from '../../core/change/changes/floors'
import { assessInSlices } from '../../core/checks/assess'
import { type PolicyEffect, policyEffects } from '../../core/checks/policy-effect'
import { reassess, reassessInSlices } from '../../core/checks/reassess'
import { type RouteEffect, routeEffects } from '../../core/checks/route-effect'
import type { ToldByOthers } from '../../core/link/outcomes'
import { proposeKind } from '../../core/match/kind-proposal'
import { type LeadProposal, proposeLeads } from '../../core/match/lead-proposal'
import { rankRun } from '../../core/match/rank-all'
import { choicesOf, type WantingRun, wantingRuns } from '../../core/order/choices'
import { runsOnOrder } from '../../core/order/follow'
import { type Store, withStores } from '../../core/order/store'
import { byId } from '../../core/plan/lookup'
import { type WayForRun, wayForEach } from '../../core/remedy/each'
import { findWaysOut, type WaysOut } from '../../core/remedy/search'
import { type GrowthAnswer, grown, judgeUpgrade } from '../../core/variants/upgrades'
import type { Spot } from '../../core/vocabulary/floor'
import type { Policy } from '../../core/vocabulary/policy'
import type { InSlices } from '../../core/work/in-slices'
import { inSlices } from '../in-slices'
import { followSite, openCopy } from '../open-copy'
import { planWith, type RunAsTyped } from '../routes/run/draft-plan'
import { type CopyName, keptView, type SiteView } from '../site-copy'

/** What can be asked of a site beside the page, and what is answered. A new question is a line here and one in `work`. */
type Questions = {
  /** Ids of cables for a run as it stands, or as somebody types it, best first, and how many there are. */
  rank: { question: { run: string | RunAsTyped; most: number }; answer: { best: string[]; count: number } }
  /** What would make a run clear. */
  ways: { question: { run: string }; answer: WaysOut }
  /** One way out for each of many runs. */
  waysOfAll: { question: { runs: readonly string[] }; answer: WayForRun[] }
  /** What each of the upgrades kept with the site would break, and what it would cost. */
  growth: { question: { upgrades: readonly string[] }; answer: GrowthAnswer[] }
  /** What other choices of what the site goes by would change. */
  policies: { question: { choices: readonly Partial<Policy>[] }; answer: PolicyEffect[] }
  /** What moving a spot of a floor would do to the runs that follow the pathways. */
  moved: { question: { from: Spot; to: Spot }; answer: RouteEffect[] }
  /** The best from the drawer for many runs. */
  leads: { question: { runs: readonly string[] }; answer: LeadProposal }
  /** What could serve each run that wants a lead, as the site is or as one of its upgrades would make it. */
  choices: {
    question: { upgrade: string | null; stores: readonly Store[]; told: readonly ToldByOthers[] }
    answer: WantingRun[]
  }
  /** One kind of the catalogue for many runs. */
  kind: { question: { runs: readonly string[]; kind: string }; answer: LeadProposal }
}
export type Ask = keyof Questions
export type QuestionOf<A extends Ask> = Questions[A]['question']
export type AnswerOf<A extends Ask> = Questions[A]['answer']

type Told = (done: number) => void
const work: { [A in Ask]: (view: SiteView, question: QuestionOf<A>, tell: Told) => InSlices<AnswerOf<A>> } = {
  *rank({ copy, assessed }, { run, most }) {
    const drafted = typeof run !== 'string'
    const { index, walks } = drafted ? reassess(assessed, planWith(copy.plan, run)) : assessed
    const id = drafted ? run.run.id : run
    const ranked = index.runs.get(id)
    if (!ranked) return { best: [], count: 0 }
    const cables = rankRun(index, ranked, walks.crossings.get(id) ?? [])
    return { best: cables.slice(0, most).map((cable) => cable.id), count: cables.length }
  },
  ways: ({ copy, assessed }, { run }) => findWaysOut(assessed, run, copy.place),
  waysOfAll: ({ copy, assessed }, { runs }, tell) => wayForEach(assessed, runs, copy.place, tell),
  *growth({ copy, assessed }, { upgrades }, tell) {
    const answers: GrowthAnswer[] = []
    for (const [at, id] of upgrades.entries()) {
      tell(at)
      const upgrade = byId(copy.plan.upgrades).get(id)
      if (upgrade) answers.push(yield* judgeUpgrade(assessed, upgrade))
    }
    return answers
  },
  policies: ({ assessed }, { choices }, tell) => policyEffects(assessed, choices, tell),
  *moved({ copy, assessed }, { from, to }) {
    yield
    return routeEffects(assessed, moveSpot(copy.plan, copy.place, from, to).edits)
  },
  leads: ({ copy, assessed }, { runs }, tell) => proposeLeads(assessed, runs, copy.place, tell),
  *choices({ copy, assessed }, { upgrade: id, stores, told }, tell) {
    const upgrade = id === null ? undefined : byId(copy.plan.upgrades).get(id)
    const own = upgrade ? yield* assessInSlices(grown(copy.plan, upgrade)) : assessed
    const site = yield* reassessInSlices(own, withStores(own.index.plan, stores))
    const ordered = runsOnOrder(copy.plan)
    const wanting = wantingRuns(site).filter((run) => !ordered.has(run))
    return yield* choicesOf(site, wanting, copy.place, told, tell)
  },
  kind: ({ copy, assessed }, question, tell) => proposeKind(assessed, question, copy.place, tell),
}

export type Question<A extends Ask = Ask> = {
  number: number
  site: string
  shown: CopyName
  ask: A
  question: QuestionOf<A>
}
/** A question nobody waits for any more. */
export type Forget = { number: number; forget: true }
/** An answer; null where it could not be worked out. Until then, now and then, how far it is. */
export type Telling = { number: number; done: number } | { number: number; answer: AnswerOf<Ask> | null }

const forgotten = new Set<number>()
const TELL_EVERY_MS = 200

/** Works for the pages beside them. It holds a copy of the site as they do, and follows it as they do, so that a question is small. */
addEventListener('message', ({ data }: MessageEvent<Question | Forget>) => {
  if ('forget' in data) forgotten.add(data.number)
  else
    answerTo(data)
      .catch(() => null)
      .then((answer) => {
        if (!forgotten.delete(data.number)) postMessage({ number: data.number, answer } satisfies Telling)
      })
})

async function answerTo<A extends Ask>({ number, site, shown, ask, question }: Question<A>): Promise<AnswerOf<A>> {
  const view = await viewAt(site, shown)
  let last = performance.now()
  const tell = (done: number) => {
    const now = performance.now()
    if (now - last < TELL_EVERY_MS) return
    last = now
    postMessage({ number, done } satisfies Telling)
  }
  return inSlices(whileAsked(number, work[ask](view, question, tell)))
}

/** Work that ends where nobody waits for it. */
function* whileAsked<T>(number: number, steps: InSlices<T>): InSlices<T> {
  for (;;) {
    if (forgotten.has(number)) throw new Error('nobody waits for this')
    const { done, value } = steps.next()
    if (done) return value
    yield
  }
}

/** The copy a page shows, or a later one: what the page has heard since is heard here as well. */
async function viewAt(site: string, shown: CopyName): Promise<SiteView> {
  const kept = keptView(site, shown.identity, shown.place)
  if (kept) return kept
  const followed = await followSite(site)
  if (followed?.view.identity === shown.identity && followed.view.copy.place >= shown.place) return followed.view
  return openCopy(site, shown)
}
