import type { Right } from '../core/people/rights'
import { inSlices } from './in-slices'
import {
  COPY_SHAPE,
  type CopyName,
  caughtUp,
  type Followed,
  keepView,
  keptView,
  latestView,
  type NewsLine,
  readCopy,
  type SiteView,
} from './site-copy'

/** Where the copy that a page shows is to be had. It never changes, so a browser may keep it. */
export const copyAddress = (siteId: string, { identity, place }: CopyName): string =>
  `/sites/${encodeURIComponent(siteId)}/copy?${new URLSearchParams({ identity, place: String(place), shape: String(COPY_SHAPE) })}`

/** What answers tells copies in another shape than this page reads: Hallway was updated while the page was open. */
export class OtherShape extends Error {}

/** Fetches a copy of a site, makes a view of it without holding the page up, and keeps it for the pages below. */
export async function openCopy(siteId: string, name: CopyName): Promise<SiteView> {
  const kept = keptView(siteId, name.identity, name.place)
  if (kept) return kept
  const answer = await fetch(copyAddress(siteId, name))
  if (answer.status === 409) throw new OtherShape()
  if (!answer.ok) throw new Error(`the copy of the site did not come (${answer.status})`)
  const view = await inSlices(readCopy(await answer.text()))
  keepView(siteId, view)
  return view
}

/** What is known of a site brought up to date, with what was changed; null where it has to be opened anew. */
export async function followSite(
  siteId: string,
): Promise<{ view: SiteView; lines: readonly NewsLine[]; may: Right } | null> {
  const known = latestView(siteId)
  if (!known) return null
  const since = new URLSearchParams({
    since: String(known.copy.place),
    identity: known.identity,
    shape: String(COPY_SHAPE),
  })
  const answer = await fetch(`/sites/${siteId}/changes?${since}`)
  if (!answer.ok) return null
  const told = (await answer.json()) as Followed
  const view = told.place > known.copy.place ? await inSlices(caughtUp(known, told)) : known
  if (!view) return null
  keepView(siteId, view)
  return { view, lines: told.lines, may: told.may }
}

/** The view of a copy that a page shows; where that is no longer kept, the latest made for the same readers. */
export function viewFor(siteId: string, { identity, place }: CopyName): SiteView {
  const view = keptView(siteId, identity, place) ?? latestView(siteId, identity)
  if (!view) throw new Error('a page of a site was shown before its copy was opened')
  return view
}
