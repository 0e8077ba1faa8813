import fc from 'fast-check'
import loadGlpk from 'glpk.js/node'
import loadHighs from 'highs'
import { beforeAll, describe, expect, it } from 'vitest'
import type { WantingRun } from '../../core/order/choices'
import { decide } from '../../core/order/decide'
import { coverModel } from '../../core/order/fewest'
import { costOf, type Market, type Model, orderModel } from '../../core/order/model'
import { type OrderPlan, readOrder } from '../../core/order/solution'
import type { Solver } from '../../core/order/solver'
import { ORDER_PLANS, usualWishes, type Wishes, wishesOf } from '../../core/order/wishes'
import { type MarketSize, madeUpMarket } from '../../server/command/bench-market'
import { highsSolver } from '../../server/orders/highs-solver'
import { cases } from '../support/laws'

// the same models solved by GLPK, another solver, and small ones by trying every combination without any model at all

type Loaded<T> = T extends (...args: never[]) => Promise<infer L> ? L : never
let solve: Solver
let glpk: Loaded<typeof loadGlpk>
beforeAll(async () => {
  solve = highsSolver(await loadHighs())
  glpk = await loadGlpk()
})

const EXACT = { gap: 0, seconds: 30 }
const small: fc.Arbitrary<MarketSize> = fc.record({
  runs: fc.integer({ min: 1, max: 4 }),
  articles: fc.integer({ min: 1, max: 12 }),
  suppliers: fc.integer({ min: 1, max: 2 }),
  cables: fc.integer({ min: 1, max: 2 }),
  seed: fc.nat(),
})
const wishes: fc.Arbitrary<Wishes> = fc.record({
  perArticle: fc.constantFrom(0, 5, 40),
  perTight: fc.constantFrom(0, 20),
  perJoint: fc.constant(6),
  perRisk: fc.constant(usualWishes.perRisk),
  perUnserved: fc.constant(null),
  withinDays: fc.constantFrom(null, null, 4),
  budget: fc.constantFrom(null, null, 60),
  withoutKinds: fc.constantFrom([], [], ['k0']),
  holds: fc.constant(0.7),
  fixed: fc.constant([]),
})

/** What GLPK makes of a model; null where nothing fits. */
function byGlpk({ columns, rows }: Model): number | null {
  // it takes no model without columns
  if (columns.length === 0) return 0
  const name = (at: number): string => `c${at}`
  const bound = (least: number, most: number) =>
    least === most
      ? { type: glpk.GLP_FX, lb: least, ub: most }
      : most === Number.POSITIVE_INFINITY
        ? { type: glpk.GLP_LO, lb: least, ub: 0 }
        : { type: glpk.GLP_DB, lb: least, ub: most }
  const { result } = glpk.solve(
    {
      name: 'order',
      objective: {
        direction: glpk.GLP_MIN,
        name: 'cost',
        vars: columns.map(({ cost }, at) => ({ name: name(at), coef: cost })),
      },
      subjectTo: rows.map(({ terms, least, most }, at) => ({
        name: `r${at}`,
        vars: terms.map(([column, factor]) => ({ name: name(column), coef: factor })),
        bnds: bound(least, most),
      })),
      bounds: columns.map(({ most }, at) => ({ name: name(at), ...bound(0, most) })),
      generals: columns.flatMap(({ whole }, at) => (whole ? [name(at)] : [])),
    },
    { msglev: glpk.GLP_MSG_OFF, presol: true, mipgap: 0 },
  )
  return result.status === glpk.GLP_OPT ? result.z : null
}

/** The least that any combination of choices and sources comes to, tried one by one; null where none fits. */
function byTrying(wanting: readonly WantingRun[], { articles, suppliers }: Market, asked: Wishes): number | null {
  const sourcesOf = (article: string) => {
    const { kind, sources = [] } = articles.get(article) ?? {}
    if (kind && asked.withoutKinds.includes(kind.id)) return []
    return sources.filter(
      ({ leadDays }) => asked.withinDays === null || (leadDays !== null && leadDays <= asked.withinDays),
    )
  }
  let best: number | null = null
  const served = wanting.filter(({ choices }) =>
    choices.some((choice) => choice.articles.every((article) => sourcesOf(article).length > 0)),
  )
  const pieces: { article: string; supplier: string | null; price: number; available: number | null }[] = []
  const once = new Set<string>()
  let setUps = 0
  const reckon = (other: number): void => {
    const counts = new Map<string, number>()
    const worth = new Map<string, number>()
    for (const { article, supplier, price, available } of pieces) {
      const key = `${article} ${supplier}`
      counts.set(key, (counts.get(key) ?? 0) + 1)
      if (available !== null && (counts.get(key) ?? 0) > available) return
      worth.set(supplier ?? '', (worth.get(supplier ?? '') ?? 0) + price)
    }
    const goods = pieces.reduce((sum, { article, price }) => sum + price + (articles.get(article)?.extra ?? 0), 0)
    const sent = suppliers.reduce((sum, { id, delivery = 0, freeFrom }) => {
      const spent = worth.get(id)
      return sum + (spent === undefined || (freeFrom !== undefined && spent >= freeFrom) ? 0 : delivery)
    }, 0)
    if (asked.budget !== null && goods + sent + setUps > asked.budget) return
    const kept = new Set(pieces.map(({ article }) => article)).size * asked.perArticle
    const total = goods + sent + kept + other
    if (best === null || total < best) best = total
  }
  const next = (at: number, other: number): void => {
    const run = served[at]
    if (!run) {
      reckon(other)
      return
    }
    for (const choice of run.choices) {
      const uses = [...choice.cables, ...(choice.setUp?.edits ?? []).map(({ id }) => id)]
      if (uses.some((each) => once.has(each))) continue
      for (const each of uses) once.add(each)
      setUps += choice.setUp?.price ?? 0
      const more = other + costOf(choice, asked)
      const [article] = choice.articles
      if (article === undefined) next(at + 1, more)
      else
        for (const { supplier, price, available } of sourcesOf(article)) {
          pieces.push({ article, supplier, price, available })
          next(at + 1, more)
          pieces.pop()
        }
      setUps -= choice.setUp?.price ?? 0
      for (const each of uses) once.delete(each)
    }
  }
  next(0, 0)
  return best
}

/** An order keeps to what there is: a choice for each run that can be served, a cable once, no more than a source has. */
function keeps(order: OrderPlan, wanting: readonly WantingRun[], asked: Wishes): void {
  expect(order.chosen.size + order.unserved.length).toBe(wanting.length)
  const cables = [...order.chosen.values()].flatMap((choice) => choice.cables)
  expect(new Set(cables).size).toBe(cables.length)
  const bought = new Map<string, number>()
  for (const { article, source, count, spare } of order.purchases) {
    if (source.available !== null) expect(count).toBeLessThanOrEqual(source.available)
    bought.set(article, (bought.get(article) ?? 0) + count - spare)
  }
  const wanted = new Map<string, number>()
  for (const { articles } of order.chosen.values())
    for (const article of articles) wanted.set(article, (wanted.get(article) ?? 0) + 1)
  expect(bought).toEqual(wanted)
  if (asked.withinDays !== null)
    for (const { source } of order.purchases) expect(source.leadDays).toBeLessThanOrEqual(asked.withinDays)
}

describe('an order is the best there is', () => {
  it('as trying every combination finds, and as GLPK finds', () => {
    fc.assert(
      fc.property(small, wishes, (size, asked) => {
        const { wanting, market } = madeUpMarket(size)
        const made = orderModel(wanting, market, asked)
        const solved = solve(made.model, EXACT)
        const tried = byTrying(wanting, market, asked)
        const other = byGlpk(made.model)
        if (solved.status === 'impossible') {
          expect(tried).toBeNull()
          expect(other).toBeNull()
          return
        }
        expect(solved.objective).toBeCloseTo(tried ?? Number.NaN, 4)
        expect(solved.objective).toBeCloseTo(other ?? Number.NaN, 4)
        const order = readOrder(made, solved.values, market, null)
        expect(order.measure).toBeCloseTo(solved.objective, 4)
        keeps(order, wanting, asked)
      }),
      { numRuns: cases(250) },
    )
  })
  it('for thirty runs as GLPK finds', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { wanting, market } = madeUpMarket({ runs: 30, articles: 40, suppliers: 2, cables: 8, seed })
        const { model } = orderModel(wanting, market, usualWishes)
        const solved = solve(model, EXACT)
        expect(solved.status === 'impossible' ? null : solved.objective).toBeCloseTo(byGlpk(model) ?? Number.NaN, 3)
      }),
      { numRuns: cases(5) },
    )
  })
})

describe('each plan is the best by its own measure', () => {
  const plans = (seed: number, asked: Wishes) => {
    const { wanting, market } = madeUpMarket({ runs: 8, articles: 24, suppliers: 2, cables: 3, seed })
    return ORDER_PLANS.map((plan) => {
      const decision = decide(solve, { wanting, market, wishes: asked, spares: null, plan }, () => {}, EXACT)
      return { plan, decision, wanting, market }
    })
  }
  it('none is cheaper than the cheapest, none has fewer articles than the fewest', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const orders = plans(seed, usualWishes).flatMap(({ plan, decision, wanting }) => {
          if (decision.state !== 'done') return []
          keeps(decision.order, wanting, usualWishes)
          return [{ plan, order: decision.order }]
        })
        const by = (name: string) => orders.find(({ plan }) => plan === name)?.order
        for (const { order } of orders) {
          expect(by('cheapest')?.cost).toBeLessThanOrEqual(order.cost + 0.5)
          expect(by('fewest')?.articles).toBeLessThanOrEqual(order.articles)
          expect(by('surest')?.tight.length).toBeLessThanOrEqual(order.tight.length + order.risky.length)
        }
      }),
      { numRuns: cases(15) },
    )
  })
  it('the fewest articles are as few as GLPK finds', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { wanting, market } = madeUpMarket({ runs: 12, articles: 24, suppliers: 1, cables: 3, seed })
        const { model } = coverModel(orderModel(wanting, market, usualWishes))
        const solved = solve(model, EXACT)
        expect(solved.status === 'impossible' ? null : solved.objective).toBeCloseTo(byGlpk(model) ?? Number.NaN, 4)
      }),
      { numRuns: cases(15) },
    )
  })
})

describe('wishes that stand against each other are named', () => {
  const { wanting, market } = madeUpMarket({ runs: 4, articles: 16, suppliers: 1, cables: 1, seed: 3 })
  const ask = (asked: Partial<Wishes>) =>
    decide(
      solve,
      { wanting, market, wishes: { ...usualWishes, ...asked }, spares: null, plan: 'balanced' },
      () => {},
      EXACT,
    )
  it('a budget that nothing fits in says what it would cost', () => {
    const free = ask({})
    const tight = ask({ budget: 0.01 })
    expect(free.state).toBe('done')
    if (free.state === 'done' && free.order.cost > 0.01) {
      expect(tight).toMatchObject({ state: 'impossible', why: 'budget' })
      expect(tight.state === 'impossible' && tight.order?.cost).toBeCloseTo(free.order.cost, 2)
    }
  })
  it('two runs that are to have the same cable cannot both keep it', () => {
    const choice = (run: string) => ({
      id: `${run}/0`,
      run,
      leads: [{ cable: 'c0', reversed: false }],
      grade: 'clear' as const,
      cables: ['c0'],
      articles: [],
      risks: [],
    })
    const two = ['a', 'b'].map(
      (run): WantingRun => ({
        run,
        tag: run,
        now: 'blocked',
        choices: [choice(run), { ...choice(run), id: `${run}/1`, cables: [], leads: [] }],
      }),
    )
    const decision = decide(
      solve,
      { wanting: two, market, wishes: { ...usualWishes, fixed: ['a/0', 'b/0'] }, spares: null, plan: 'balanced' },
      () => {},
      EXACT,
    )
    expect(decision).toMatchObject({ state: 'impossible', why: 'kept choices' })
  })
  it('where there is not enough of something as many runs as can be are served, and the others named', () => {
    const two = ['a', 'b'].map(
      (run): WantingRun => ({
        run,
        tag: run,
        now: 'blocked',
        choices: [
          {
            id: `${run}/0`,
            run,
            leads: [{ cable: 'c0', reversed: false }],
            grade: 'clear',
            cables: ['c0'],
            articles: [],
            risks: [],
          },
        ],
      }),
    )
    const decision = decide(
      solve,
      { wanting: two, market, wishes: usualWishes, spares: null, plan: 'balanced' },
      () => {},
      EXACT,
    )
    expect(decision).toMatchObject({ state: 'impossible', why: 'not enough of it' })
    if (decision.state === 'impossible')
      expect([decision.order?.chosen.size, decision.order?.unserved.length]).toEqual([1, 1])
  })
  it('a run that nothing serves is named, and the others are served', () => {
    const alone: WantingRun = { run: 'z', tag: 'Z', now: 'blocked', choices: [] }
    const decision = decide(
      solve,
      { wanting: [...wanting, alone], market, wishes: usualWishes, spares: 0.1, plan: 'balanced' },
      () => {},
      EXACT,
    )
    expect(decision.state === 'done' && decision.order.unserved).toContain('z')
    expect(decision.state === 'done' && decision.order.chosen.size).toBeGreaterThan(0)
  })
})

it('spares are a tenth of an article and one at least, as far as there are any', () => {
  const { wanting, market } = madeUpMarket({ runs: 40, articles: 40, suppliers: 1, cables: 1, seed: 11 })
  const made = orderModel(wanting, market, wishesOf('fewest', usualWishes))
  const solved = solve(made.model, { gap: 0.01, seconds: 20 })
  if (solved.status === 'impossible') throw new Error('it has an answer')
  const plain = readOrder(made, solved.values, market, null)
  const spared = readOrder(made, solved.values, market, 0.1)
  for (const [at, { source, count, spare }] of spared.purchases.entries()) {
    const wanted = plain.purchases[at]?.count ?? 0
    const room = source.available === null ? Number.POSITIVE_INFINITY : source.available - wanted
    expect(spare).toBe(Math.min(Math.max(1, Math.ceil(wanted / 10)), room))
    expect(count).toBe(wanted + spare)
  }
})

it('prices of nothing and of a million are solved as any other', () => {
  fc.assert(
    fc.property(small, fc.array(fc.constantFrom(0, 1_000_000), { minLength: 4, maxLength: 4 }), (size, prices) => {
      const { wanting, market } = madeUpMarket(size)
      const articles = new Map(
        [...market.articles].map(([key, article], at) => [
          key,
          { ...article, sources: article.sources.map((source) => ({ ...source, price: prices[at % 4] ?? 0 })) },
        ]),
      )
      const wide = { ...market, articles }
      const { model } = orderModel(wanting, wide, usualWishes)
      const solved = solve(model, EXACT)
      const tried = byTrying(wanting, wide, usualWishes)
      if (solved.status === 'impossible') expect(tried).toBeNull()
      else expect(Math.abs(solved.objective - (tried ?? Number.NaN))).toBeLessThan(0.01)
    }),
    { numRuns: cases(40) },
  )
})
