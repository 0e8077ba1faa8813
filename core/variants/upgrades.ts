import { type Assessed, assessAnew, assessInSlices } from '../checks/assess'
import { isWorse, type Turned, turnedBetween } from '../checks/turned'
import { hostBehind } from '../path/reachable'
import { formatPictureMode } from '../picture/mode-text'
import { freeIds } from '../plan/free-id'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { usefulOffers } from '../remedy/best-lead'
import { roomOf } from '../remedy/room'
import type { Growth, Upgrade } from '../vocabulary/growth'
import type { Need } from '../vocabulary/need'
import type { InSlices } from '../work/in-slices'

/** A run that an upgrade would break, and what would have to be bought for it to hold. */
export type Fallen = Turned & {
  /** The cheapest of what is sold that would carry it; null where none would. */
  instead: { kind: string; length: number; price: number | null } | null
}

export type GrowthAnswer = {
  upgrade: string
  /** Runs that get through today and would still do as well; of those that do not today nothing can be broken. */
  survives: number
  /** Runs that are blocked today already. */
  blocked: number
  fallen: readonly Fallen[]
  /** What buying for it now costs, of what has a price. */
  price: number
  /** How many of them have no price, or nothing that would do. */
  unpriced: number
  /** Needs the upgrade adds that do not get through, by name. */
  lost: readonly string[]
}

/** The plan as it would be with an upgrade: what is asked grows, nothing that is laid changes. */
export function grown(plan: Plan, { growth }: Upgrade): Plan {
  return growth.reduce(growBy, plan)
}

function growBy(plan: Plan, growth: Growth): Plan {
  const each = (change: (need: Need) => Need): Plan => ({ ...plan, needs: plan.needs.map(change) })
  switch (growth.what) {
    case 'pictures':
      return each((need) => (need.kind === 'picture' ? { ...need, mode: growth.mode } : need))
    case 'power':
      return each((need) => (need.kind === 'power' ? { ...need, watts: Math.max(need.watts, growth.watts) } : need))
    case 'rate':
      return each((need) =>
        need.kind === growth.kind && 'rate' in need
          ? {
              ...need,
              rate: Math.max(need.rate, growth.rate),
              ...(need.kind === 'storage' && need.back !== undefined ? { back: Math.max(need.back, growth.rate) } : {}),
            }
          : need,
      )
    case 'display':
      return withDisplay(plan, growth)
  }
}

/** One more display behind a dock: the picture crosses the uplink, whatever port it then hangs on. */
function withDisplay(plan: Plan, { at, mode }: Extract<Growth, { what: 'display' }>): Plan {
  const host = hostBehind(indexPlan(plan), at)
  if (host === null) return plan
  const id = freeIds(plan.needs.map((need) => need.id))(`grown-${at.slice(0, 40)}`)
  return {
    ...plan,
    needs: [...plan.needs, { id, kind: 'picture', name: 'one more display', from: host, to: at, mode }],
  }
}

/** What an upgrade would break, and what it would cost to buy for it now, a step at a time. */
export function* judgeUpgrade(site: Assessed, upgrade: Upgrade): InSlices<GrowthAnswer> {
  const plan = grown(site.index.plan, upgrade)
  const after = yield* assessInSlices(plan)
  const turned = turnedBetween(
    { runs: site.assessment.runs, needs: [] },
    { runs: after.assessment.runs, needs: [] },
    after.index,
  ).filter(isWorse)
  const fallen: Fallen[] = []
  for (const each of turned) {
    yield
    const { index, walks } = assessAnew(roomOf(after.index, each.id))
    const run = index.runs.get(each.id)
    const [offer] = run ? usefulOffers(index, run, walks.crossings.get(run.id) ?? []) : []
    const clear = offer?.verdict.grade === 'clear' ? offer : null
    fallen.push({ ...each, instead: clear && { kind: clear.kind.name, length: clear.length, price: clear.price } })
  }
  const known = new Set(site.index.plan.needs.map(({ id }) => id))
  const blocked = site.assessment.runs.filter(({ grade }) => grade === 'blocked').length
  return {
    upgrade: upgrade.id,
    survives: site.assessment.runs.length - blocked - fallen.length,
    blocked,
    fallen,
    price: fallen.reduce((sum, { instead }) => sum + (instead?.price ?? 0), 0),
    unpriced: fallen.filter(({ instead }) => instead?.price == null).length,
    lost: after.assessment.needs.flatMap(({ id, grade }) =>
      !known.has(id) && grade === 'blocked' ? (after.index.needs.get(id)?.name ?? id) : [],
    ),
  }
}

/** What grows, in words. */
export function growthWords(growth: Growth, devices: ReadonlyMap<string, { name: string }>): string {
  switch (growth.what) {
    case 'pictures':
      return `every picture at ${formatPictureMode(growth.mode)}`
    case 'display':
      return `one more display at ${devices.get(growth.at)?.name ?? growth.at}, ${formatPictureMode(growth.mode)}`
    case 'power':
      return `whatever charges takes ${formatWatts(growth.watts)}`
    case 'rate':
      return `${growth.kind} at ${formatRate(growth.rate)}`
  }
}
