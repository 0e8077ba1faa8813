import { type Admission, precedence } from '../link/admission'
import { type Controller, controllerOf } from '../link/controller'
import type { EachWay } from '../link/each-way'
import type { SiteIndex } from '../plan/site-index'
import { atMost } from '../quantity/limit'
import type { Run } from '../vocabulary/run'
import { type Crossing, showsPicture, situationOf } from './situation'

/**
 * Tells each need that crosses a run whose controller is shared what needs of other runs take of it before its turn. Runs that hang on one controller are given
 * together. A need that its own run refuses takes nothing, nor does one that the controller has no room for.
 */
export function withControllers(
  index: SiteIndex,
  crossings: ReadonlyMap<string, Crossing[]>,
): ReadonlyMap<string, Crossing[]> {
  const shared = new Map<string, { controller: Controller; run: Run }[]>()
  for (const id of crossings.keys()) {
    const run = index.runs.get(id)
    const controller = run && controllerOf(index, run)
    if (!controller) continue
    const key = `${controller.device}/${controller.name}`
    shared.set(key, [...(shared.get(key) ?? []), { controller, run }])
  }
  if (shared.size === 0) return crossings
  const turns = new Map(index.plan.needs.map(({ id }, at) => [id, at]))
  const told = new Map(crossings)
  for (const runs of shared.values()) {
    const before = takenBefore(
      index,
      crossings,
      runs,
      (one, other) =>
        precedence(one.need, other.need) || (turns.get(one.need.id) ?? 0) - (turns.get(other.need.id) ?? 0),
    )
    for (const { controller, run } of runs) {
      const { name, carries } = controller
      const here = before.get(run.id)
      told.set(
        run.id,
        (crossings.get(run.id) ?? []).map((crossing) => {
          const taken = here?.get(crossing.need.id)
          return taken ? { ...crossing, controller: { name, carries, before: taken } } : crossing
        }),
      )
    }
  }
  return told
}

/** What is taken of a controller on other runs before each need of a run, by run and need, the ways as on that run. */
function takenBefore(
  index: SiteIndex,
  crossings: ReadonlyMap<string, Crossing[]>,
  runs: readonly { controller: Controller; run: Run }[],
  inTurn: (one: Admission, other: Admission) => number,
): Map<string, Map<string, EachWay>> {
  const asking = runs.flatMap(({ controller, run }) => {
    const crossed = crossings.get(run.id) ?? []
    const data = new Set(crossed.flatMap((crossing) => (showsPicture(crossing) ? [] : crossing.need.id)))
    return situationOf(index, run, crossed)
      .uplink.admissions.filter(({ need }) => data.has(need.id))
      .map((admission) => ({ admission, run: run.id, controller }))
  })
  const before = new Map<string, Map<string, EachWay>>(runs.map(({ run }) => [run.id, new Map()]))
  const taken = new Map<string, { out: number; back: number }>()
  const all = { out: 0, back: 0 }
  for (const { admission, run, controller } of asking.sort((one, other) => inTurn(one.admission, other.admission))) {
    const { away, carries } = controller
    const own = taken.get(run) ?? { out: 0, back: 0 }
    const [out, back] = [all.out - own.out, all.back - own.back]
    before.get(run)?.set(admission.need.id, away === 'down' ? { down: out, up: back } : { down: back, up: out })
    const asks = away === 'down' ? admission.sent : { down: admission.sent.up, up: admission.sent.down }
    if (!atMost(all.out + asks.down, carries) || !atMost(all.back + asks.up, carries)) continue
    all.out += asks.down
    all.back += asks.up
    taken.set(run, { out: own.out + asks.down, back: own.back + asks.up })
  }
  return before
}
