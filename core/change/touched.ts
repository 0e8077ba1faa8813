import { byId } from '../plan/lookup'
import { PLAN_LISTS, type Plan } from '../plan/plan'
import { changeBetween } from '../work/kept'
import type { Touched } from './change'

type Item = { id: string }

/**
 * What is not the same in two plans of which one was made from the other: entities that came, went, are another value, or stand elsewhere among those
 * that both have. Entities that a change has not touched are the very same values, so no value is looked into.
 */
export function touchedBetween(before: Plan, after: Plan): Touched[] {
  const touched: Touched[] = []
  for (const list of PLAN_LISTS) {
    const old: readonly Item[] = before[list]
    const now: readonly Item[] = after[list]
    if (old === now) continue
    const change = changeBetween<Item>(old, now)
    if (change && !change.reordered) {
      const items = [...change.replaced.map(([, is]) => is), ...change.added, ...change.removed]
      for (const { id } of items) touched.push({ list, id })
      continue
    }
    const was = byId(old)
    const is = byId(now)
    for (const item of now) if (was.get(item.id) !== item) touched.push({ list, id: item.id })
    for (const { id } of old) if (!is.has(id)) touched.push({ list, id })
    // the order of what was seen is its moments
    if (list === 'observations') continue
    const stayed = old.filter(({ id }) => is.has(id))
    let at = 0
    for (const { id } of now) {
      if (!was.has(id)) continue
      if (stayed[at]?.id !== id) touched.push({ list, id, moved: true })
      at += 1
    }
  }
  return touched
}
