import type { Plan } from '../plan/plan'

/** What a reader of a site may be kept from: what things cost, and what people wrote about them. */
export const DETAILS = ['prices', 'notes'] as const
export type Detail = (typeof DETAILS)[number]

/** A plan as somebody sees it from whom some details are kept: a whole plan, without them. Nothing of the network is left out, so verdicts are the same. */
export function planWithout(plan: Plan, hidden: readonly Detail[]): Plan {
  let shown = plan
  if (hidden.includes('prices')) shown = withoutPrices(shown)
  if (hidden.includes('notes')) shown = withoutNotes(shown)
  return shown
}

/** What is bought goes as a whole: who sells, for how much, and what was ordered. */
const withoutPrices = (plan: Plan): Plan => ({
  ...plan,
  policy: { ...plan.policy, equipment: {} },
  kinds: plan.kinds.map(({ wantsPrice: _, ...kind }) => ({ ...kind, stock: [] })),
  suppliers: [],
  offers: [],
  orders: [],
  orderLines: [],
})

/** Fields in which somebody writes what they like. */
const WRITTEN: ReadonlySet<string> = new Set(['note', 'conditions', 'less'])
/** What stands where a text has to be. */
const NOT_SHOWN = 'not shown'

/** A handover tells in words what was open, so it goes as a whole. */
const withoutNotes = (plan: Plan): Plan => ({
  ...(stripped(plan) as Plan),
  searches: plan.searches.map((search) => {
    const { cleared, ended, ...rest } = stripped(search) as typeof search
    return {
      ...rest,
      ...(cleared ? { cleared: cleared.map((stop) => ({ ...stop, how: NOT_SHOWN })) } : {}),
      ...(ended ? { ended: withoutWords(ended) } : {}),
    }
  }),
  handovers: [],
})

const withoutWords = <T extends { words?: unknown }>({ words: _, ...ended }: T): Omit<T, 'words'> => ended

function stripped(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(stripped)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, each]) => (WRITTEN.has(key) ? [] : [[key, stripped(each)]])),
  )
}
