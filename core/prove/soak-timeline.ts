import { countedOf } from '../observe/counted'
import type { Observation } from '../observe/observation'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { isRunSoak } from '../vocabulary/session'

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
  /** Instants of drops, ms, as far as they were noted. */
  at: readonly number[]
}

/** Every soak of a run as it lay, the newest first: those under way, then those that ended. Of a plan with its observations. */
export function soaksTold({ observations, runs, soaks, site }: Plan): SoakTold[] {
  const tags = byId(runs)
  const tagOf = (run: string): string => tags.get(run)?.tag ?? run
  const now = soaks.filter(isRunSoak).map((soak): SoakTold => {
    const from = Date.parse(soak.since)
    const at = (soak.drops ?? []).map((drop) => Date.parse(drop))
    const to = from + soak.seconds * 1000
    return { run: soak.run, tag: tagOf(soak.run), from, to, underWay: true, drops: at.length, at }
  })
  const ofRuns = observations.filter(({ subject, kind }) => 'run' in subject || kind === 'retraction')
  const past = countedOf(ofRuns, site.practice).flatMap((seen): SoakTold[] => {
    const watched = watchedOf(seen)
    if (watched === null || !('run' in seen.subject) || !tags.has(seen.subject.run)) return []
    const { run } = seen.subject
    const to = Date.parse(seen.at)
    return [{ run, tag: tagOf(run), from: to - watched.seconds * 1000, to, underWay: false, ...watched.dropped }]
  })
  return [...now, ...past.sort((one, other) => other.to - one.to)]
}

/** How long a link or a picture was watched, and its drops; null where it was no soak. */
function watchedOf(seen: Observation): { seconds: number; dropped: Pick<SoakTold, 'drops' | 'at'> } | null {
  const isSoak = seen.kind === 'trial' ? seen.basis === 'soaked' : seen.kind === 'reading' && seen.measure === 'picture'
  if (!isSoak || !('seconds' in seen) || !seen.seconds) return null
  const at = ('drops' in seen ? (seen.drops ?? []) : []).map((drop) => Date.parse(drop))
  const failed = seen.kind === 'trial' ? seen.cameUp === null : 'held' in seen && !seen.held
  return { seconds: seen.seconds, dropped: { drops: Math.max(at.length, Number(failed)), at } }
}
