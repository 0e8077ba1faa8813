import { createContext, useContext } from 'react'

const NonceContext = createContext<string | undefined>(undefined)

export const NonceProvider = NonceContext.Provider
/** The one-time word for inline scripts; known on the server only, as browsers hide it from the page. */
export const useNonce = (): string | undefined => useContext(NonceContext)

const RequestNumberContext = createContext<string | null>(null)

export const RequestNumberProvider = RequestNumberContext.Provider
/** The number of the request that a page answers, as the server's log has it; in the browser that of the page as it came. */
export function useRequestNumber(): string | null {
  const told = useContext(RequestNumberContext)
  if (told !== null || typeof document === 'undefined') return told
  return document.querySelector<HTMLElement>('[data-request]')?.dataset.request ?? null
}
