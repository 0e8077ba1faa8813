import { type Trial, trialOf } from '../observe/trials'
import type { BitsPerSecond } from '../quantity/rate'
import { LINK_MODES, pairRate } from '../standards/link-modes'
import { type DisplayPortLink, displayPortLane, hdmiLink, laneRate } from '../standards/picture-links'
import type { Reach } from '../standards/reach'
import { chainLack } from './chain'
import type { LaidLead } from './lay'

export type LeadPicture = { family: 'displayport' | 'hdmi'; name: string; rate: BitsPerSecond }

const failedModes = ({ known }: LaidLead, controller: string | undefined) =>
  LINK_MODES.flatMap((mode) => {
    const verdict = trialOf(known.trials, mode, controller)
    return verdict && !verdict.passed ? [{ mode, trial: verdict.trial }] : []
  })

/** The trial that rules out the least rate; null where none rules out any. */
export const failedTrial = (lead: LaidLead, controller: string | undefined): Trial | null =>
  failedModes(lead, controller).sort((one, other) => pairRate(one.mode) - pairRate(other.mode))[0]?.trial ?? null

/** What of its DisplayPort rows is left to a lead: what its pairs failed in data they do not carry as a picture either. */
export function pictureRows(lead: LaidLead, controller: string | undefined): readonly Reach<DisplayPortLink>[] {
  const { trials } = lead.known
  if (trials.length === 0 || !lead.cable.ends.some((end) => end.connector === 'type-c')) return lead.reach.displayport
  const failed = failedModes(lead, controller).map(({ mode }) => pairRate(mode))
  const lowest = Math.min(...failed)
  return lead.reach.displayport.filter(({ mode }) => laneRate(mode) < lowest)
}

/** The best picture one lead carries at its length: an HDMI level, or four lanes of a DisplayPort link. */
export function leadPicture(lead: LaidLead): LeadPicture | null {
  const carried = <T>(rows: readonly Reach<T>[]): T[] =>
    rows
      .map((row) => row.mode)
      .filter(
        (mode) =>
          chainLack(
            [lead],
            mode,
            () => rows,
            () => false,
          ) === null,
      )
  const level = carried(lead.reach.hdmi).at(-1)
  if (level !== undefined) return { family: 'hdmi', name: hdmiLink[level].name, rate: hdmiLink[level].payload }
  let widest: LeadPicture | null = null
  for (const link of carried(pictureRows(lead, undefined))) {
    const { name, payload } = displayPortLane[link]
    if (payload * 4 > (widest?.rate ?? 0))
      widest = { family: 'displayport', name: `DisplayPort ${name} x4`, rate: payload * 4 }
  }
  return widest
}
