import type { Article, Source } from '../../core/order/articles'
import { type Choice, RISKS, type Risk, type WantingRun } from '../../core/order/choices'
import type { Market } from '../../core/order/model'
import type { CableKind } from '../../core/vocabulary/cable'
import type { Supplier } from '../../core/vocabulary/order'

/** Numbers from 0 to 1 out of a seed, the same each time: mulberry32. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

export type MarketSize = { runs: number; articles: number; suppliers: number; cables: number; seed: number }

const LENGTHS = [0.5, 1, 2, 3, 5, 7.5, 10, 15]

/** Articles of two suppliers and more, and runs that each could take some of them: made up from a seed, so that two solvers are asked the same. */
export function madeUpMarket({ runs, articles, suppliers, cables, seed }: MarketSize): {
  wanting: WantingRun[]
  market: Market
} {
  const next = seeded(seed)
  const below = (count: number): number => Math.floor(next() * count)
  const sellers = Array.from(
    { length: suppliers },
    (_, at): Supplier => ({
      id: `s${at}`,
      name: `Supplier ${at}`,
      ...(below(3) > 0 ? { delivery: 4 + below(9) } : {}),
      ...(below(2) > 0 ? { freeFrom: 60 + 10 * below(12) } : {}),
    }),
  )
  const sold = Array.from({ length: articles }, (_, at): Article => {
    const length = LENGTHS[at % LENGTHS.length] as number
    const kind = {
      id: `k${Math.floor(at / LENGTHS.length)}`,
      name: `Kind ${Math.floor(at / LENGTHS.length)}`,
    } as CableKind
    const price = Math.round((5 + length * 2 + next() * 30) * 100) / 100
    const sources = sellers.flatMap((seller): Source[] =>
      below(4) === 0 && sellers.length > 1 && seller.id !== 's0'
        ? []
        : [
            {
              supplier: seller.id,
              offer: `${seller.id}-${at}`,
              price: Math.round(price * (0.9 + next() * 0.3) * 100) / 100,
              leadDays: 1 + below(9),
              returnDays: below(3) === 0 ? 0 : 30,
              available: below(6) === 0 ? 1 + below(5) : null,
              excludes: [],
            },
          ],
    )
    return { key: `${kind.id}@${length}`, kind, length, sources, extra: at % 5 === 0 ? 2.5 : 0 }
  })
  const wanting = Array.from({ length: runs }, (_, at): WantingRun => {
    const run = `r${at}`
    const wanted = below(LENGTHS.length)
    const fits = sold.filter(({ length }) => length >= (LENGTHS[wanted] as number) && below(3) > 0)
    const some = fits.slice(0, 10 + below(6))
    const risksOf = (): Risk[] => RISKS.filter(() => below(4) === 0)
    const choices: Omit<Choice, 'id' | 'run'>[] = [
      ...some.map(({ key, kind, length }) => ({
        leads: [{ kind: kind.id, length, reversed: false }],
        grade: below(5) === 0 ? ('tight' as const) : ('clear' as const),
        cables: [],
        articles: [key],
        risks: risksOf(),
      })),
      ...Array.from({ length: below(3) }, () => below(Math.max(1, cables))).map((cable) => ({
        leads: [{ cable: `c${cable}`, reversed: false }],
        grade: 'clear' as const,
        cables: [`c${cable}`],
        articles: [],
        risks: risksOf(),
      })),
    ]
    // now and then something is set up instead, which two runs may share and only one can have
    if (below(4) === 0)
      choices.push({
        leads: [],
        grade: 'clear',
        cables: [],
        articles: [],
        risks: [],
        setUp: {
          words: [],
          price: 5 + below(20),
          edits: [{ list: 'devices', id: `d${below(2)}`, base: null, value: null }],
        },
      })
    const named = choices.map((choice, place) => ({ ...choice, id: `${run}/${place}`, run }))
    return { run, tag: run.toUpperCase(), now: 'blocked', choices: named }
  })
  return { wanting, market: { articles: new Map(sold.map((article) => [article.key, article])), suppliers: sellers } }
}
