import { replay } from '../core/change/apply'
import type { Copy, Edit, LogPosition, Touched } from '../core/change/change'
import { type Assessed, assessInSlices } from '../core/checks/assess'
import { reassessInSlices } from '../core/checks/reassess'
import type { Subject } from '../core/observe/every'
import {
  adoptLearned,
  everythingLearnt,
  learnedOf,
  learnInSlices,
  type ToldLearnt,
  toldOf,
  touchedByLearning,
} from '../core/observe/learned'
import type { Right } from '../core/people/rights'
import { PLAN_LISTS, type Plan } from '../core/plan/plan'
import type { InSlices } from '../core/work/in-slices'

/** A site as pages see it: its plan at a place in its log, and what it comes to. */
export type SiteView = { identity: string; copy: Copy; assessed: Assessed }

/**
 * The number of the shape in which browsers keep copies, raised whenever the plan or what is learnt is told otherwise: an address is kept for a day, and
 * would hand an old shape to new code.
 */
export const COPY_SHAPE = 3

/** Whether a copy, or what came after one, is asked for in the shape that is told here. */
export const isShapeAsked = ({ searchParams }: URL): boolean => searchParams.get('shape') === String(COPY_SHAPE)

/** Which copy of a site a page shows. */
export type CopyName = { identity: string; place: LogPosition }

/** What a browser is sent first: the plan without its observations, with what they come to. */
type WrittenCopy = CopyName & {
  plan: Plan
  revisions: [string, LogPosition][]
  bytes: number
  grown: number
  learned: ToldLearnt
}

const written = new WeakMap<Copy, string>()

/** Entities written in one step. */
const AT_A_STEP = 500

/**
 * A copy as the text that a browser makes its own from, written a step at a time: thousands of cables sent value by value would take both ends many times as
 * long.
 */
export function* writeCopy(copy: Copy, identity: string): InSlices<string> {
  const found = written.get(copy)
  if (found) return found
  const { plan, place, bytes, grown } = copy
  yield* learnInSlices(plan)
  const lists: string[] = []
  for (const list of PLAN_LISTS) {
    const items = list === 'observations' ? [] : plan[list]
    lists.push(`${JSON.stringify(list)}:${yield* arrayText(items)}`)
  }
  const { format, version, site, policy } = plan
  const head = JSON.stringify({ format, version, site, policy }).slice(0, -1)
  const rest = JSON.stringify({ identity, place, bytes, grown }).slice(0, -1)
  const revisions = yield* arrayText([...copy.revisions])
  const learned = yield* arrayText(everythingLearnt(learnedOf(plan)))
  const text = `${rest},"plan":${head},${lists.join()}},"revisions":${revisions},"learned":${learned}}`
  written.set(copy, text)
  return text
}

function* arrayText(items: readonly unknown[]): InSlices<string> {
  const parts: string[] = []
  for (let at = 0; at < items.length; at += AT_A_STEP) {
    parts.push(JSON.stringify(items.slice(at, at + AT_A_STEP)).slice(1, -1))
    yield
  }
  return `[${parts.join()}]`
}

/** The view that a browser begins with, made a step at a time. */
export function* readCopy(text: string): InSlices<SiteView> {
  const { identity, place, plan, revisions, bytes, grown, learned } = JSON.parse(text) as WrittenCopy
  yield
  adoptLearned(plan, learned)
  const assessed = yield* assessInSlices(plan)
  return { identity, copy: { plan, place, revisions: new Map(revisions), bytes, grown }, assessed }
}

/** A line that tells who changed what. */
export type NewsLine = { place: LogPosition; id: string; by: string; words: string }

/** What a browser is told of the changes behind its place. Observations stay where they are: what they come to now is sent. */
export type CatchUp = {
  identity: string
  place: LogPosition
  lines: NewsLine[]
  edits: [LogPosition, Edit[]][]
  /** What was learnt of what the changes' observations are about. */
  learned: ToldLearnt
}

/** The same, with what its reader may do on the site by now. */
export type Followed = CatchUp & { may: Right }

/**
 * What a browser is told to come to the place of a copy, by the lines, the edits and the subjects of observations behind its own place. What was
 * written after the copy was read is left for the next time.
 */
export function catchUpOf(
  { copy, identity }: { copy: Copy; identity: string },
  lines: readonly NewsLine[],
  edits: Iterable<readonly [LogPosition, readonly Edit[]]>,
  subjects: readonly Subject[],
): CatchUp {
  return {
    identity,
    place: copy.place,
    lines: lines.filter(({ place }) => place <= copy.place),
    edits: [...edits]
      .filter(([place]) => place <= copy.place)
      .map(([place, own]) => [place, own.filter(({ list }) => list !== 'observations')]),
    learned: toldOf(learnedOf(copy.plan), subjects),
  }
}

/**
 * A view brought to a later place. Only what the changes touch is assessed again. Null where it has to begin anew: the site became one to practise on,
 * or a real one, and counts other observations than before.
 */
export function* caughtUp(view: SiteView, { place, edits, learned }: CatchUp): InSlices<SiteView | null> {
  let { copy } = view
  const before = learnedOf(copy.plan)
  const byPlace = new Map(edits)
  while (copy.place < place) copy = replay(copy, byPlace.get(copy.place + 1) ?? []).copy
  if (copy.plan.site.practice !== view.copy.plan.site.practice) return null
  const observed: Touched[] = touchedByLearning(learned.map(([subject]) => subject))
  if (learned.length > 0) {
    // a list of its own, so that what it comes to is kept with it
    copy = { ...copy, plan: { ...copy.plan, observations: [] } }
    adoptLearned(copy.plan, learned, before)
  }
  return { identity: view.identity, copy, assessed: yield* reassessInSlices(view.assessed, copy.plan, observed) }
}

/** The view of a later copy of the same site, where all of the copy is at hand. */
export function* viewOf(copy: Copy, identity: string, before: SiteView | undefined): InSlices<SiteView> {
  const assessed =
    before?.identity === identity
      ? yield* reassessInSlices(before.assessed, copy.plan)
      : yield* assessInSlices(copy.plan)
  return { identity, copy, assessed }
}

const views = new Map<string, SiteView>()
/** Views that somebody may still use though they are kept no longer, such as a page that takes long to make. */
const inUse = new Map<string, WeakRef<SiteView>>()
const MOST_VIEWS = 16
/** As the plans are written; a view is some ten times as large. One is kept however large it is. */
const MOST_VIEW_BYTES = 24_000_000
const viewKey = (siteId: string, identity: string, place: LogPosition): string => `${siteId} ${identity} ${place}`

/** Keeps a view for whoever asks for that place of the site again: in a browser the page, on the server every page that is rendered. */
export function keepView(siteId: string, view: SiteView): void {
  const key = viewKey(siteId, view.identity, view.copy.place)
  views.delete(key)
  views.set(key, view)
  for (const [known, used] of inUse) if (used.deref() === undefined) inUse.delete(known)
  inUse.set(key, new WeakRef(view))
  // a map keeps its order: the first is the oldest
  while (views.size > MOST_VIEWS || (views.size > 1 && bytesOfViews() > MOST_VIEW_BYTES))
    views.delete(views.keys().next().value ?? '')
}

/** How large the plans are of which views are kept. */
export const bytesOfViews = (): number => [...views.values()].reduce((sum, { copy }) => sum + copy.bytes, 0)

export const keptView = (siteId: string, identity: string, place: LogPosition): SiteView | undefined =>
  views.get(viewKey(siteId, identity, place)) ?? inUse.get(viewKey(siteId, identity, place))?.deref()

/** The latest view of a site that is kept; of one identity where it is given, as others may be made for other readers. */
export const latestView = (siteId: string, identity?: string): SiteView | undefined =>
  [...views].findLast(([key]) => key.startsWith(identity === undefined ? `${siteId} ` : `${siteId} ${identity} `))?.[1]
