import type { Assessed } from '../checks/assess'
import { felt } from './since-felt'
import { listed, withdrawn } from './since-lists'
import { type Say, SINCE_NAMES, type Since, type SinceLine, type SinceName, sinceTitles } from './since-sorts'

/**
 * What has changed between a site as it was handed over and as it is now, in words. First what the client would feel: every verdict and every proof that is
 * another, leads that got hot, rules, mains, closed pathways, leads turned round, searches. Then everything in the lists of the plan that is new, gone or
 * another. What has not changed is not named.
 */
export function sinceHandover(before: Assessed, after: Assessed): Since[] {
  const lines = new Map<SinceName, SinceLine[]>(SINCE_NAMES.map((name) => [name, []]))
  const say: Say = (name, line) => void lines.get(name)?.push(line)
  felt(before, after, say)
  listed(before.index.plan, after.index.plan, say)
  for (const line of withdrawn(before.index.plan, after.index.plan)) say('withdrawn', line)
  return SINCE_NAMES.flatMap((name) => {
    const own = lines.get(name) ?? []
    return own.length > 0 ? [{ name, lines: own }] : []
  })
}

/** The runs that stand out on a drawing: new, on another way, or with other leads. */
export const freshRuns = (since: readonly Since[]): ReadonlySet<string> =>
  new Set(
    since.flatMap(({ name, lines }) =>
      name === 'laid' || name === 'moved' || name === 'replaced' ? lines.map(({ id }) => id) : [],
    ),
  )

/** The same as a table, for spreadsheets. */
export const sinceTable = (since: readonly Since[]): string[][] => [
  ['what', 'name', 'change'],
  ...since.flatMap(({ name, lines }) => lines.map((line) => [sinceTitles[name].title, line.name, line.what])),
]
