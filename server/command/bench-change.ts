import { gzipSync } from 'node:zlib'
import { applyChange, replay } from '../../core/change/apply'
import type { Copy, Edit } from '../../core/change/change'
import { copyOf } from '../../core/change/copy'
import { assessAnew } from '../../core/checks/assess'
import { reassess } from '../../core/checks/reassess'
import { learnedOf } from '../../core/observe/learned'
import { observationSchema } from '../../core/observe/observation'
import type { Plan } from '../../core/plan/plan'
import { planText } from '../../core/plan/write'
import { cableKindSchema } from '../../core/vocabulary/cable'
import { laidCables } from '../../core/vocabulary/run'
import { benchSite } from './bench-site'
import { repeated } from './timing'

/** A site of 2,000 runs, 5,000 cables and 25,000 observations. */
export const largeSite = (): Plan => benchSite(2000, 5000)

/** A note on one run, another each time, so that no answer is kept from before. */
export function noteOn(copy: Copy, number: number): Edit {
  const run = copy.plan.runs[(number * 37) % copy.plan.runs.length] as Plan['runs'][number]
  return { list: 'runs', id: run.id, base: copy.place, value: { ...run, route: { length: 0.2 + (number % 9) / 10 } } }
}

/** So many cables that lie in runs are of one kind: what is tried of one of them is told of all. */
export const ALIKE = 100

function ofOneKind(plan: Plan): { alike: Plan; ids: string[] } {
  const ids = plan.runs.flatMap(laidCables).slice(0, ALIKE)
  const chosen = new Set(ids)
  const ends = { connector: 'type-c', gender: 'plug' } as const
  const kind = cableKindSchema.parse({ id: 'alike', name: 'Alike', ends: [ends, ends], grade: 'gen2' })
  const cables = plan.cables.map((cable) => (chosen.has(cable.id) ? { ...cable, kind: kind.id } : cable))
  return { alike: { ...plan, kinds: [...plan.kinds, kind], cables }, ids }
}

/** The median of doing something for each of a row, each upon what came of the last. */
function inTurn<Item, State>(row: readonly Item[], first: State, step: (state: State, item: Item) => State): number {
  let state = first
  let at = 0
  return repeated(row.length - 3, () => {
    state = step(state, row[at++] as Item)
  })
}

/** What one change of a large site costs in the core: applied, caught up with, and assessed again. */
export function benchChange() {
  const plan = largeSite()
  const first = copyOf(plan)
  learnedOf(plan)
  const assessed = assessAnew(plan)
  let copy = first
  let number = 0
  // one change upon the other, as a site is worked on
  const changed = (edits: (copy: Copy) => Edit[]) => {
    number += 1
    const applied = applyChange(copy, { edits: edits(copy) })
    if (applied.outcome !== 'applied') throw new Error('the bench made a change that does not fit')
    copy = applied.copy
    return applied
  }
  const noted = () => changed((at) => [noteOn(at, number)])
  const apply = repeated(60, () => void noted())
  copy = first
  const logged = Array.from({ length: 63 }, noted)
  const caughtUp = inTurn(logged, first, (at, { edits }) => replay(at, edits).copy)
  const again = inTurn(logged, assessed, (site, applied) => reassess(site, applied.copy.plan))
  const anew = repeated(5, () => void assessAnew({ ...plan, policy: { ...plan.policy } }))
  const seen = {
    at: '2026-11-25T10:00:00.000Z',
    subject: { cable: 'c00007' },
  }
  let site = assessAnew(copy.plan)
  const written = (value: object) => {
    const id = `seen-${number}`
    const entity = observationSchema.parse({ ...seen, ...value, id })
    site = reassess(site, changed(() => [{ list: 'observations', id, base: null, value: entity }]).copy.plan)
  }
  const observe = repeated(60, () => written({ kind: 'reading', measure: 'warmth', felt: 'cool' }))
  const { alike, ids } = ofOneKind(plan)
  copy = copyOf(alike)
  site = assessAnew(alike)
  const record = repeated(60, () => {
    const cameUp = number % 2 ? null : 'gen2x1'
    const trial = { kind: 'trial', basis: 'soaked', tried: 'gen2x1', cameUp, seconds: 60 }
    written({ subject: { cable: ids[number % ids.length] }, ...trial })
  })
  const text = planText(plan)
  return {
    apply,
    caughtUp,
    again,
    anew,
    observe,
    record,
    megabytes: text.length / 1e6,
    zipped: gzipSync(text).length / 1e3,
  }
}
