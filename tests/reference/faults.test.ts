import { addNode, inferences } from 'bayesjs'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { bestPossible, expectedMinutes } from '../../core/faults/best-possible'
import { LEAST_BITS, type Problem } from '../../core/faults/next-try'
import { entropy, information, posterior } from '../../core/faults/odds'
import { type Course, plant, SEARCHERS, searchFor } from '../../core/faults/planted'
import { seeded } from '../../server/command/bench-market'
import { cases } from '../support/laws'

const chanceOf = fc.double({ min: 0.01, max: 0.99, noNaN: true })
const weight = fc.double({ min: 0.05, max: 20, noNaN: true })

/** Causes with odds before, tests with two outcomes, and which outcome was seen. */
const made = fc.integer({ min: 2, max: 6 }).chain((causes) =>
  fc.record({
    priors: fc.array(weight, { minLength: causes, maxLength: causes }),
    tests: fc.array(
      fc.record({ odds: fc.array(chanceOf, { minLength: causes, maxLength: causes }), seen: fc.boolean() }),
      { minLength: 1, maxLength: 4 },
    ),
  }),
)

it("odds are those of another package's Bayesian network", () => {
  fc.assert(
    fc.property(made, ({ priors, tests }) => {
      const all = priors.reduce((sum, each) => sum + each, 0)
      const cause = {
        id: 'cause',
        states: priors.map((_, at) => `c${at}`),
        parents: [],
        cpt: Object.fromEntries(priors.map((each, at) => [`c${at}`, each / all])),
      }
      const network = tests.reduce(
        (made, { odds }, number) =>
          addNode(made, {
            id: `t${number}`,
            states: ['gone', 'same'],
            parents: ['cause'],
            // biome-ignore lint/suspicious/noThenProperty: the other package calls it so
            cpt: odds.map((gone, at) => ({ when: { cause: `c${at}` }, then: { gone, same: 1 - gone } })),
          }),
        addNode({}, cause),
      )
      const given = Object.fromEntries(tests.map(({ seen }, number) => [`t${number}`, seen ? 'gone' : 'same']))
      const shares = posterior(
        priors,
        tests.map(({ odds, seen }) => ({ likelihood: odds.map((gone) => (seen ? gone : 1 - gone)) })),
      )
      for (const [at, share] of shares.entries()) {
        const theirs = inferences.enumeration.infer(network, { cause: `c${at}` }, given)
        expect(share).toBeCloseTo(theirs, 3)
      }
    }),
    { numRuns: cases(60) },
  )
})

it('odds and information are those of going through all causes and outcomes', () => {
  fc.assert(
    fc.property(made, ({ priors, tests }) => {
      const joint = priors.map((odds, cause) =>
        tests.reduce((all, test) => all * (test.seen ? (test.odds[cause] ?? 0) : 1 - (test.odds[cause] ?? 0)), odds),
      )
      const sum = joint.reduce((all, each) => all + each, 0)
      const shares = posterior(
        priors,
        tests.map(({ odds, seen }) => ({ likelihood: odds.map((gone) => (seen ? gone : 1 - gone)) })),
      )
      for (const [at, share] of shares.entries()) expect(share).toBeCloseTo((joint[at] ?? 0) / sum, 9)
      // mutual information by its definition: the sum over cause and outcome of p(c,o) log p(c,o) / p(c) p(o)
      const [test] = tests
      fc.pre(test != null)
      const rows = [test.odds, test.odds.map((gone) => 1 - gone)]
      const told = rows.reduce((bits, row) => {
        const outcome = row.reduce((all, each, cause) => all + each * (shares[cause] ?? 0), 0)
        return (
          bits +
          row.reduce((part, each, cause) => {
            const both = each * (shares[cause] ?? 0)
            return both > 0 ? part + both * Math.log2(both / (outcome * (shares[cause] ?? 1))) : part
          }, 0)
        )
      }, 0)
      const alone = { of: shares.map((_, at) => at), count: shares.length }
      expect(information(shares, rows, alone)).toBeCloseTo(Math.max(0, told), 8)
    }),
  )
  expect(entropy([0.5, 0.5])).toBe(1)
  expect(entropy([1, 0])).toBe(0)
})

/** A small problem out of numbers alone: tries that each take some causes' symptom away. */
function problemFrom(seed: number): Problem {
  const chance = seeded(seed)
  const count = 4
  const causes = Array.from({ length: count }, (_, at) => ({
    name: 'loose plug' as const,
    key: `c${at}`,
    part: { kind: 'run' as const, id: `${at}`, label: `${at}` },
    odds: 0.5 + chance(),
    source: { standing: 'common practice' as const, where: 'made up' },
  }))
  const tables = Array.from({ length: 4 }, () => {
    const gone = causes.map(() => (chance() < 0.5 ? 0.93 : 0.05))
    return [gone, gone.map((each) => 1 - each)]
  })
  return {
    causes,
    priors: causes.map(({ odds }) => odds),
    groups: { of: causes.map((_, at) => at), count },
    attempts: tables.map((_, at) => ({
      key: `t${at}`,
      name: 'reseat' as const,
      how: 'try',
      minutes: 1 + Math.floor(chance() * 9),
      trouble: 0,
      outcomes: [],
    })),
    tables,
  }
}

it('on small problems no order of tries is quicker than the best there is, and ours is near it', () => {
  let [ours, best] = [0, 0]
  for (let seed = 1; seed <= 60; seed += 1) {
    const problem = problemFrom(seed)
    const [one, other] = [expectedMinutes(problem), bestPossible(problem)]
    expect(one).toBeGreaterThanOrEqual(other - 1e-9)
    ours += one
    best += other
  }
  expect(ours / best).toBeLessThan(1.15)
  expect(LEAST_BITS).toBeGreaterThan(0)
})

it('faults that are planted in the demo site are found sooner than in the usual order, and what is named is right', async () => {
  const { plantedProblems } = await import('../../server/command/bench-faults')
  const problems = plantedProblems()
  const runs = new Map<string, Course[]>()
  for (const searcher of SEARCHERS) {
    const chance = seeded(3)
    runs.set(
      searcher,
      Array.from({ length: 600 }, (_, count) => {
        const problem = problems[count % problems.length] as Problem
        const fault = plant(problem, { spread: 0.6, wrong: 0 }, chance)
        return searchFor(problem, fault, searcher, { most: 12, chance })
      }),
    )
  }
  const of = (searcher: string) => runs.get(searcher) ?? []
  const minutes = (searcher: string) => of(searcher).reduce((sum, each) => sum + each.minutes, 0)
  const right = (searcher: string) => of(searcher).filter((each) => each.right).length / of(searcher).length
  expect(minutes('hallway') / minutes('fixed order')).toBeLessThan(0.65)
  expect(right('hallway')).toBeGreaterThan(0.93)
  expect(right('hallway')).toBeGreaterThan(right('fixed order'))
  const named = of('hallway').filter(({ conclusion }) => conclusion.state === 'found')
  expect(named.filter((each) => each.right).length / named.length).toBeGreaterThan(0.9)
})
