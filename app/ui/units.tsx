import { createContext, useContext } from 'react'
import { formatLength, type LengthUnit, type Metres } from '../../core/quantity/length'
import text from '../theme/text.module.css'

const UnitContext = createContext<LengthUnit>('m')

export const UnitProvider = UnitContext.Provider
export const useUnit = (): LengthUnit => useContext(UnitContext)

/** A length in the unit in force, the other one beside it, or on hover where space is short. */
export function Length({ metres, brief }: { metres: Metres; brief?: true }) {
  const unit = useUnit()
  const other = formatLength(metres, unit === 'm' ? 'ft' : 'm')
  return (
    <span className={text.whole} title={other}>
      {formatLength(metres, unit)}
      {!brief && <span className={text.other}> ({other})</span>}
    </span>
  )
}
