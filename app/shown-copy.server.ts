import type { Copy } from '../core/change/change'
import { copyOf } from '../core/change/copy'
import { type Detail, planWithout } from '../core/people/shown'
import type { Held } from '../server/sites/copies'

const shown = new WeakMap<Copy, Map<string, Held>>()

/** The name of a site as it is shown to somebody from whom some of it is kept, so that nothing that is kept of it is taken for all of it. */
export const identityWithout = (identity: string, hides: readonly Detail[]): string =>
  hides.length === 0 ? identity : `${identity}-without-${hides.join('-')}`

/** A site as it is shown to somebody: what they are kept from is not in it. Whatever anybody is told of a site is made of this. */
export function shownTo(held: Held, hides: readonly Detail[]): Held {
  if (hides.length === 0) return held
  const known = shown.get(held.copy) ?? new Map<string, Held>()
  shown.set(held.copy, known)
  const identity = identityWithout(held.identity, hides)
  const found = known.get(identity) ?? {
    identity,
    copy: { ...copyOf(planWithout(held.copy.plan, hides)), place: held.copy.place },
  }
  known.set(identity, found)
  return found
}
