import { knownOf, triedLead } from '../link/lay'
import { cameIn } from '../link/record'
import { isGood } from '../observe/came'
import type { LinkSeries } from '../observe/links'
import type { SiteIndex } from '../plan/site-index'
import { exactShare } from '../quantity/intervals'
import type { SuccessRate } from '../quantity/statistics'
import type { LinkMode } from '../standards/link-modes'
import type { Cable } from '../vocabulary/cable'
import type { PortSite } from '../vocabulary/device'
import { laidCables } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import { FEWEST_TOLD } from './record'

/** What cables of one kind did in one mode on one sort of socket, at one device, in one chain: each cable counted once by what all its tries there come to. */
export type SocketCell = {
  kind: string
  mode: LinkMode
  /** Where the socket sits; null: nobody noted it. */
  sits: PortSite | null
  /** What hung at the other end. */
  far: string | null
  /** The kinds of all leads of the run, where it was a chain. */
  chain: string | null
  held: number
  tried: number
}

export type SocketRow = SocketCell & { rate: SuccessRate }

/** What a site knows of its cables by socket, device and chain. Cables of no kind are left out. */
export const socketRecordOf = keptWith((index: SiteIndex): readonly SocketCell[] => {
  const cells = new Map<string, SocketCell>()
  for (const { id: kindId, name } of index.plan.kinds)
    for (const cable of index.cablesOfKind.get(kindId) ?? []) {
      const tried = new Map<string, { cell: SocketCell; links: LinkSeries[] }>()
      for (const series of knownOf(index, cable).links) {
        if (series.copied) continue
        const cell = cellOf(index, name, cable, series)
        const key = keyOf(cell, 'chain')
        const { links } = tried.get(key) ?? { links: [] }
        tried.set(key, { cell, links: [...links, series] })
      }
      for (const [key, { cell, links }] of tried) {
        const known = cells.get(key) ?? cell
        const came = cameIn(links, cell.mode, triedLead(index, cable)) ?? null
        cells.set(key, { ...known, tried: known.tried + 1, held: known.held + Number(isGood(came)) })
      }
    }
  return [...cells.values()]
})

function cellOf(index: SiteIndex, kind: string, cable: Cable, { tried, spot }: LinkSeries): SocketCell {
  const [device, port] = (spot.port ?? '').split('/')
  const run = index.runOf.get(cable.id)
  const own = device === 'run ' ? index.runs.get(port ?? '')?.from : undefined
  const host = index.devices.get(own?.device ?? device ?? '')
  const socket = host?.ports.find(({ id }) => id === (own?.port ?? port))
  const chained = run && laidCables(run).length > 1 && spot.far === `${run.to.device}/${run.to.port}`
  return {
    kind,
    mode: tried,
    sits: socket?.sits ?? null,
    far: index.devices.get(spot.far?.split('/')[0] ?? '')?.name ?? null,
    chain: chained ? chainOf(index, laidCables(run)) : null,
    held: 0,
    tried: 0,
  }
}

const chainOf = ({ cables, kinds }: SiteIndex, ids: readonly string[]): string =>
  ids.map((id) => kinds.get(cables.get(id)?.kind ?? '')?.name ?? 'a lead of no kind').join(' + ')

/** How finely: by the kind, by where the socket sits, by what hangs at the other end, by the chain. */
const GRAINS = ['kind', 'sits', 'far', 'chain'] as const
type Grain = (typeof GRAINS)[number]

const keyOf = ({ kind, mode, sits, far, chain }: SocketCell, at: Grain): string => {
  const depth = GRAINS.indexOf(at)
  return JSON.stringify([kind.toLowerCase(), mode, ...[sits, far, chain].slice(0, depth)])
}

/**
 * The same as rows, the most often tried first. What was tried fewer than three times is told at the next broader one: without its chain, then without its device,
 * then without its socket.
 */
export function socketRows(cells: readonly SocketCell[]): SocketRow[] {
  const countAt = new Map<string, number>()
  for (const cell of cells)
    for (const at of GRAINS) {
      const key = `${at} ${keyOf(cell, at)}`
      countAt.set(key, (countAt.get(key) ?? 0) + cell.tried)
    }
  const rows = new Map<string, SocketCell>()
  for (const cell of cells) {
    const at =
      GRAINS.toReversed().find((each) => (countAt.get(`${each} ${keyOf(cell, each)}`) ?? 0) >= FEWEST_TOLD) ?? 'kind'
    const depth = GRAINS.indexOf(at)
    const key = `${at} ${keyOf(cell, at)}`
    const row = rows.get(key) ?? {
      ...cell,
      sits: depth >= 1 ? cell.sits : null,
      far: depth >= 2 ? cell.far : null,
      chain: depth >= 3 ? cell.chain : null,
      held: 0,
      tried: 0,
    }
    rows.set(key, { ...row, held: row.held + cell.held, tried: row.tried + cell.tried })
  }
  return [...rows.values()]
    .flatMap((row): SocketRow[] => {
      const rate = exactShare(row.held, row.tried)
      return rate ? [{ ...row, rate }] : []
    })
    .sort((one, other) => other.tried - one.tried || (one.kind < other.kind ? -1 : 1))
}
