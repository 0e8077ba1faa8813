import { createContext, useContext } from 'react'

const NonceContext = createContext<string | undefined>(undefined)

export const NonceProvider = NonceContext.Provider
/** The one-time word for inline scripts; known on the server only, as browsers hide it from the page. */
export const useNonce = (): string | undefined => useContext(NonceContext)
