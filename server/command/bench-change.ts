import { gzipSync } from 'node:zlib'
import { applyChange, replay } from '../../core/change/apply'
import type { Copy, Edit } from '../../core/change/change'
import { copyOf } from '../../core/change/copy'
import { assessAnew } from '../../core/checks/assess'
import { reassess } from '../../core/checks/reassess'
import { learnedOf } from '../../core/observe/learned'
import type { Plan } from '../../core/plan/plan'
import { planText } from '../../core/plan/write'
import { benchSite } from './bench-site'
import { repeated } from './timing'

/** A site of 2,000 runs, 5,000 cables and 25,000 observations. */
export const largeSite = (): Plan => benchSite(2000, 5000)

/** A note on one run, another each time, so that no answer is kept from before. */
export function noteOn(copy: Copy, number: number): Edit {
  const run = copy.plan.runs[(number * 37) % copy.plan.runs.length] as Plan['runs'][number]
  return { list: 'runs', id: run.id, base: copy.place, value: { ...run, route: { length: 0.2 + (number % 9) / 10 } } }
}

/** What one change of a large site costs in the core: applied, caught up with, and assessed again. */
export function benchChange() {
  const plan = largeSite()
  const copy = copyOf(plan)
  learnedOf(plan)
  const assessed = assessAnew(plan)
  let number = 0
  const changed = () => {
    number += 1
    const applied = applyChange(copy, { edits: [noteOn(copy, number)] })
    if (applied.outcome !== 'applied') throw new Error('the bench made a change that does not fit')
    return applied
  }
  const afterwards = Array.from({ length: 63 }, changed)
  let at = 0
  const next = () => afterwards[at++ % afterwards.length] as (typeof afterwards)[number]
  const apply = repeated(60, () => void changed())
  const caughtUp = repeated(15, () => void replay(copy, next().edits))
  const again = repeated(60, () => void reassess(assessed, next().copy.plan))
  const anew = repeated(5, () => void assessAnew({ ...plan, policy: { ...plan.policy } }))
  const seen = {
    id: 'seen',
    at: '2026-11-25T10:00:00.000Z',
    subject: { cable: 'c00007' },
    kind: 'reading',
    measure: 'warmth',
    felt: 'cool',
  } as const
  const observe = repeated(15, () => {
    const applied = applyChange(copy, { edits: [{ list: 'observations', id: 'seen', base: null, value: seen }] })
    if (applied.outcome === 'applied') reassess(assessed, applied.copy.plan)
  })
  const text = planText(plan)
  return { apply, caughtUp, again, anew, observe, megabytes: text.length / 1e6, zipped: gzipSync(text).length / 1e3 }
}
