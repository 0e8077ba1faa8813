import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react'
import type { ToldByOthers } from '../../../core/link/outcomes'
import type { DoneElsewhere } from '../../../core/order/kind-record'
import { type Store, storedId } from '../../../core/order/store'
import { useSite } from '../../ui/site-context'

const StoredLeads = createContext<ReadonlyMap<string, string>>(new Map())

/** What the leads of stores are called below: their tag, and the store they lie in. */
export function StoredLeadNames({ stores, children }: { stores: readonly Store[]; children: ReactNode }) {
  const names = useMemo(
    () =>
      new Map(
        stores.flatMap(({ site, name, cables }) =>
          cables.map(({ id, tag }) => [storedId(site, id), `${tag} from ${name}`] as const),
        ),
      ),
    [stores],
  )
  return <StoredLeads.Provider value={names}>{children}</StoredLeads.Provider>
}

export const useStoredLeads = (): ReadonlyMap<string, string> => useContext(StoredLeads)

export type Elsewhere = {
  stores: readonly Store[]
  kinds: Readonly<Record<string, DoneElsewhere>>
  told: readonly ToldByOthers[]
}
export const NOTHING: Elsewhere = { stores: [], kinds: {}, told: [] }

/** What the other sites of this Hallway have to give; null until that is known. Without an answer it is decided without them. */
export function useElsewhere(): Elsewhere | null {
  const { plan } = useSite()
  const [found, setFound] = useState<Elsewhere | null>(null)
  const { id } = plan.site
  useEffect(() => {
    const leaving = new AbortController()
    fetch(`/sites/${encodeURIComponent(id)}/elsewhere`, { signal: leaving.signal })
      .then((answer): Promise<Elsewhere> => (answer.ok ? answer.json() : Promise.resolve(NOTHING)))
      .catch(() => NOTHING)
      .then((answer) => {
        if (!leaving.signal.aborted) setFound(answer)
      })
    return () => leaving.abort()
  }, [id])
  return found
}
