import { trialSeen } from '../bench/take-reading'
import { whereAt } from '../bench/where'
import type { Shown } from '../change/changes/searches'
import type { Tried, Unwritten } from '../observe/observation'
import type { Symptom, TryName } from '../vocabulary/search'
import type { FollowUp } from './cause'
import type { Scene } from './scene'

/** So long a swap is looked at before somebody says that it is gone. */
const LOOKED_SECONDS = 60

/** What a try showed of the lead that was put in: where the trouble went away with it, it came up as planned in this socket. */
export function shownByTry(scene: Scene, what: TryName, outcome: string, put: string | undefined): Shown[] {
  const { planned, spares, run, index } = scene
  const spare = spares.find(({ tag }) => tag === put)
  if (what !== 'another lead' || outcome !== 'gone' || !spare || planned === null) return []
  const seen = trialSeen({ tried: planned, seen: planned, seconds: LOOKED_SECONDS, soak: LOOKED_SECONDS })
  return [{ cable: spare.id, seen: { ...seen, where: whereAt(index, run.from, run.to) } }]
}

/** How a symptom is kept as a trial of the run: what came up in place of the planned mode. */
const CAME_UP: Partial<Record<Symptom, 'usb2' | 'nothing' | 'dropped'>> = {
  'usb2 only': 'usb2',
  'not detected': 'nothing',
  'charges only': 'nothing',
  drops: 'dropped',
}

/** What is learnt of a run as it lay once its lead was found to be the fault: it failed there, and the record says so. */
export function shownByEnd(
  { planned, run, index }: Scene,
  followUp: FollowUp,
  symptoms: readonly Symptom[],
): Unwritten<Tried>[] {
  if (planned === null || (followUp !== 'replace lead' && followUp !== 'shorter or better lead')) return []
  const seen = symptoms.flatMap((symptom) => CAME_UP[symptom] ?? []).find((came) => came !== planned)
  if (seen === undefined) return []
  return [
    {
      ...trialSeen({ tried: planned, seen, seconds: LOOKED_SECONDS, soak: LOOKED_SECONDS }),
      where: whereAt(index, run.from, run.to),
    },
  ]
}
