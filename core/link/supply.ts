import type { WattsSeen } from '../observe/learnt'
import type { Socket } from '../plan/site-index'
import { portKey } from '../plan/site-index'
import { type Level, negotiate } from '../power/negotiate'
import { atMost } from '../quantity/limit'
import type { Watts } from '../quantity/watts'
import { commonPractice, type Source } from '../standards/source'
import type { LaidLead, LaidRun } from './lay'

/** What arrives over a run from one of its sockets at the other. */
export type Arriving = {
  watts: Watts
  level: Level | null
  /** What the supply would give through a lead without limits. */
  offered: Watts
  /** What keeps it from being more; `seen` where somebody measured it. */
  limit: 'supply' | 'lead' | 'device' | 'seen'
  /** The reading that decides it, and the lead it was the limit of; no lead: it was read on this very run. */
  seen: { reading: WattsSeen; lead: LaidLead | null } | null
  /** A lead was the limit with another charger: it may be here as well, above the watts that it was shown to pass here. */
  elsewhere: { reading: WattsSeen; lead: LaidLead; shown: Watts } | null
  source: Source
}

const measured = commonPractice('watts that were measured, which belong to a charger, a lead and a device together')

/**
 * The watts that arrive over a run: what charger, leads and device agree on, but what somebody measured there where somebody did. Watts read on this very run
 * are what arrives. A lead that was the limit with this charger lets no more through; with another charger it is told, as a ceiling may belong to a pair.
 */
export function arriving(laid: Pick<LaidRun, 'leads' | 'seen'>, giver: Socket, taker: Socket): Arriving {
  const limits = laid.leads.map(({ known }) => ({ amps: known.amps.value, volts: known.volts.value }))
  const agreed = { ...negotiate(giver.port, limits, taker.port.accepts), seen: null, elsewhere: null }
  const onRun = lastWatts(laid.seen.watts)
  if (onRun) {
    if (onRun.least && onRun.watts <= agreed.watts) return agreed
    return { ...agreed, watts: onRun.watts, limit: 'seen', seen: { reading: onRun, lead: null }, source: measured }
  }
  const charger = portKey({ device: giver.device.id, port: giver.port.id })
  let now: Arriving = agreed
  for (const lead of laid.leads) {
    const isThere = ({ spot }: WattsSeen): boolean =>
      spot.port === undefined || spot.port === charger || spot.far === charger
    const there = ceiling(lead.known.watts.filter(isThere))
    if (there && there.watts < now.watts) {
      now = { ...now, watts: there.watts, limit: 'seen', seen: { reading: there, lead }, source: measured }
      continue
    }
    const other = ceiling(lead.known.watts.filter((reading) => !isThere(reading)))
    const shown = Math.max(0, ...lead.known.watts.filter(isThere).map(({ watts }) => watts))
    if (other && !atMost(now.watts, other.watts)) now = { ...now, elsewhere: { reading: other, lead, shown } }
  }
  return now
}

/** The last watts read, of one moment the fewer; a lower bound gives way to what was read before it where that was more. */
function lastWatts(readings: readonly WattsSeen[]): WattsSeen | null {
  let last: WattsSeen | null = null
  for (const reading of readings) {
    if (last === null || reading.watts > last.watts) {
      if (last === null || reading.at > last.at || last.least) last = reading
    } else if (!reading.least && reading.at >= last.at) last = reading
  }
  return last
}

/** The most a lead let through where it was the limit, unless more arrived there later. */
function ceiling(readings: readonly WattsSeen[]): WattsSeen | null {
  let most: WattsSeen | null = null
  for (const reading of readings) {
    if (reading.limit === 'lead' && (most === null || reading.at > most.at || reading.watts < most.watts))
      most = reading
    else if (most !== null && reading.watts > most.watts && reading.at > most.at) most = null
  }
  return most
}
