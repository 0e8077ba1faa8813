import { runRecords } from '../observe/learned'
import type { SiteIndex } from '../plan/site-index'
import { isRunSoak } from '../vocabulary/session'
import { keptWith } from '../work/kept'

/** A soak of a run, past or under way: from when to when, how often it dropped, and when, where each drop was noted. */
export type SoakTold = {
  run: string
  tag: string
  /** ms */
  from: number
  /** When it ended, or is good; ms. */
  to: number
  underWay: boolean
  drops: number
  /** Instants of drops, ms; of a past soak only their number is kept at hand. */
  at: readonly number[]
}

/** Every soak of a run as it lies, the newest first: those under way, then those that ended. */
export const soaksTold = keptWith((index: SiteIndex): readonly SoakTold[] => {
  const now = index.plan.soaks.filter(isRunSoak).map((soak): SoakTold => {
    const from = Date.parse(soak.since)
    const at = (soak.drops ?? []).map((drop) => Date.parse(drop))
    return {
      run: soak.run,
      tag: index.runs.get(soak.run)?.tag ?? soak.run,
      from,
      to: from + soak.seconds * 1000,
      underWay: true,
      drops: at.length,
      at,
    }
  })
  const past = index.plan.runs.flatMap(({ id, tag }) =>
    runRecords(index.learned, id).flatMap(({ learnt }) =>
      [
        ...learnt.trials.flatMap(({ at, basis, seconds = 0, drops = 0 }) =>
          basis === 'soaked' && seconds > 0 ? [{ at, seconds, drops }] : [],
        ),
        ...learnt.pictures.flatMap(({ at, held, seconds = 0 }) =>
          seconds > 0 ? [{ at, seconds, drops: held ? 0 : 1 }] : [],
        ),
      ].map(({ at, seconds, drops }): SoakTold => {
        const to = Date.parse(at)
        return { run: id, tag, from: to - seconds * 1000, to, underWay: false, drops, at: [] }
      }),
    ),
  )
  return [...now, ...past.sort((one, other) => other.to - one.to)]
})
