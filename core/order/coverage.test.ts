import fc from 'fast-check'
import loadHighs from 'highs'
import { beforeAll, expect, it } from 'vitest'
import { madeUpMarket } from '../../server/command/bench-market'
import { highsSolver } from '../../server/orders/highs-solver'
import { cases } from '../../tests/support/laws'
import { givenUp } from './coverage'
import { cover } from './decide'
import type { Solver } from './solver'

let solve: Solver
beforeAll(async () => {
  solve = highsSolver(await loadHighs())
})

it('one, two and three articles serve as many runs as trying every set of them finds', () => {
  fc.assert(
    fc.property(fc.nat(), fc.integer({ min: 1, max: 3 }), (seed, most) => {
      const { wanting } = madeUpMarket({ runs: 9, articles: 12, suppliers: 1, cables: 2, seed })
      const serves = new Map<string, Set<string>>()
      for (const { run, choices } of wanting)
        for (const { articles, cables, setUp } of choices) {
          const [article] = articles
          if (article === undefined || articles.length > 1 || cables.length > 0 || setUp) continue
          serves.set(article, (serves.get(article) ?? new Set()).add(run))
        }
      const keys = [...serves.keys()]
      const best = (from: number, left: number, served: ReadonlySet<string>): number => {
        let found = served.size
        if (left > 0)
          for (let at = from; at < keys.length; at += 1)
            found = Math.max(found, best(at + 1, left - 1, new Set([...served, ...(serves.get(keys[at] ?? '') ?? [])])))
        return found
      }
      const answer = cover(solve, { wanting, without: [], most })
      expect(answer.covered).toBe(best(0, most, new Set()))
      expect(answer.articles.length).toBeLessThanOrEqual(most)
      for (const { article, runs } of answer.articles)
        for (const run of runs) expect(serves.get(article)?.has(run)).toBe(true)
    }),
    { numRuns: cases(60) },
  )
})

it('what is given up is what reaches beyond the routes', () => {
  expect(givenUp(3, [2, 2.5, 3.2])).toBeCloseTo(1.5)
  expect(givenUp(3, [])).toBe(0)
})
