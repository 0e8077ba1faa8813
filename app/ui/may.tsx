import { createContext, useContext } from 'react'
import { covers, type Right } from '../../core/people/rights'

/** What the reader may do on the site that is open; outside of any site everything that is shown. */
const MayContext = createContext<Right>('lead')

export const MayProvider = MayContext.Provider

/** Whether the reader may do what asks for that right. */
export const useMay = (asked: Right): boolean => covers(useContext(MayContext), asked)
