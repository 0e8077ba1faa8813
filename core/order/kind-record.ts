import { knownOf } from '../link/lay'
import { leadCame } from '../link/lead-came'
import { ranHotOfKind } from '../link/record'
import { wasTried } from '../observe/known'
import type { SiteIndex } from '../plan/site-index'
import type { CableKind } from '../vocabulary/cable'
import { keptWith } from '../work/kept'

/** What cables of one kind did on a site: how many were tried, how many of these held all they were tried with, how many got hot, and whether it is avoided. */
export type KindDone = { tried: number; held: number; hot: number; avoid: CableKind['avoid'] | null }

/** What each kind did on a site, by its name in small letters: what sites can tell each other of. Kinds of which nothing is known are left out. */
export const kindsDone = keptWith((index: SiteIndex): ReadonlyMap<string, KindDone> => {
  const done = new Map<string, KindDone>()
  for (const { id, name, avoid } of index.plan.kinds) {
    const tried = (index.cablesOfKind.get(id) ?? []).filter((cable) => wasTried(knownOf(index, cable)))
    const hot = ranHotOfKind(index, id)
    if (tried.length === 0 && hot === 0 && !avoid) continue
    const held = tried.filter((cable) => leadCame(index, cable) !== 'failed')
    done.set(name.toLowerCase(), { tried: tried.length, held: held.length, hot, avoid: avoid ?? null })
  }
  return done
})

/** What a kind did on other sites of this Hallway together. */
export type DoneElsewhere = {
  sites: number
  tried: number
  held: number
  hot: number
  avoided: readonly NonNullable<CableKind['avoid']>[]
}

/** What kinds did on several sites, together, by their names. */
export function together(sites: readonly ReadonlyMap<string, KindDone>[]): Record<string, DoneElsewhere> {
  const all = new Map<string, DoneElsewhere>()
  for (const done of sites)
    for (const [name, { tried, held, hot, avoid }] of done) {
      const before = all.get(name) ?? { sites: 0, tried: 0, held: 0, hot: 0, avoided: [] }
      all.set(name, {
        sites: before.sites + 1,
        tried: before.tried + tried,
        held: before.held + held,
        hot: before.hot + hot,
        avoided: avoid ? [...before.avoided, avoid] : before.avoided,
      })
    }
  return Object.fromEntries(all)
}
