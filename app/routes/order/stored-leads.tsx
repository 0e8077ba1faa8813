import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react'
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

const NONE: readonly Store[] = []

/** What the stores of this Hallway have to give; null until that is known. Without an answer it is decided without them. */
export function useStores(): readonly Store[] | null {
  const { plan } = useSite()
  const [stores, setStores] = useState<readonly Store[] | null>(null)
  const { id } = plan.site
  useEffect(() => {
    const leaving = new AbortController()
    const asked = fetch(`/sites/${encodeURIComponent(id)}/stores`, { signal: leaving.signal })
    asked
      .then((answer): Promise<readonly Store[]> => (answer.ok ? answer.json() : Promise.resolve(NONE)))
      .catch(() => NONE)
      .then((answer) => {
        if (!leaving.signal.aborted) setStores(answer)
      })
    return () => leaving.abort()
  }, [id])
  return stores
}
