import { seenAfter } from '../observe/links'
import { bestMode, isBetterMode, LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { Policy } from '../vocabulary/policy'
import { type Carried, carries, type Doubt, dropOf, type Lack } from './chain'
import { type LaidRun, oughtOf } from './lay'
import { portModes } from './port-modes'

/** What is taken for granted: `believed` what comes up by all that is known, `sure` only what nothing speaks against. */
export type Trust = 'believed' | 'sure'

/** The USB or Thunderbolt mode a run comes up in, and what keeps it from the best its two ports share. */
export type DataLink = {
  mode: LinkMode | null
  /** The best mode both ports share; null where they have none in common. */
  shared: LinkMode | null
  /** Why `shared` does not come up; null where it does. */
  lack: Lack<LinkMode> | null
  /** What speaks against relying on `mode`. */
  doubt: Doubt | null
}

/**
 * The mode that comes up: the best one that the host port, every lead at its length and the far port all support. A run
 * with no lead yet comes up in nothing. A link that drops comes up all the same, and drops again: until somebody saw it hold in a lower mode, no lower mode is sure.
 */
export function dataLink(laid: LaidRun, policy: Policy, trust: Trust = 'believed'): DataLink {
  const common = modesInCommon(laid)
  const shared = bestMode(common)
  if (shared === null || laid.leads.length === 0) return { mode: null, shared, lack: null, doubt: null }
  let mode: LinkMode | null = null
  let doubt: Doubt | null = null
  let lack: Lack<LinkMode> | null = null
  for (const [candidate, carried] of carriedModes(laid, common, policy)) {
    const missing = trust === 'sure' ? sureLack(carried, candidate) : carried.lack
    if (missing === null) {
      if (isBetterMode(candidate, mode)) {
        mode = candidate
        doubt = carried.doubt
      }
    } else if (candidate === shared) lack = missing
  }
  return { mode, shared, lack, doubt }
}

/** What keeps a run from a mode that both its ports have; null where it comes up. */
export const lackOfMode = (laid: LaidRun, mode: LinkMode, policy: Policy): Lack<LinkMode> | null =>
  carriedModes(laid, modesInCommon(laid), policy).get(mode)?.lack ?? null

/** The modes that both ports of a run have. */
export function modesInCommon({ from, to }: Pick<LaidRun, 'from' | 'to'>): LinkMode[] {
  const [near, far] = [portModes(from.port), portModes(to.port)]
  return LINK_MODES.filter((mode) => near.has(mode) && far.has(mode))
}

const carriedBy = new WeakMap<LaidRun, Map<LinkMode, Carried>>()

/** How each mode that two ports share fares over a run; asked twice of one run, once for what is believed and once for what is sure. */
function carriedModes(laid: LaidRun, common: readonly LinkMode[], policy: Policy): ReadonlyMap<LinkMode, Carried> {
  const known = carriedBy.get(laid)
  if (known) return known
  const alone = new Map(common.map((mode) => [mode, carries(laid, mode, policy)]))
  const drops = dropping(laid, alone)
  const made = new Map([...alone].map(([mode, carried]) => [mode, withDrops(carried, mode, drops, laid)]))
  carriedBy.set(laid, made)
  return made
}

/** Whether nothing that two ports could come up in is doubted. */
export function nothingDoubted(laid: LaidRun): boolean {
  for (const { doubt } of carriedBy.get(laid)?.values() ?? []) if (doubt) return false
  return true
}

/** Whether the pair of USB 2.0 gets through beside a faster link: fast ports all have it, and every lead must (USB Type-C, from memory). */
export const hasUsb2Pair = (laid: LaidRun, policy: Policy): boolean =>
  laid.leads.length > 0 &&
  [laid.from, laid.to].every(({ port }) => portModes(port).size > 0) &&
  carries(laid, 'usb2', policy).lack === null

const sureLack = ({ lack, doubt }: Carried, mode: LinkMode): Lack<LinkMode> | null =>
  lack ?? (doubt && { why: 'doubted', lead: doubt.lead, mode, doubt })

/** A mode in which the link drops here, or may: it did so in another socket. */
type Drop = { mode: LinkMode; doubt: Doubt; at: string | null }

function dropping(laid: LaidRun, alone: ReadonlyMap<LinkMode, Carried>): Drop[] {
  const drops: Drop[] = []
  for (const [mode, { lack, doubt }] of alone) {
    if (doubt?.drops) drops.push({ mode, doubt, at: null })
    if (lack?.why !== 'failed') continue
    const drop = dropOf(laid, mode)
    if (!drop) continue
    drops.push({ mode, doubt: { lead: lack.lead, why: 'drops', held: 0, failed: 0, drops: true }, at: drop.series.at })
  }
  return drops
}

/** A mode below one in which the link drops is doubted as well, until it was seen to hold after that. */
function withDrops(carried: Carried, mode: LinkMode, drops: readonly Drop[], laid: LaidRun): Carried {
  if (carried.lack || carried.doubt) return carried
  const above = drops.find((drop) => isBetterMode(drop.mode, mode))
  if (!above) return carried
  const { lead } = above.doubt
  const seen = [...lead.known.links, ...laid.seen.links.map((series) => ({ ...series, spot: {} }))]
  if (seenAfter(seen, mode, oughtOf(lead), laid.here, above.at ?? '')) return carried
  return { ...carried, doubt: above.doubt }
}
