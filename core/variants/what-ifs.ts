import type { Crossing } from '../checks/situation'
import { lesserModes } from '../picture/fit'
import { formatPictureMode } from '../picture/mode-text'
import type { Plan } from '../plan/plan'
import { patch } from '../plan/put'
import { portKey, type SiteIndex, type Socket, socketAt } from '../plan/site-index'
import { formatWatts } from '../quantity/watts'
import { type Need, needLabel } from '../vocabulary/need'
import { otherChoices } from '../vocabulary/policy-choices'
import type { Run } from '../vocabulary/run'
import { plannedFor } from './visitors'

/** Something else than a run itself that may be tried on it: what a site goes by, who sits there, what the supply gives, what a picture asks. */
export type WhatIf = {
  /** What people choose it by, under the head of its sort; no two of a run have the same. */
  words: string
  sort: WhatIfSort
  /** The plan, or the part of it the run can bear on, as it would then be. */
  change(plan: Plan): Plan
}
export type WhatIfSort = 'the site goes' | 'who sits there' | 'the supply' | 'the picture'

const SUPPLIES = [45, 65, 100, 140, 240]
/** So many steps down of a picture are offered. */
const MOST_STEPS = 5

/** What can be tried on some runs that one need or another takes, beside what a form of theirs changes. `crossing` answers what crosses each. */
export function whatIfsFor(
  index: SiteIndex,
  runs: readonly Run[],
  crossing: ReadonlyMap<string, readonly Crossing[]>,
): WhatIf[] {
  const needs = new Map<string, Need>()
  const supplies = new Map<string, Socket>()
  for (const run of runs)
    for (const { need, way } of crossing.get(run.id) ?? []) {
      needs.set(need.id, need)
      const end = way === 'down' ? run.from : run.to
      if (need.kind === 'power') supplies.set(portKey(end), socketAt(index, end))
    }
  const hosts = new Set(runs.flatMap(({ from, to }) => [from.device, to.device]))
  return distinct([
    ...policies(index),
    ...[...hosts].flatMap((host) => [...visitors(index, host)]),
    ...[...supplies.values()].flatMap((socket) => [...supplied(socket)]),
    ...[...needs.values()].flatMap((need) => [...pictured(index, need)]),
  ])
}

const policies = ({ plan }: SiteIndex): WhatIf[] =>
  otherChoices(plan.policy).map(({ choice, goes }) => ({
    words: goes,
    sort: 'the site goes',
    change: (now) => ({ ...now, policy: { ...now.policy, ...choice } }),
  }))

function* visitors({ plan, devices }: SiteIndex, id: string): Iterable<WhatIf> {
  const host = devices.get(id)
  for (const visitor of plan.devices.filter(({ visits }) => visits === id))
    if (host) yield { words: visitor.name, sort: 'who sits there', change: (now) => plannedFor(now, host, visitor) }
}

function* supplied({ device, port }: Socket): Iterable<WhatIf> {
  const { levels: _, ...plain } = port
  for (const watts of SUPPLIES.filter((each) => each !== port.gives))
    yield {
      words: `${device.name} gives ${formatWatts(watts)}`,
      sort: 'the supply',
      change: (now) =>
        patch(now, 'devices', device.id, ({ pool: __, ...each }) => ({
          ...each,
          ports: each.ports.map((own) => (own.id === port.id ? { ...plain, gives: watts } : own)),
        })),
    }
}

function* pictured({ devices }: SiteIndex, need: Need): Iterable<WhatIf> {
  if (need.kind !== 'picture') return
  const label = needLabel(need, devices)
  const { uncompressed, ...open } = need
  yield {
    words: `${label} ${uncompressed ? 'may be compressed' : 'without compression'}`,
    sort: 'the picture',
    change: (now) => patch(now, 'needs', need.id, () => (uncompressed ? open : { ...open, uncompressed: true })),
  }
  for (const { mode } of [...lesserModes(need.mode)].slice(0, MOST_STEPS))
    yield {
      words: `${label} at ${formatPictureMode(mode)}`,
      sort: 'the picture',
      change: (now) => patch(now, 'needs', need.id, () => ({ ...need, mode })),
    }
}

/** Two displays may be called alike: the second is told by a number. */
function distinct(whatIfs: readonly WhatIf[]): WhatIf[] {
  const count = new Map<string, number>()
  return whatIfs.map((whatIf) => {
    const number = (count.get(whatIf.words) ?? 0) + 1
    count.set(whatIf.words, number)
    return number === 1 ? whatIf : { ...whatIf, words: `${whatIf.words} (${number})` }
  })
}
