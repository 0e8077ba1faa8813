import type { Copy } from '../core/change/change'
import { offTheClock } from '../server/database/deadline'
import { tellKept } from '../server/kept'
import { whileAnswering } from './asker.server'
import { inSlices } from './in-slices'
import { bytesOfViews, keepView, keptView, latestView, type SiteView, viewOf } from './site-copy'

tellKept('views', bytesOfViews)

/** Views that are being worked out: whoever asks for one meanwhile waits for the same. */
const underway = new Map<string, Promise<SiteView>>()

/** The view of a copy for the pages below, worked out a slice at a time, so that nobody else waits for it. It is there until the page is answered. */
export async function openView(siteId: string, copy: Copy, identity: string): Promise<SiteView> {
  const view = await viewAt(siteId, copy, identity)
  whileAnswering(view)
  return view
}

async function viewAt(siteId: string, copy: Copy, identity: string): Promise<SiteView> {
  const kept = keptView(siteId, identity, copy.place)
  if (kept) return kept
  const key = `${siteId} ${identity} ${copy.place}`
  const found = underway.get(key)
  if (found) return offTheClock(() => found)
  const work = inSlices(viewOf(copy, identity, latestView(siteId, identity))).then((view) => {
    keepView(siteId, view)
    return view
  })
  underway.set(key, work)
  try {
    return await offTheClock(() => work)
  } finally {
    underway.delete(key)
  }
}
