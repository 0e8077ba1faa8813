import type { Assessed } from '../checks/assess'
import type { Verdict } from '../checks/finding'
import { type Crossing, situationOf } from '../checks/situation'
import type { Admission } from '../link/admission'
import type { Uplink } from '../link/uplink'
import { linkFacts } from '../picture/link-spec'
import { byId } from '../plan/lookup'
import { leadCable, socketAt } from '../plan/site-index'
import { atMost } from '../quantity/limit'
import { type BitsPerSecond, formatRate } from '../quantity/rate'
import type { Watts } from '../quantity/watts'
import type { LinkMode } from '../standards/link-modes'
import type { Device } from '../vocabulary/device'
import { type Need, needLabel, type PictureMode } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** One need as the uplink of a dock admits it. */
export type DockLine = Pick<Admission, 'need' | 'way' | 'asked' | 'found' | 'held' | 'sent' | 'admitted'> & {
  label: string
  grade: Verdict
  /** The rate a picture came up at; null for data, and for a picture that is refused. */
  step: string | null
}

/** What the uplink of a dock carries each way, in the order it admits, and what it leaves. */
export type DockView = {
  uplink: Run
  mode: LinkMode | null
  tunnelled: boolean
  /** What it carries, what pictures may hold of it, and what is left for storage and beside everything. */
  carries: Omit<Uplink, 'admissions' | 'mode'>
  lines: readonly DockLine[]
  /** Power needs over the uplink. */
  power: readonly { label: string; asked: Watts; grade: Verdict }[]
  /** Hubs, docks and active extensions on the longest path behind it. */
  hubs: number
  /** The most that the leads alone delay anything behind it, in nanoseconds, there; hubs and docks add their own, which only a test tells. */
  leadDelay: number
  /** What the dock gives its host, and how its ports share what it has; null where it gives nothing. */
  supply: { toHost: Watts; pool: Device['pool'] } | null
}

/** The run a dock or hub hangs on: the one that ends at it. Null where none does yet. */
export const uplinkOf = ({ index }: Assessed, device: string): Run | null =>
  index.runsAt.get(device)?.find(({ to }) => to.device === device) ?? null

/**
 * The uplink of a dock as it fills, with one more picture at the end where somebody asks what that would do. Pictures are admitted first, in their
 * priority and then the order of the list; each finds what the earlier ones left (Linux thunderbolt driver; common practice for docks without a tunnel).
 */
export function dockView(site: Assessed, device: string, oneMore: PictureMode | null = null): DockView | null {
  const { index, walks } = site
  const uplink = uplinkOf(site, device)
  if (!uplink) return null
  const standing = walks.crossings.get(uplink.id) ?? []
  const crossings = oneMore ? [...standing, extra(uplink, oneMore)] : standing
  const { data, picture, uplink: filled } = situationOf(index, uplink, crossings)
  const { admissions, mode: beside, ...carries } = filled
  const tunnelled = carries.forPictures !== null
  const flows = byId(site.assessment.runs).get(uplink.id)?.flows ?? []
  const verdicts = new Map(flows.map(({ needId, grade }) => [needId, grade]))
  const lines = admissions.map(
    ({ need, way, asked, found, held, sent, admitted, spec }): DockLine => ({
      need,
      label: need.id === ONE_MORE ? 'one more display' : needLabel(need, index.devices),
      way,
      grade: admitted ? (verdicts.get(need.id) ?? 'clear') : 'blocked',
      asked,
      found,
      held,
      sent,
      admitted,
      step: tunnelled && spec ? `${linkFacts(spec).name}, ${formatRate(linkFacts(spec).payload)}` : null,
    }),
  )
  return {
    uplink,
    mode: data.mode === null ? null : beside,
    tunnelled,
    carries:
      data.mode === null && picture.link ? { ...carries, payload: { down: picture.link.payload, up: 0 } } : carries,
    lines,
    power: crossings.flatMap(({ need }) =>
      need.kind === 'power'
        ? {
            label: needLabel(need, index.devices),
            asked: need.watts,
            grade: site.assessment.needs.find(({ id }) => id === need.id)?.grade ?? 'clear',
          }
        : [],
    ),
    hubs: Math.max(0, ...crossings.map(({ hubs = 0 }) => hubs)),
    leadDelay: Math.max(0, ...crossings.map(({ need }) => delayOf(site, need.id))),
    supply: supplyOf(site, uplink),
  }
}

/** A lead may delay by 26 ns over 5 m (USB 2.0 §7.1.16, published). */
const NANOSECONDS_A_METRE = 26 / 5

const delayOf = ({ index, walks }: Assessed, need: string): number =>
  (walks.paths.get(need) ?? [])
    .flatMap(({ run }) => run.leads)
    .reduce((sum, lead) => sum + leadCable(index, lead).length * NANOSECONDS_A_METRE, 0)

function supplyOf({ index }: Assessed, { to }: Run): DockView['supply'] {
  const { device, port } = socketAt(index, to)
  return port.gives || device.pool ? { toHost: port.gives ?? 0, pool: device.pool } : null
}

const ONE_MORE = 'one-more'

const extra = (uplink: Run, mode: PictureMode): Crossing => ({
  need: { id: ONE_MORE, kind: 'picture', from: uplink.from.device, to: uplink.to.device, mode },
  way: 'down',
  lastMile: true,
})

/**
 * The second-display trap: a picture is refused or falls though all of them together would have room, as earlier ones hold more than they send. Then which
 * of them, how much they hold for nothing, and whether bringing the pictures up in another order gives every one its rate. Null where there is no trap.
 */
export function secondDisplayTrap(
  site: Assessed,
  device: string,
): { fallen: DockLine; unused: BitsPerSecond; order: readonly Need[] | null } | null {
  const view = dockView(site, device)
  if (!view || view.carries.forPictures === null) return null
  const pictures = view.lines.filter(({ need }) => need.kind === 'picture')
  const fallen = pictures.find(({ admitted }) => !admitted)
  const wanted = pictures.reduce((sum, { asked, way }) => sum + asked[way], 0)
  if (!fallen || !atMost(wanted, view.carries.forPictures)) return null
  const unused = pictures
    .slice(0, pictures.indexOf(fallen))
    .reduce((sum, { held, sent, way }) => sum + held[way] - sent[way], 0)
  const crossings = site.walks.crossings.get(view.uplink.id) ?? []
  const fitsAll = (order: readonly DockLine[]): boolean => {
    const placeOf = new Map(order.map(({ need }, at) => [need.id, at + 1]))
    const served = crossings.map((crossing) => {
      const priority = placeOf.get(crossing.need.id)
      return priority === undefined ? crossing : { ...crossing, need: { ...crossing.need, priority } }
    })
    return situationOf(site.index, view.uplink, served).uplink.admissions.every(
      ({ need, admitted }) => need.kind !== 'picture' || admitted,
    )
  }
  const asks = ({ asked, way }: DockLine): BitsPerSecond => asked[way]
  const order = [
    [...pictures].sort((one, other) => asks(one) - asks(other)),
    [...pictures].sort((one, other) => asks(other) - asks(one)),
    [fallen, ...pictures.filter((line) => line !== fallen)],
  ].find(fitsAll)
  return { fallen, unused, order: order?.map(({ need }) => need) ?? null }
}
