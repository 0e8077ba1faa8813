import type { Edit, LogPosition } from '../change/change'
import type { Assessed } from '../checks/assess'
import type { Grade } from '../checks/finding'
import { judged } from '../checks/look-ahead'
import { isAtHand } from '../link/captive'
import { byId } from '../plan/lookup'
import { type SiteIndex, socketAt } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import type { Port } from '../vocabulary/device'
import type { Rests } from '../vocabulary/rests'
import type { Run } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import { acceptedNow } from './proof'
import { changesSince, restsNow } from './rests'

/** A chain that was accepted somewhere as it lies: other runs between such ends may have it, too. */
export type Recipe = {
  /** The site and the run where it lies. */
  site: string
  tag: string
  /** From the host on. */
  leads: readonly { kind: string; length: Metres; reversed: boolean }[]
  route: Metres
  host: End
  device: End
  /** What hangs at its end, as it is called. */
  deviceName: string
  on: string
}
type End = { connector: Port['connector']; gender: Port['gender']; of: string }

/** The chains of a site that were accepted with nothing missing; one with a cable of no kind can be had by nobody else. */
export const recipesOf = keptWith((index: SiteIndex): readonly Recipe[] =>
  index.plan.runs.flatMap((run): Recipe[] => {
    if (run.leads.length === 0 || !isAtHand(index, run)) return []
    const accepted = acceptedNow(index, run)
    if (!accepted || accepted.less || isSpoilt(index, run, accepted.rests)) return []
    const leads = run.leads.flatMap((lead) => {
      const cable = 'cable' in lead ? index.cables.get(lead.cable) : undefined
      const kind = cable?.kind === undefined ? undefined : index.kinds.get(cable.kind)
      return cable && kind ? [{ kind: kind.name, length: cable.length, reversed: lead.reversed }] : []
    })
    if (leads.length !== run.leads.length) return []
    const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
    return [
      {
        site: index.plan.site.name,
        tag: run.tag,
        leads,
        route: run.route.length,
        host: endOf(from.port, from.device.kind),
        device: endOf(to.port, to.device.kind),
        deviceName: to.device.name,
        on: accepted.at.slice(0, 10),
      },
    ]
  }),
)

/** One of its leads got hot, was retired or is longer than it was: what held then is nothing to lay elsewhere. */
const isSpoilt = (index: SiteIndex, run: Run, rests: Rests | null): boolean =>
  rests !== null &&
  changesSince(rests, restsNow(index, run, [])).some(({ fact }) => fact === 'hot' || fact.startsWith('lead '))

const endOf = ({ connector, gender }: Port, of: string): End => ({ connector, gender, of })
const isAlike = (one: End, other: End): boolean =>
  one.connector === other.connector && one.gender === other.gender && one.of === other.of

/** A recipe for a run: what it would be judged as there, and the edit that lays it; null where this site's catalogue lacks a kind of it. */
export type OfferedRecipe = { recipe: Recipe; grade: Grade | null; edit: Edit | null; missing: readonly string[] }

/** So many recipes are judged for a run. */
const MOST_OFFERED = 5

/**
 * The recipes that suit a run: between the same sorts of device and the same sockets, proved over a route at least as long. Each is judged as it would lie here,
 * since the needs may be others.
 */
export function offeredRecipes(
  site: Assessed,
  run: Run,
  recipes: readonly Recipe[],
  base: LogPosition,
): OfferedRecipe[] {
  const { index } = site
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  const [host, device] = [endOf(from.port, from.device.kind), endOf(to.port, to.device.kind)]
  const kinds = new Map(index.plan.kinds.map((kind) => [kind.name.toLowerCase(), kind]))
  const suited = recipes
    .filter(
      (recipe) =>
        isAlike(recipe.host, host) &&
        isAlike(recipe.device, device) &&
        atLeast(recipe.route, run.route.length) &&
        !(recipe.site === index.plan.site.name && recipe.tag === run.tag),
    )
    .sort((one, other) => one.leads.length - other.leads.length || one.route - other.route)
  const seen = new Set<string>()
  return suited
    .filter(({ leads }) => {
      const key = JSON.stringify(leads)
      return !seen.has(key) && seen.add(key)
    })
    .slice(0, MOST_OFFERED)
    .map((recipe): OfferedRecipe => {
      const missing = recipe.leads.filter(({ kind }) => !kinds.has(kind.toLowerCase())).map(({ kind }) => kind)
      if (missing.length > 0) return { recipe, grade: null, edit: null, missing }
      const leads = recipe.leads.map(({ kind, length, reversed }) => ({
        kind: kinds.get(kind.toLowerCase())?.id ?? kind,
        length,
        reversed,
      }))
      const edit: Edit = { list: 'runs', id: run.id, base, value: { ...run, leads } }
      return {
        recipe,
        grade: byId(judged(site, [edit]).assessment.runs).get(run.id)?.grade ?? null,
        edit,
        missing,
      }
    })
}
