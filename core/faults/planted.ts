import { type SimulatedLead, sampleAt } from '../bench/simulated-lead'
import type { Policy } from '../vocabulary/policy'
import { SYMPTOMS, type Symptom, type TryName } from '../vocabulary/search'
import { BY_CHANCE } from './cause'
import { type Cause, type CauseName, showsOf } from './causes'
import { symptomEvidence } from './evidence'
import { type Conclusion, conclude, nextTries, type Problem, priceOf, somethingElse } from './next-try'
import { type Evidence, outcomeLikelihood, posterior } from './odds'
import type { Attempt, Outcome } from './try'

/** Numbers from 0 up to 1, as chance gives them. */
export type Chance = () => number

/** A world in which a fault is planted: what it does there is not what the searcher thinks, within what people differ by. */
export type PlantedFault = {
  cause: number
  /** The symptoms that are seen. */
  symptoms: readonly Symptom[]
  /** What comes of a try, by its outcome's name. */
  play(attempt: Attempt): string
}

/** How the world differs from what the searcher believes. */
export type Difference = {
  /** How far odds lie from the searcher's own, as a standard deviation of their logarithm; 0: they are its own. */
  spread: number
  /** Which share of the answers is wrong. */
  wrong: number
}

/** Box and Muller: a number that lies around 0 as the normal law has it. */
const normal = (chance: Chance): number => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance())

/** A likelihood that lies elsewhere, and still between 0 and 1. */
function elsewhere(odds: number, spread: number, chance: Chance): number {
  if (spread === 0) return odds
  const held = Math.min(0.995, Math.max(0.005, odds))
  const shifted = Math.log(held / (1 - held)) + spread * normal(chance)
  return 1 / (1 + Math.exp(-shifted))
}

function pick(weights: readonly number[], chance: Chance): number {
  let left = chance() * weights.reduce((sum, weight) => sum + weight, 0)
  for (const [at, weight] of weights.entries()) {
    left -= weight
    if (left < 0) return at
  }
  return weights.length - 1
}

/** What a lead with such a fault does on the simulated bench. */
const SIMULATED: Partial<Record<CauseName, readonly SimulatedLead[]>> = {
  'worn lead': ['drops', 'falls back', 'charge-only'],
  'lesser lead': ['charge-only', 'falls back'],
  'short circuit': ['heats'],
}
/** What a sound lead would show there. */
const SOUND = { mode: 'usb4-40', write: null, read: null, watts: 90, voltsLost: null, picture: true } as const
/** A look takes place after so long. */
const LOOKED_AT = 100
const HOT_CELSIUS = 50

/** What a look at a simulated lead reads; null where that look is not at the lead. */
function readOff(name: TryName, lead: SimulatedLead, tag: string): string | null {
  const sample = sampleAt(LOOKED_AT, tag, lead, SOUND)
  if (name === 'read the link') return sample.mode === null ? 'none' : sample.mode === 'usb2' ? 'usb2' : 'planned'
  if (name === 'feel the plugs') return sample.celsius >= HOT_CELSIUS ? 'hot' : 'cool'
  return null
}

/** Plants one of the causes of a run, by odds that lie elsewhere than the searcher's. It shows one symptom at least. */
export function plant({ causes, priors }: Problem, { spread, wrong }: Difference, chance: Chance): PlantedFault {
  const cause = pick(
    priors.map((odds) => odds * Math.exp(spread * normal(chance))),
    chance,
  )
  const planted = causes[cause] as Cause
  const shows = SYMPTOMS.map((symptom) => elsewhere(showsOf(planted)[symptom] ?? BY_CHANCE, spread, chance))
  const first = pick(shows, chance)
  const symptoms = SYMPTOMS.filter((_, at) => at === first || chance() < (shows[at] ?? 0))
  const simulated = SIMULATED[planted.name]
  const lead = simulated?.[Math.floor(chance() * simulated.length)]
  return {
    cause,
    symptoms,
    play(attempt) {
      const { outcomes, name } = attempt
      const read = lead && readOff(name, lead, planted.part.id)
      const odds = outcomes.map((outcome) => elsewhere(outcome.odds(planted), spread, chance))
      const honest = outcomes.find((each) => each.name === read) ?? (outcomes[pick(odds, chance)] as Outcome)
      if (chance() >= wrong) return honest.name
      const others = outcomes.filter((each) => each !== honest)
      return (others[Math.floor(chance() * others.length)] ?? honest).name
    },
  }
}

/** Who searches: by what tells most for its price, in the order that people follow, or by chance. */
export const SEARCHERS = ['hallway', 'fixed order', 'random'] as const
export type Searcher = (typeof SEARCHERS)[number]

/** The order to try that is usual: another lead, another port, fewer neighbours, a restart, drivers, then parts (common practice). */
export const FIXED_ORDER: readonly TryName[] = [
  'another lead',
  'another port',
  'fewer neighbours',
  'restart',
  'drivers',
  'shorter lead',
  'other charger',
  'other device',
  'other input',
  'other computer',
  'without the dock',
  'part by part',
  'reseat',
  'settings',
  'lower picture',
  'feed',
  'turn round',
  'power cycle',
  'read the link',
  'read the watts',
  'feel the plugs',
  'firmware',
]

/** Symptoms that people tell when they ask for help. */
const TOLD_AT_MOST = 3

/** How a search went. */
export type Course = {
  conclusion: Conclusion
  /** The planted cause is in the group, or among those that nothing tells apart. */
  right: boolean
  minutes: number
  tries: number
}

/** One search after a planted fault, until there is an answer or nothing is left, of so many tries at most. */
export function searchFor(
  problem: Problem,
  fault: PlantedFault,
  searcher: Searcher,
  { most, chance }: { most: number; chance: Chance },
): Course {
  const { causes, priors, attempts, groups } = problem
  const other = somethingElse(problem)
  const told = fault.symptoms.slice(0, TOLD_AT_MOST)
  const evidence: Evidence[] = told.map((symptom) => symptomEvidence(causes, symptom, 'seen'))
  const done = new Set<number>()
  let tries = 0
  let minutes = 0
  const order = fixedOrder(attempts)
  for (;;) {
    const shares = posterior(priors, evidence)
    const left = nextTries(problem, shares, done, HALLWAYS)
    const conclusion = conclude(problem, shares, left, other)
    const next =
      searcher === 'hallway'
        ? left[0]?.at
        : searcher === 'fixed order'
          ? order.find((at) => !done.has(at))
          : someOf(
              order.filter((at) => !done.has(at)),
              chance,
            )
    if (conclusion.state !== 'open' || next === undefined || tries >= most)
      return {
        conclusion,
        right: conclusion.state !== 'open' && conclusion.groups.includes(groups.of[fault.cause] ?? -1),
        minutes,
        tries,
      }
    const attempt = attempts[next] as Attempt
    done.add(next)
    tries += 1
    minutes += priceOf(attempt)
    const name = fault.play(attempt)
    evidence.push({ key: attempt.key, words: name, likelihood: outcomeLikelihood(causes, attempt.outcomes, name) })
  }
}
const HALLWAYS: Policy['searching'] = 'most telling'

const fixedOrder = (attempts: readonly Attempt[]): number[] =>
  attempts
    .flatMap(({ lacks }, at) => (lacks === undefined ? [at] : []))
    .sort(
      (one, other) =>
        FIXED_ORDER.indexOf(attempts[one]?.name as TryName) - FIXED_ORDER.indexOf(attempts[other]?.name as TryName),
    )

const someOf = (list: readonly number[], chance: Chance): number | undefined => list[Math.floor(chance() * list.length)]
