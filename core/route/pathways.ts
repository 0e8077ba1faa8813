import type { Metres } from '../quantity/length'

/** A way a cable may take between two places, and what holds there. */
export type Pathway = {
  id: string
  from: string
  to: string
  length: Metres
  /** "plenum", "outdoors", "beside mains": what somebody must ask about, never what Hallway declares allowed. */
  conditions?: readonly string[]
}

export type Way = { pathways: string[]; length: Metres; conditions: string[] }

/**
 * The shortest way between two places over the pathways of a site, which may be walked either way, leaving out those with a condition
 * in `avoid`. Dijkstra's algorithm; of equal ways the one whose pathways come first by id. Null where there is none.
 */
export function shortestWay(
  pathways: readonly Pathway[],
  from: string,
  to: string,
  avoid: readonly string[] = [],
): Way | null {
  const usable = pathways
    .filter((pathway) => !pathway.conditions?.some((condition) => avoid.includes(condition)))
    .sort((one, other) => (one.id < other.id ? -1 : 1))
  const doors = new Map<string, { pathway: Pathway; beyond: string }[]>()
  for (const pathway of usable) {
    for (const [here, beyond] of [
      [pathway.from, pathway.to],
      [pathway.to, pathway.from],
    ] as const) {
      doors.set(here, [...(doors.get(here) ?? []), { pathway, beyond }])
    }
  }
  const reached = new Map<string, { length: Metres; by: Pathway | null }>([[from, { length: 0, by: null }]])
  const open = new Set([from])
  while (open.size > 0) {
    const here = nearest(open, reached)
    if (here === to) return wayBack(reached, from, to)
    open.delete(here)
    const so = reached.get(here)?.length ?? 0
    for (const { pathway, beyond } of doors.get(here) ?? []) {
      const length = so + pathway.length
      if (length < (reached.get(beyond)?.length ?? Number.POSITIVE_INFINITY)) {
        reached.set(beyond, { length, by: pathway })
        open.add(beyond)
      }
    }
  }
  return null
}

function nearest(open: ReadonlySet<string>, reached: ReadonlyMap<string, { length: Metres }>): string {
  let best = ''
  let least = Number.POSITIVE_INFINITY
  for (const place of open) {
    const length = reached.get(place)?.length ?? Number.POSITIVE_INFINITY
    if (length < least) {
      least = length
      best = place
    }
  }
  return best
}

function wayBack(reached: ReadonlyMap<string, { length: Metres; by: Pathway | null }>, from: string, to: string): Way {
  const way: Pathway[] = []
  for (let here = to; here !== from; ) {
    const by = reached.get(here)?.by
    if (!by) break
    way.unshift(by)
    here = by.from === here ? by.to : by.from
  }
  return {
    pathways: way.map((pathway) => pathway.id),
    length: reached.get(to)?.length ?? 0,
    conditions: [...new Set(way.flatMap((pathway) => pathway.conditions ?? []))].sort(),
  }
}
