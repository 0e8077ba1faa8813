import fc from 'fast-check'
import { expect, it } from 'vitest'
import { madeUpMarket } from '../../server/command/bench-market'
import { cases } from '../../tests/support/laws'
import { orderModel } from './model'
import { readOrder } from './solution'
import { oddsOf, tryFirst, withSamples } from './try-first'
import { usualWishes } from './wishes'

/** Some answer to a market, the best or not: the first choice of each run, and what it buys. */
function anyOrder(seed: number) {
  const { wanting, market } = madeUpMarket({ runs: 8, articles: 40, suppliers: 2, cables: 2, seed })
  const made = orderModel(wanting, market, usualWishes)
  const taken = new Set<string>()
  const wanted = new Map<string, number>()
  const values: number[] = made.meanings.map((meaning) => {
    if (meaning.is !== 'choice' || taken.has(meaning.choice.run)) return 0
    taken.add(meaning.choice.run)
    for (const article of meaning.choice.articles) wanted.set(article, (wanted.get(article) ?? 0) + 1)
    return 1
  })
  for (const [at, meaning] of made.meanings.entries())
    if (meaning.is === 'bought' && meaning.at === 0) values[at] = wanted.get(meaning.article) ?? 0
  return { wanting, market, order: readOrder(made, values, market, null) }
}

it('the odds of a kind go from what is thought of any towards what was tried', () => {
  expect(oddsOf({}, 0.7)).toBeCloseTo(0.7)
  // eight of eight of its build and nothing closer: a fifth of it rests on what is thought of one that nobody tried
  expect(oddsOf({ likely: { odds: 0.97, open: 0.2 } }, 0.7)).toBeCloseTo(0.94)
  expect(oddsOf({ likely: { odds: 0.17, open: 0.2 } }, 0.7)).toBeCloseTo(0.14)
})

it('what is expected is what going through every outcome of the samples comes to, and no other number of them is expected to cost less', () => {
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const { wanting, market, order } = anyOrder(seed)
      const trial = tryFirst(wanting, order, market, usualWishes)
      fc.pre(trial != null)
      const { samples, fallback } = trial
      let all = 0
      let odds = 0
      for (let outcome = 0; outcome < 2 ** samples.length; outcome += 1) {
        const holds = samples.map((_, at) => ((outcome >> at) & 1) === 1)
        const chance = samples.reduce((sum, sample, at) => sum * (holds[at] ? sample.odds : 1 - sample.odds), 1)
        const kept = samples.findIndex((_, at) => holds[at])
        const lost = samples.reduce((sum, { back, price }, at) => sum + (at === kept || back ? 0 : price), 0)
        all += chance * ((samples[kept]?.group ?? fallback) + lost)
        odds += kept < 0 ? chance : 0
      }
      expect(trial.expected).toBeCloseTo(all, 6)
      expect(trial.none).toBeCloseTo(odds, 6)
      expect(samples.length).toBeLessThanOrEqual(7)
      expect(trial.group).toContain(trial.run)
      // what is kept first is what costs the least
      expect(samples.map(({ group }) => group)).toEqual(samples.map(({ group }) => group).toSorted((a, b) => a - b))
    }),
    { numRuns: cases(200) },
  )
})

it('with samples first every run still gets something, and all it gets is on a line', () => {
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const { wanting, market, order } = anyOrder(seed)
      const trial = tryFirst(wanting, order, market, usualWishes)
      fc.pre(trial != null)
      const decided = withSamples(order, trial, wanting, market, usualWishes, '2026-11-29')
      expect(decided.runs.map(({ run }) => run).toSorted()).toEqual([...order.chosen.keys()].toSorted())
      const bought = new Map<string, number>()
      for (const { kind, length, count } of decided.lines)
        bought.set(`${kind}@${length}`, (bought.get(`${kind}@${length}`) ?? 0) + count)
      for (const { leads } of decided.runs)
        for (const lead of leads) {
          if (!('kind' in lead)) continue
          const key = `${lead.kind}@${lead.length}`
          bought.set(key, (bought.get(key) ?? 0) - 1)
        }
      expect([...bought.values()].filter((left) => left < 0)).toEqual([])
      const tried = decided.lines.filter(({ part }) => part === 'try')
      expect(tried).toHaveLength(trial.samples.length)
      expect(tried.every(({ decide }) => decide !== undefined && decide > '2026-11-29')).toBe(true)
    }),
    { numRuns: cases(100) },
  )
})
