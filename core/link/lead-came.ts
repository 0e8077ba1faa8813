import { mostOf, reliedOn } from '../observe/figures'
import { markedWatts } from '../observe/known'
import { longestOf } from '../observe/ledger'
import { isHold, seenOfMode } from '../observe/links'
import { seenOfPicture } from '../observe/pictures'
import type { SiteIndex } from '../plan/site-index'
import { atLeast } from '../quantity/limit'
import { carriesUsb } from '../standards/connectors'
import type { Cable } from '../vocabulary/cable'
import { type LaidLead, looseLead, oughtOf } from './lay'

/** What all tries of a lead come to for whoever has to keep it or send it back. */
export type LeadCame = 'open' | 'passed' | 'failed'

/** A device draws a little less than it negotiated (common practice). */
export const SHARE_OF_WATTS = 0.9

/**
 * Whether a lead has passed, failed or is still open. Whatever it failed counts, wherever that was, until it is cleared. A pass is what the lead is for: watts of a
 * charging lead, a picture of one with plugs for nothing else, otherwise a link; held for as long as the site asks.
 */
export function leadCame(index: SiteIndex, cable: Cable): LeadCame {
  const lead = looseLead(index, cable)
  if (lead.known.hot !== null || hasFailed(lead)) return 'failed'
  return hasPassed(lead) ? 'passed' : 'open'
}

function hasFailed(lead: LaidLead): boolean {
  const { known, asks } = lead
  const tried = oughtOf(lead)
  return (
    known.links.some(({ tried: mode, copied }) => !copied && seenOfMode(known.links, mode, tried, null).failed > 0) ||
    known.pictures.some(({ rate }) => seenOfPicture(known.pictures, rate, asks, null).failed > 0) ||
    known.watts.some((series) => {
      const most = reliedOn(series, 'lead')
      return most !== null && !atLeast(most, markedWatts(known) * SHARE_OF_WATTS)
    })
  )
}

function hasPassed({ cable, known, asks }: LaidLead): boolean {
  if (!cable.ends.every(({ connector }) => carriesUsb(connector)))
    return known.pictures.some((picture) => picture.held && longestOf(picture) >= asks.soak)
  if (known.grade.value === 'charge-only')
    return known.watts.some((series) => atLeast(mostOf(series).watts, markedWatts(known) * SHARE_OF_WATTS))
  return known.links.some((series) => !series.copied && isHold(series) && longestOf(series) >= asks.soak)
}
