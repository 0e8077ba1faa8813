import type { BitsPerSecond } from '../quantity/rate'
import { displayPortLane, hdmiLink } from '../standards/picture-links'
import type { Reach } from '../standards/reach'
import { chainLack } from './chain'
import type { LaidLead } from './lay'

export type LeadPicture = { family: 'displayport' | 'hdmi'; name: string; rate: BitsPerSecond }

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
  for (const link of carried(lead.reach.displayport)) {
    const { name, payload } = displayPortLane[link]
    if (payload * 4 > (widest?.rate ?? 0))
      widest = { family: 'displayport', name: `DisplayPort ${name} x4`, rate: payload * 4 }
  }
  return widest
}
