import { createContext, type ReactNode, useContext, useMemo } from 'react'
import { type Assessment, assess } from '../../core/checks/assess'
import type { Plan } from '../../core/plan/plan'
import { indexPlan, type SiteIndex } from '../../core/plan/site-index'

export type SiteView = { plan: Plan; index: SiteIndex; revision: number; assessment: Assessment }

const SiteContext = createContext<SiteView | null>(null)

/** Hands a site and its assessment to the pages below; the same `assess` runs on the server and in the browser. */
export function SiteProvider({ text, revision, children }: { text: string; revision: number; children: ReactNode }) {
  const view = useMemo(() => {
    const plan: Plan = JSON.parse(text)
    return { plan, index: indexPlan(plan), revision, assessment: assess(plan) }
  }, [text, revision])
  return <SiteContext.Provider value={view}>{children}</SiteContext.Provider>
}

export function useSite(): SiteView {
  const view = useContext(SiteContext)
  if (!view) throw new Error('used outside a site')
  return view
}
