import { createContext, type ReactNode, useContext, useMemo } from 'react'
import type { Copy, LogPosition } from '../../core/change/change'
import type { Assessed, Assessment } from '../../core/checks/assess'
import type { Plan } from '../../core/plan/plan'
import type { SiteIndex } from '../../core/plan/site-index'
import { viewFor } from '../open-copy'
import type { CopyName, NewsLine } from '../site-copy'

/** A site as pages use it: its plan at a place of its log, resolved and assessed, and what others have changed since the page was opened. */
export type OpenSite = {
  plan: Plan
  index: SiteIndex
  assessment: Assessment
  /** All of the assessment, to look ahead from. */
  assessed: Assessed
  place: LogPosition
  revisions: Copy['revisions']
  identity: string
  news: readonly NewsLine[]
}

const SiteContext = createContext<OpenSite | null>(null)

/** Hands a site and its assessment to the pages below; the same `assess` runs on the server and in the browser. */
export function SiteProvider({
  siteId,
  shown,
  news,
  children,
}: {
  siteId: string
  shown: CopyName
  news: readonly NewsLine[]
  children: ReactNode
}) {
  const { identity, place } = shown
  const view = useMemo(() => viewFor(siteId, { identity, place }), [siteId, identity, place])
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

/** Whether this is drawn within the page of a site, which has its own landmarks. */
export const useWithinSite = (): boolean => useContext(SiteContext) !== null
