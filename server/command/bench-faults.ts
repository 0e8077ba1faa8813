import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { assessAnew } from '../../core/checks/assess'
import { bestPossible, expectedMinutes } from '../../core/faults/best-possible'
import { causesOf } from '../../core/faults/causes'
import { type Problem, problemOf } from '../../core/faults/next-try'
import { type Course, type Difference, plant, SEARCHERS, type Searcher, searchFor } from '../../core/faults/planted'
import { sceneOf } from '../../core/faults/scene'
import { triesOf } from '../../core/faults/tries'
import { readPlanText } from '../../core/plan/read'
import { seeded } from './bench-market'
import { root } from './home'
import { median } from './timing'

const PLANTS = 5000
const MOST_TRIES = 12
const SEED = 11
/** Small problems on which every order of tries is gone through. */
const SMALL = 40
const SMALL_CAUSES = 5
const SMALL_TRIES = 5

/** Worlds that are searched in: their odds are the searcher's own, or lie elsewhere, or one answer in ten is wrong as well. */
const WORLDS: Readonly<Record<string, Difference>> = {
  'its own odds': { spread: 0, wrong: 0 },
  'other odds': { spread: 0.6, wrong: 0 },
  'other odds, one answer in ten wrong': { spread: 0.6, wrong: 0.1 },
}

export type SearcherFigures = {
  searcher: Searcher
  /** Share that ended with the planted cause, or with it among those that nothing at hand tells apart. */
  right: number
  found: number
  narrowed: number
  /** How many were named together where they were narrowed. */
  namedTogether: number
  minutes: { mean: number; ninetieth: number }
  tries: { mean: number; ninetieth: number }
}

export type FaultsFigures = {
  plants: number
  worlds: { world: string; searchers: SearcherFigures[]; minutesOfFixed: number }[]
  /** Of those that were named so sure: how many were right. */
  calibration: { from: number; to: number; named: number; right: number }[]
  /** Expected minutes of the searcher beside those of the best order there is, on small problems. */
  best: { problems: number; ratio: number; worst: number }
  /** The median of one next try, in ms. */
  nextMs: number
}

const share = (part: number, all: number): number => (all === 0 ? 0 : part / all)
const mean = (list: readonly number[]): number => list.reduce((sum, each) => sum + each, 0) / Math.max(1, list.length)
const ninetieth = (list: readonly number[]): number =>
  [...list].sort((one, other) => one - other)[Math.floor(0.9 * (list.length - 1))] ?? 0

/** The problems of the runs of the demo site, without what Match blocks: a fault is planted where it would work. */
export function plantedProblems(): Problem[] {
  const read = readPlanText(readFileSync(join(root, 'demo/saltmarsh.json'), 'utf8'))
  if (!read.ok) throw new Error('The demo site cannot be read.')
  const { index, walks } = assessAnew(read.plan)
  return index.plan.runs.map((run) => {
    const scene = sceneOf({ index, crossings: walks.crossings.get(run.id) ?? [], blocked: [] }, run)
    return problemOf(causesOf(scene), triesOf(scene))
  })
}

/** Faults that are planted and searched for: by Hallway, in the order that is usual, and by chance. */
export function benchFaults(): FaultsFigures {
  const all = plantedProblems()
  const named: { odds: number; right: boolean }[] = []
  const stepMs: number[] = []
  const worlds = Object.entries(WORLDS).map(([world, difference]) => {
    const searchers = SEARCHERS.map((searcher): SearcherFigures => {
      const chance = seeded(SEED)
      const courses: Course[] = []
      for (let count = 0; count < PLANTS; count += 1) {
        const problem = all[count % all.length] as Problem
        const fault = plant(problem, difference, chance)
        const began = performance.now()
        const course = searchFor(problem, fault, searcher, { most: MOST_TRIES, chance })
        if (searcher === 'hallway') stepMs.push((performance.now() - began) / (course.tries + 1))
        courses.push(course)
        if (searcher === 'hallway' && world === 'other odds' && course.conclusion.state === 'found')
          named.push({ odds: course.conclusion.odds, right: course.right })
      }
      const of = (state: string) => courses.filter(({ conclusion }) => conclusion.state === state)
      return {
        searcher,
        right: share(courses.filter(({ right }) => right).length, PLANTS),
        found: share(of('found').length, PLANTS),
        narrowed: share(of('narrowed').length, PLANTS),
        namedTogether: mean(of('narrowed').map(({ conclusion }) => conclusion.groups.length)),
        minutes: {
          mean: mean(courses.map(({ minutes }) => minutes)),
          ninetieth: ninetieth(courses.map(({ minutes }) => minutes)),
        },
        tries: {
          mean: mean(courses.map(({ tries }) => tries)),
          ninetieth: ninetieth(courses.map(({ tries }) => tries)),
        },
      }
    })
    const minutesOf = (name: Searcher): number => searchers.find(({ searcher }) => searcher === name)?.minutes.mean ?? 0
    return { world, searchers, minutesOfFixed: share(minutesOf('hallway'), minutesOf('fixed order')) }
  })
  return {
    plants: PLANTS,
    worlds,
    calibration: [0.95, 0.97, 0.99].map((from, at, list) => {
      const to = list[at + 1] ?? 1
      const inside = named.filter(({ odds }) => odds >= from && (odds < to || to === 1))
      return { from, to, named: inside.length, right: share(inside.filter(({ right }) => right).length, inside.length) }
    }),
    best: besideBest(all),
    nextMs: median(stepMs),
  }
}

/** The searcher's own order beside the best there is, where all orders can be gone through. */
function besideBest(all: readonly Problem[]): FaultsFigures['best'] {
  const chance = seeded(SEED)
  const ratios: number[] = []
  for (let count = 0; count < SMALL; count += 1) {
    const small = part(all[count % all.length] as Problem, chance)
    const best = bestPossible(small)
    if (best > 0) ratios.push(expectedMinutes(small) / best)
  }
  return { problems: ratios.length, ratio: mean(ratios), worst: Math.max(...ratios) }
}

/** Some of the causes and tries of a problem. */
function part({ causes, attempts }: Problem, chance: () => number): Problem {
  const some = <T>(list: readonly T[], most: number): T[] =>
    [...list]
      .map((each) => ({ each, by: chance() }))
      .sort((one, other) => one.by - other.by)
      .slice(0, most)
      .map(({ each }) => each)
  return problemOf(
    some(causes, SMALL_CAUSES),
    some(
      attempts.filter(({ lacks }) => lacks === undefined),
      SMALL_TRIES,
    ),
  )
}

const percent = (value: number): string => `${(100 * value).toFixed(1)} %`.padStart(7)

/** The figures as lines that a person reads. */
export function faultsLines({ plants, worlds, calibration, best, nextMs }: FaultsFigures): string[] {
  return [
    `${plants} faults planted, ${MOST_TRIES} tries at most`,
    ...worlds.flatMap(({ world, searchers, minutesOfFixed }) => [
      '',
      `in a world of ${world}`,
      '                right   found  narrowed (to)   minutes, 90th    tries, 90th',
      ...searchers.map(
        ({ searcher, right, found, narrowed, namedTogether, minutes, tries }) =>
          `  ${searcher.padEnd(12)} ${percent(right)} ${percent(found)} ${percent(narrowed)} (${namedTogether.toFixed(1)})  ${minutes.mean.toFixed(1).padStart(8)} ${minutes.ninetieth.toFixed(0).padStart(5)} ${tries.mean.toFixed(1).padStart(9)} ${tries.ninetieth.toFixed(0).padStart(5)}`,
      ),
      `  Hallway's minutes are ${minutesOfFixed.toFixed(2)} of those of the fixed order`,
    ]),
    '',
    'named so sure, and right (other odds)',
    ...calibration.map(({ from, to, named, right }) => `  ${from} to ${to}: ${percent(right)} of ${named}`),
    '',
    `minutes beside the best order there is: ${best.ratio.toFixed(2)}, at worst ${best.worst.toFixed(2)} (${best.problems} small problems)`,
    `one next try: ${nextMs.toFixed(2)} ms (median)`,
  ]
}
