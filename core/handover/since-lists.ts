import { calledIn, differences, isTold, leadTag } from '../change/differences'
import { same } from '../change/merge'
import { dayOf } from '../checks/wording'
import { observationText } from '../observe/observation'
import { byId } from '../plan/lookup'
import { PLAN_LISTS, type Plan, type PlanList } from '../plan/plan'
import { leadKey, type Run } from '../vocabulary/run'
import type { Say, SinceLine, SinceName } from './since-sorts'

/** Where what became of each list of a plan is told, and the page of one of its things; null of lists that are told otherwise, or are none of the client's. */
const told: { readonly [List in PlanList]: { name: SinceName; page(id: string): string } | null } = {
  floors: { name: 'floors', page: (id) => `floors/${id}` },
  places: { name: 'places', page: () => 'walk' },
  pathways: { name: 'pathways', page: () => 'floors' },
  devices: { name: 'devices', page: (id) => `survey/${id}` },
  kinds: { name: 'kinds', page: () => 'drawer/catalogue' },
  cables: { name: 'leads', page: (id) => `cables/${id}` },
  // by what became of each of them
  runs: null,
  needs: { name: 'needs', page: (id) => `needs/${id}` },
  upgrades: { name: 'upgrades', page: () => 'growth' },
  // who sells, and for how much
  suppliers: null,
  offers: null,
  orders: null,
  orderLines: null,
  // work that goes on: what comes of it is told of leads and runs
  sessions: null,
  soaks: null,
  // by what began and what ended
  searches: null,
  handovers: null,
  // by what is believed and proved now, and what was taken back
  observations: null,
}

/** All that is new, gone or another in the lists of two plans. */
export function listed(was: Plan, is: Plan, say: Say): void {
  runsBetween(was, is, say)
  for (const list of PLAN_LISTS) listBetween(was, is, list, say)
}

/** Runs whose way, leads or words are others; a run that changed in several ways is named in each. */
function runsBetween(was: Plan, is: Plan, say: Say): void {
  const were = byId(was.runs)
  for (const run of is.runs) {
    const line = (what: string): SinceLine => ({ id: run.id, name: run.tag, what, page: `runs/${run.id}` })
    const old = were.get(run.id)
    if (!old) {
      say('laid', line(`${endsWords(is, run)}, ${leadsWords(is, run)}`))
      continue
    }
    if (same(old, run)) continue
    const moved = differences(is, 'runs', { ...old, leads: run.leads, ...words(run) }, run)
    if (moved.length > 0) say('moved', line(moved.join('; ')))
    // the same leads the other way round are told as such
    if (!same(old.leads.map(leadKey), run.leads.map(leadKey)))
      say('replaced', line(`${leadsWords(was, old)}, now ${leadsWords(is, run)}`))
    const others = differences(is, 'runs', { ...run, ...words(old) }, run)
    if (others.length > 0) say('changed', line(others.join('; ')))
  }
  const are = byId(is.runs)
  for (const run of was.runs)
    if (!are.has(run.id))
      say('removed', { id: run.id, name: run.tag, what: `${endsWords(was, run)}, ${leadsWords(was, run)}`, page: null })
}

/** What of a run is only words. */
const words = ({ tag, name, note, waits }: Run): Pick<Run, 'tag' | 'name' | 'note' | 'waits'> => ({
  tag,
  name,
  note,
  waits,
})

const endsWords = ({ devices }: Plan, { from, to }: Run): string => {
  const name = (id: string): string => byId(devices).get(id)?.name ?? id
  return `${name(from.device)} to ${name(to.device)}`
}
const leadsWords = (plan: Plan, { leads }: Run): string =>
  leads.map((lead) => leadTag(plan, lead)).join(' + ') || 'no lead'

function listBetween(was: Plan, is: Plan, list: PlanList, say: Say): void {
  const where = told[list]
  if (where === null) return
  const { name, page } = where
  const [were, are] = [byId<Told>(was[list]), byId<Told>(is[list])]
  const called = (plan: Plan, each: Told): string =>
    (isTold(list) ? calledIn(plan, list, each as never) : each.name) ?? each.id
  for (const each of is[list] as readonly Told[]) {
    const old = were.get(each.id)
    if (old && same(old, each)) continue
    const retired = each.standing === 'retired' && old?.standing !== 'retired'
    const how = old && isTold(list) ? differences(is, list, old as never, each as never).join('; ') : ''
    const what = old ? how || 'changed' : 'new'
    say(retired ? 'retired' : name, { id: each.id, name: called(is, each), what, page: page(each.id) })
  }
  for (const each of was[list] as readonly Told[])
    if (!are.has(each.id)) say(name, { id: each.id, name: called(was, each), what: 'removed', page: null })
}
type Told = { id: string; name?: string; standing?: string }

/** What counted when it was handed over and was taken back since. */
export function* withdrawn(was: Plan, is: Plan): Iterable<SinceLine> {
  const known = byId(was.observations)
  for (const each of is.observations) {
    if (each.kind !== 'retraction' || known.has(each.id)) continue
    const seen = known.get(each.retracts)
    if (!seen) continue
    const { subject } = seen
    const name =
      'cable' in subject
        ? (byId(is.cables).get(subject.cable)?.tag ?? subject.cable)
        : 'run' in subject
          ? (byId(is.runs).get(subject.run)?.tag ?? subject.run)
          : 'device' in subject
            ? (byId(is.devices).get(subject.device)?.name ?? subject.device)
            : (byId(is.kinds).get(subject.kind)?.name ?? subject.kind)
    const page = 'cable' in subject ? `cables/${subject.cable}` : 'run' in subject ? `runs/${subject.run}` : null
    yield { id: seen.id, name, what: `${observationText(seen)}, ${dayOf(seen.at)}: ${each.reason}`, page }
  }
}
