import { policyNames } from '../change/changes/site'
import { leadTag } from '../change/differences'
import { same } from '../change/merge'
import { type Assessed, assessAnew, leadingFinding } from '../checks/assess'
import type { Finding } from '../checks/checks'
import type { Verdict } from '../checks/finding'
import { sentence } from '../checks/sentences'
import { turnedBetween } from '../checks/turned'
import { dayOf, gradeWords } from '../checks/wording'
import { learntOfCable } from '../observe/learned'
import { byId } from '../plan/lookup'
import { proofsOf, type RunProof } from '../prove/proof'
import { cameSaid, changesSaid, lessWords, staleChanges } from '../prove/proof-words'
import { stateWords, testName } from '../prove/test-words'
import { durationText } from '../quantity/duration'
import { formatLength } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { needLabel } from '../vocabulary/need'
import { type Policy, reliedOf } from '../vocabulary/policy'
import { answerOf, type PolicyQuestion, policyQuestions } from '../vocabulary/policy-choices'
import { leadKey, type Run } from '../vocabulary/run'
import { isOpen } from '../vocabulary/search'
import type { Say } from './since-sorts'

/** What a client would feel of what changed between two states of a site. */
export function felt(before: Assessed, after: Assessed, say: Say): void {
  verdicts(before, after, say)
  proofs(before, after, say)
  hotLeads(before, after, say)
  rules(before, after, say)
  const [was, is] = [before.index.plan, after.index.plan]
  const wereThere = byId(was.places)
  for (const { id, name, mains } of is.places)
    if (mains === false && wereThere.get(id)?.mains === true)
      say('mains', { id, name, what: 'no mains within reach now', page: 'walk' })
  const wereOpen = byId(was.pathways)
  for (const { id, name, closed } of is.pathways) {
    const old = wereOpen.get(id)
    if (closed && old && !old.closed) say('closed', { id, name, what: 'closed now', page: 'floors' })
  }
  turned(before, after, say)
  searches(before, after, say)
}

/** A run or need that is graded otherwise, or as it was for another reason. */
function verdicts({ assessment: was }: Assessed, { assessment: is, index }: Assessed, say: Say): void {
  const lists = [
    { were: byId<Judged>(was.runs), are: is.runs, name: (id: string) => index.runs.get(id)?.tag ?? id, page: 'runs' },
    {
      were: byId<Judged>(was.needs),
      are: is.needs,
      name(id: string) {
        const need = index.needs.get(id)
        return need ? needLabel(need, index.devices) : id
      },
      page: 'needs',
    },
  ]
  for (const { were, are, name, page } of lists)
    for (const verdict of are as readonly Judged[]) {
      const old = were.get(verdict.id)
      if (!old || old === verdict || same(judgedBy(old), judgedBy(verdict))) continue
      const grade =
        old.grade === verdict.grade
          ? `Still ${gradeWords[verdict.grade]}, for another reason`
          : `${gradeWords[verdict.grade]}, was ${gradeWords[old.grade]}`
      say('verdicts', {
        id: verdict.id,
        name: name(verdict.id),
        what: [grade, ...whyOf(verdict, old)].join('. '),
        page: `${page}/${verdict.id}`,
      })
    }
}
type Judged = { id: string; grade: Verdict; findings: readonly Finding[] }

/** What decides a verdict: what speaks against it. */
const judgedBy = ({ grade, findings }: Judged): string[] =>
  [
    grade,
    ...new Set(
      findings.flatMap(({ grade: each, check }) =>
        each === 'blocked' || each === 'tight' ? [`${each} ${check}`] : [],
      ),
    ),
  ].toSorted()

/** Why it is judged so now; of one that is clear now why it was not. */
function whyOf(verdict: Judged, old: Judged): string[] {
  if (verdict.grade === 'clear') {
    const leading = leadingFinding(old.findings)
    return leading ? [`What stood against it: ${sentence(leading)}`] : []
  }
  const known = new Set(old.findings.map(({ grade, check }) => `${grade} ${check}`))
  const fresh = verdict.findings.filter(
    ({ grade, check }) => (grade === 'blocked' || grade === 'tight') && !known.has(`${grade} ${check}`),
  )
  const leading = leadingFinding(fresh.length > 0 ? fresh : verdict.findings)
  return leading ? [sentence(leading)] : []
}

const keysOf = ({ tests }: RunProof, is: (test: RunProof['tests'][number]) => boolean): string[] =>
  tests.flatMap((each) => (is(each) ? [each.test.key] : []))
const failedKeys = (proof: RunProof): string[] => keysOf(proof, ({ failed, waived }) => failed && !waived)
const passedKeys = (proof: RunProof): string[] => keysOf(proof, ({ passed }) => passed)

/** When a run was last found as its tests ask: accepted, or the latest test that passed. */
function provedAt({ state, accepted, tests }: RunProof): string {
  if (state !== 'proved' && state !== 'accepted') return ''
  const passed = tests.flatMap(({ passed, result }) => (passed && result ? [result.at] : []))
  return [accepted?.at ?? '', ...passed].sort().at(-1) ?? ''
}

/** A run whose proof is another: each is told where it belongs, and one that belongs nowhere else by how far it has come. */
function proofs(before: Assessed, after: Assessed, say: Say): void {
  const [were, are] = [proofsOf(before), proofsOf(after)]
  const known = before.index.runs
  for (const run of after.index.plan.runs) {
    const now = are.get(run.id)
    const old = were.get(run.id)
    if (!now || (old === undefined && now.state === 'planned')) continue
    const line = { id: run.id, name: run.tag, page: `prove/${run.id}` }
    const told = [
      ...newlyFailed(after, run, old, now).map((what) => ['failed', what] as const),
      ...newlyStale(after, run, old, now).map((what) => ['stale', what] as const),
      ...provedAgain(after, run, old, now).map((what) => ['proved again', what] as const),
    ]
    for (const [name, what] of told) say(name, { ...line, what })
    if (told.length > 0) continue
    const counts = `${now.passed} of ${now.asked} tests have passed`
    if (old?.state !== now.state) {
      const was = old && known.has(run.id) ? `, was ${stateWords[old.state].name.toLowerCase()}` : ''
      say('proofs', { ...line, what: `${stateWords[now.state].name}${was}; ${counts}` })
    } else if (!same(passedKeys(old), passedKeys(now)) || !same(failedKeys(old), failedKeys(now)))
      say('proofs', { ...line, what: `${counts}, ${old.passed} of ${old.asked} had` })
  }
}

function newlyFailed({ index }: Assessed, run: Run, old: RunProof | undefined, now: RunProof): string[] {
  const knew = new Set(old ? failedKeys(old) : [])
  return now.tests.flatMap(({ test, result, failed, waived }) => {
    if (!failed || waived || !result || knew.has(test.key)) return []
    const name = testName(index, test, run)
    return [`${name}: ${cameSaid(result)}, ${dayOf(result.at)}`]
  })
}

/** What makes it stale that did not: by what it is, as a new name is no change. */
function newlyStale({ index }: Assessed, run: Run, old: RunProof | undefined, now: RunProof): string[] {
  const knew = new Set((old ? staleChanges(old) : []).map((change) => JSON.stringify(change)))
  const fresh = staleChanges(now).filter((change) => !knew.has(JSON.stringify(change)))
  return fresh.length > 0 ? [changesSaid(index, run, fresh).join('; ')] : []
}

function provedAgain({ index }: Assessed, run: Run, old: RunProof | undefined, now: RunProof): string[] {
  const at = provedAt(now)
  if (at === '' || at <= (old ? provedAt(old) : '')) return []
  const { accepted } = now
  const how = accepted ? ['accepted', lessWords(index, run, now)].filter(Boolean).join(' ') : 'every test passed'
  return [`${how}, ${dayOf(at)}`]
}

function hotLeads(before: Assessed, { index }: Assessed, say: Say): void {
  for (const { id, tag } of index.plan.cables) {
    const [was, is] = [before.index, index].map(({ learned }) => learntOfCable(learned, id)?.hot?.at)
    if (is !== undefined && is !== was)
      say('hot', { id, name: tag, what: `got hot, ${dayOf(is)}`, page: `cables/${id}` })
  }
}

/** The rules that are others, and last which verdicts of the site as it was handed over they change by themselves. */
function rules(before: Assessed, after: Assessed, say: Say): void {
  const [was, is] = [before.index.plan.policy, after.index.plan.policy]
  const changed = (Object.keys(policyNames) as (keyof Policy)[]).filter(
    (field) => !same(ruleOf(was, field), ruleOf(is, field)),
  )
  if (changed.length === 0) return
  const line = (id: string, name: string, what: string) => say('rules', { id, name, what, page: 'policy' })
  for (const field of changed) line(field, policyNames[field], answerSaid(is, field))
  const { assessment } = assessAnew({ ...before.index.plan, policy: is })
  const turned = turnedBetween(before.assessment, assessment, before.index)
  if (turned.length === 0) return
  const counts = (['blocked', 'tight', 'clear'] as const).flatMap((grade) => {
    const names = turned.flatMap(({ to, label }) => (to === grade ? [label] : []))
    return names.length > 0
      ? [
          `${names.length} ${gradeWords[grade]} (${names.slice(0, MOST_NAMED).join(', ')}${names.length > MOST_NAMED ? ' and others' : ''})`,
        ]
      : []
  })
  line('verdicts', 'verdicts changed by the rules alone', `now ${counts.join(', ')}`)
}
const MOST_NAMED = 12

/** What a site goes by; where nothing is said, what that means. */
function ruleOf(policy: Policy, field: keyof Policy): unknown {
  if (field in policyQuestions) return answerOf(policy, field as PolicyQuestion)
  return field === 'reliedFrom' ? reliedOf(policy) : (policy[field] ?? null)
}

const percent = (share: number): string => `${decimal(share * 100, 1)} %`
const ruleUnits: Partial<Record<keyof Policy, (figure: number) => string>> = {
  slack: percent,
  headroom: percent,
  chargeAtLeast: percent,
  loop: (length) => formatLength(length),
  reliedFrom: durationText,
}

function answerSaid(policy: Policy, field: keyof Policy): string {
  const rule = ruleOf(policy, field)
  if (field in policyQuestions)
    return policyQuestions[field as PolicyQuestion].options.find(({ value }) => value === rule)?.goes ?? String(rule)
  if (typeof rule === 'number') return `now ${(ruleUnits[field] ?? String)(rule)}`
  return typeof rule === 'string' ? `now ${rule}` : 'other figures than before'
}

/** The same lead, the other way round. */
function turned(before: Assessed, { index }: Assessed, say: Say): void {
  for (const run of index.plan.runs) {
    const old = before.index.runs.get(run.id)
    for (const [at, lead] of run.leads.entries()) {
      const was = old?.leads[at]
      if (!was || leadKey(was) !== leadKey(lead) || was.reversed === lead.reversed) continue
      say('turned', {
        id: run.id,
        name: run.tag,
        what: `${leadTag(index.plan, lead)} was turned round`,
        page: `runs/${run.id}`,
      })
    }
  }
}

function searches(before: Assessed, { index }: Assessed, say: Say): void {
  const were = byId(before.index.plan.searches)
  const named = (run: string): string => index.runs.get(run)?.tag ?? before.index.runs.get(run)?.tag ?? run
  for (const search of index.plan.searches) {
    const old = were.get(search.id)
    if (same(old ?? null, search)) continue
    const { id, run, since, ended } = search
    const what = ended
      ? `search ended ${dayOf(ended.at)}: ${ended.words ?? ended.how}`
      : old && !isOpen(old)
        ? 'searched again'
        : old
          ? 'still searched'
          : `searched since ${dayOf(since)}`
    say('searches', { id, name: named(run), what, page: `faults/${id}` })
  }
  const are = byId(index.plan.searches)
  for (const { id, run } of before.index.plan.searches)
    if (!are.has(id)) say('searches', { id, name: named(run), what: 'the search was removed', page: null })
}
