import { calledIn, differences, leadTag } from '../change/differences'
import { same } from '../change/merge'
import type { Assessed } from '../checks/assess'
import { dayOf } from '../checks/wording'
import { observationText } from '../observe/observation'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { proofsOf, type RunProof } from '../prove/proof'
import type { Run } from '../vocabulary/run'

/** One thing that changed: what it is called, what became of it, and the page of the site where it is, if it is still there. */
export type SinceLine = { id: string; name: string; what: string; page: string | null }

export const SINCE_NAMES = [
  'laid',
  'moved',
  'replaced',
  'changed',
  'removed',
  'proved again',
  'stale',
  'retired',
  'leads',
  'devices',
  'needs',
  'withdrawn',
] as const
export type SinceName = (typeof SINCE_NAMES)[number]

export const sinceTitles: Readonly<Record<SinceName, { title: string; says: string }>> = {
  laid: { title: 'New runs', says: 'Runs that were not there when it was handed over.' },
  moved: { title: 'Runs that go another way', says: 'Other ends, or another route.' },
  replaced: { title: 'Leads replaced', says: 'Other leads lie in these runs.' },
  changed: { title: 'Runs changed otherwise', says: 'Their tags, names or notes.' },
  removed: { title: 'Runs removed', says: 'Runs in the book that this site does not have any more.' },
  'proved again': {
    title: 'Proved or accepted since',
    says: 'Use these results, not the ones in the book.',
  },
  stale: { title: 'Gone stale', says: 'They were proved; something changed since, and they are to be proved again.' },
  retired: { title: 'Leads retired', says: 'Do not use these any more.' },
  leads: { title: 'Leads new, gone or changed', says: 'In the drawer and in runs.' },
  devices: { title: 'Devices new, gone or changed', says: 'What they can do, where they stand, what is installed.' },
  needs: { title: 'What is asked of the site', says: 'Needs that are new, gone or changed.' },
  withdrawn: { title: 'Figures withdrawn', says: 'Do not use these figures of the book: somebody took them back.' },
}

export type Since = { name: SinceName; lines: readonly SinceLine[] }

/**
 * What has changed between a site as it was handed over and as it is now, in words: every run, lead, device and need that is new, gone or another is named, with
 * what was proved since, what went stale, and which figures were withdrawn. Nothing else is said.
 */
export function sinceHandover(before: Assessed, after: Assessed): Since[] {
  const lines = new Map<SinceName, SinceLine[]>(SINCE_NAMES.map((name) => [name, []]))
  const say = (name: SinceName, line: SinceLine): void => void lines.get(name)?.push(line)
  const [was, is] = [before.index.plan, after.index.plan]
  runsBetween(was, is, say)
  proofsBetween(before, after, say)
  for (const list of ['cables', 'devices', 'needs'] as const) listBetween(was, is, list, say)
  for (const line of withdrawn(was, is)) say('withdrawn', line)
  return SINCE_NAMES.flatMap((name) => {
    const own = lines.get(name) ?? []
    return own.length > 0 ? [{ name, lines: own }] : []
  })
}

type Say = (name: SinceName, line: SinceLine) => void

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
    if (!same(old.leads, run.leads)) say('replaced', line(`${leadsWords(was, old)}, now ${leadsWords(is, run)}`))
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

/** When a run was last found as its tests ask: accepted, or the latest test that passed. */
function provedAt({ state, accepted, tests }: RunProof): string | null {
  if (state !== 'proved' && state !== 'accepted') return null
  const passed = tests.flatMap(({ passed, result }) => (passed && result ? [result.at] : []))
  return [accepted?.at ?? '', ...passed].sort().at(-1) || null
}

function proofsBetween(before: Assessed, after: Assessed, say: Say): void {
  const [were, are] = [proofsOf(before), proofsOf(after)]
  for (const run of after.index.plan.runs) {
    const [old, now] = [were.get(run.id), are.get(run.id)]
    if (!now) continue
    const at = provedAt(now)
    const line = { id: run.id, name: run.tag, page: `prove/${run.id}` }
    if (at !== null && at > ((old && provedAt(old)) ?? '')) {
      const { accepted } = now
      const how = accepted ? `accepted${accepted.less ? ` with less: ${accepted.less}` : ''}` : 'every test passed'
      say('proved again', { ...line, what: `${how}, ${dayOf(at)}` })
    }
    const wasProved = old?.state === 'proved' || old?.state === 'accepted'
    if (now.state === 'stale' && wasProved) {
      const [stale] = now.tests.flatMap(({ result }) => result?.stale ?? [])
      say('stale', { ...line, what: stale ? `tested with ${stale.was}, now ${stale.is}` : 'to be proved again' })
    }
  }
}

/** Where each list is told, and the page of one of its things. */
const told = {
  cables: { name: 'leads', page: 'cables' },
  devices: { name: 'devices', page: 'survey' },
  needs: { name: 'needs', page: 'needs' },
} as const

function listBetween(was: Plan, is: Plan, list: keyof typeof told, say: Say): void {
  const { name, page } = told[list]
  const [were, are] = [byId<Told>(was[list]), byId<Told>(is[list])]
  const called = (plan: Plan, each: Told): string => calledIn(plan, list, each as never) ?? each.id
  for (const each of is[list] as readonly Told[]) {
    const old = were.get(each.id)
    if (old && same(old, each)) continue
    const retired = each.standing === 'retired' && old?.standing !== 'retired'
    const what = old ? differences(is, list, old as never, each as never).join('; ') || 'edited' : 'new'
    say(retired ? 'retired' : name, { id: each.id, name: called(is, each), what, page: `${page}/${each.id}` })
  }
  for (const each of was[list] as readonly Told[])
    if (!are.has(each.id)) say(name, { id: each.id, name: called(was, each), what: 'removed', page: null })
}
type Told = { id: string; standing?: string }

/** What counted when it was handed over and was taken back since. */
function* withdrawn(was: Plan, is: Plan): Iterable<SinceLine> {
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

/** The runs that stand out on a drawing: new, on another way, or with other leads. */
export const freshRuns = (since: readonly Since[]): ReadonlySet<string> =>
  new Set(
    since.flatMap(({ name, lines }) =>
      name === 'laid' || name === 'moved' || name === 'replaced' ? lines.map(({ id }) => id) : [],
    ),
  )

/** The same as a table, for spreadsheets. */
export const sinceTable = (since: readonly Since[]): string[][] => [
  ['what', 'name', 'change'],
  ...since.flatMap(({ name, lines }) => lines.map((line) => [sinceTitles[name].title, line.name, line.what])),
]
