import { createContext, type ReactNode, useContext, useMemo } from 'react'
import type { Copy, Place } from '../../core/change/change'
import type { Assessed, Assessment } from '../../core/checks/assess'
import type { Plan } from '../../core/plan/plan'
import type { SiteIndex } from '../../core/plan/site-index'
import { type FirstCopy, keepView, keptView, type NewsLine, readCopy, type SiteView } from '../site-copy'

/** A site as pages use it: its plan at a place of its log, resolved and assessed, and what others have changed since the page was opened. */
export type OpenSite = {
  plan: Plan
  index: SiteIndex
  assessment: Assessment
  /** All of the assessment, to look ahead from. */
  assessed: Assessed
  place: Place
  revisions: Copy['revisions']
  identity: string
  news: readonly NewsLine[]
}

const SiteContext = createContext<OpenSite | null>(null)

/** The view at a place: the one that is kept, or the first one, made from the text that came with the page. */
function useView(siteId: string, { identity, place, text }: FirstCopy): SiteView {
  return useMemo(() => {
    const kept = keptView(siteId, identity, place)
    if (kept) return kept
    const first = readCopy({ identity, place, text })
    keepView(siteId, first)
    return first
  }, [siteId, identity, place, text])
}

/** Hands a site and its assessment to the pages below; the same `assess` runs on the server and in the browser. */
export function SiteProvider({
  siteId,
  first,
  news,
  children,
}: {
  siteId: string
  first: FirstCopy
  news: readonly NewsLine[]
  children: ReactNode
}) {
  const view = useView(siteId, first)
  const site = useMemo((): OpenSite => {
    const { assessed } = view
    const { index, assessment } = assessed
    const { plan, place, revisions } = view.copy
    return { plan, index, assessment, assessed, place, revisions, identity: view.identity, news }
  }, [view, news])
  return <SiteContext.Provider value={site}>{children}</SiteContext.Provider>
}

export function useSite(): OpenSite {
  const site = useContext(SiteContext)
  if (!site) throw new Error('used outside a site')
  return site
}
