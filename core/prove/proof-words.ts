import { readingText } from '../bench/grade-reading'
import { dayOf } from '../checks/wording'
import type { Tried } from '../observe/observation'
import { addressOf, leadCable, type SiteIndex, socketName } from '../plan/site-index'
import { formatLength, type Metres } from '../quantity/length'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { INSTALLED } from '../vocabulary/device'
import type { Rests } from '../vocabulary/rests'
import type { Run } from '../vocabulary/run'
import { figuresIn } from './bearing'
import type { RunProof } from './proof'
import { changeWords, type FactChange, isAsksFact } from './rests'
import type { TestResult } from './test-standing'
import { stateWords, testName } from './test-words'

/** What changed since a run was tested or accepted. */
export const staleChanges = ({ tests, outdated }: RunProof): readonly FactChange[] => [
  ...outdated,
  ...tests.flatMap(({ result, waived }) => (waived ? [] : (result?.stale ?? []))),
]

/** The same in a few words each. */
export const staleWords = (index: SiteIndex, run: Run, proof: RunProof): string[] =>
  changesSaid(index, run, staleChanges(proof))

/** Some changes in a few words each, none of them twice. */
export const changesSaid = (index: SiteIndex, run: Run, changes: readonly FactChange[]): string[] => [
  ...new Set(changes.map((change) => changeWords(index, run, change))),
]

/** What came of a test, by all its tries: what was read, or how often it failed where it comes and goes. */
export const cameSaid = ({ came, counted, reading }: TestResult): string =>
  came === 'comes and goes'
    ? `comes and goes, failed in ${counted.failed} of ${counted.held + counted.failed} tries`
    : readingText(reading as Tried)

/** The tests that whoever accepted a run did without, by name; a test that is not asked for any more by what told it from the others. */
export const waivedNames = (index: SiteIndex, run: Run, { accepted, tests }: RunProof): string[] =>
  (accepted?.waived ?? []).map((key) => {
    const found = tests.find(({ test }) => test.key === key)
    return found ? testName(index, found.test, run) : key
  })

/** What is said of an acceptance that did not note what it rests on. */
export const BEFORE_NOTED = 'from before Hallway noted what it rests on'

/** How an acceptance came about: "with less: only 1440p, without Picture 3840x2160@60"; empty where nothing was missing. */
export function lessWords(index: SiteIndex, run: Run, proof: RunProof): string {
  const { accepted } = proof
  if (!accepted?.less) return ''
  const waived = waivedNames(index, run, proof)
  return `with less: ${accepted.less}${waived.length > 0 ? ` (without ${waived.join('; ')})` : ''}`
}

/** How far a run has come, since when and by whom; an acceptance that is not sound any more is told with why. */
export function stateSaid(index: SiteIndex, run: Run, proof: RunProof): string {
  const { state, accepted, laid } = proof
  const { name } = stateWords[state]
  const why = staleWords(index, run, proof)
  if (!accepted) {
    const lay = laid && state !== 'planned' ? `${dayOf(laid.at)}${laid.by ? `, ${laid.by}` : ''}` : ''
    const since = lay && ` (${state === 'laid' ? lay : `laid ${lay}`})`
    return `${name}${since}${why.length > 0 ? `: ${why.join('; ')}` : ''}`
  }
  const by = accepted.by ? `, ${accepted.by}` : ''
  const less = accepted.less ? ', with less' : ''
  const given = `${dayOf(accepted.at)}${by}${less}${accepted.rests ? '' : `, ${BEFORE_NOTED}`}`
  if (state === 'accepted') return `${name} (${given})`
  return `Accepted ${given}; it does not stand any more: ${why.length > 0 ? why.join('; ') : `${stateWords[state].name.toLowerCase()} now`}`
}

/** What something that was proved rests on, as people read it: its ends, its leads, what was asked, and what was installed. */
export function restsWords(
  index: SiteIndex,
  run: Run,
  rests: Rests,
  length: (metres: Metres) => string = formatLength,
): string[] {
  const of = (fact: string): ReadonlyMap<string, string> => figuresIn(rests[fact] ?? '')
  const ends = [rests['host port'], rests['device port']].flatMap((key) =>
    key ? [socketName(index.devices, addressOf(key))] : [],
  )
  const leads = run.leads.flatMap((lead, at) => {
    const metres = Number(of(`lead ${at + 1}`).get('length'))
    return Number.isFinite(metres) ? [`${leadCable(index, lead).tag}, ${length(metres)}`] : []
  })
  const asked = Object.keys(rests).flatMap((fact) => (isAsksFact(fact) ? [askedSaid(of(fact))] : []))
  const installed = [
    ['host', run.from],
    ['device', run.to],
  ] as const
  const versions = installed.flatMap(([end, { device }]) => {
    const told = INSTALLED.flatMap((what) => {
      const version = of(end).get(what)
      return version ? [`${what} ${version}`] : []
    })
    return told.length > 0 ? [`${index.devices.get(device)?.name ?? device}: ${told.join(', ')}`] : []
  })
  return [...(ends.length === 2 ? [ends.join(' to ')] : []), ...leads, ...asked.filter(Boolean), ...versions]
}

/** What was asked, as its figures say it: "3840x2160@60", "400 MB/s". */
function askedSaid(figures: ReadonlyMap<string, string>): string {
  const [width, height, refresh] = ['width', 'height', 'refresh'].map((name) => figures.get(name))
  if (width) return `${width}x${height}@${refresh}`
  const [rate, power] = ['rate', 'power'].map((name) => Number(figures.get(name) ?? 0)) as [number, number]
  return [rate > 0 ? formatRate(rate) : '', power > 0 ? formatWatts(power) : ''].filter(Boolean).join(' and ')
}
