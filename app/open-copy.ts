import { inSlices } from './in-slices'
import { type CopyName, keepView, keptView, latestView, readCopy, type SiteView } from './site-copy'

/** Where the copy that a page shows is to be had. It never changes, so a browser may keep it. */
export const copyAddress = (siteId: string, { identity, place }: CopyName): string =>
  `/sites/${encodeURIComponent(siteId)}/copy?${new URLSearchParams({ identity, place: String(place) })}`

/** Fetches a copy of a site, makes a view of it without holding the page up, and keeps it for the pages below. */
export async function openCopy(siteId: string, name: CopyName): Promise<SiteView> {
  const kept = keptView(siteId, name.identity, name.place)
  if (kept) return kept
  const answer = await fetch(copyAddress(siteId, name))
  if (!answer.ok) throw new Error(`the copy of the site did not come (${answer.status})`)
  const view = await inSlices(readCopy(await answer.text()))
  keepView(siteId, view)
  return view
}

/** The view of a copy that a page shows; where that is no longer kept, the latest. */
export function viewFor(siteId: string, { identity, place }: CopyName): SiteView {
  const view = keptView(siteId, identity, place) ?? latestView(siteId)
  if (!view) throw new Error('a page of a site was shown before its copy was opened')
  return view
}
