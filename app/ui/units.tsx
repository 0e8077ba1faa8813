import { Box, type BoxProps } from '@chakra-ui/react'
import { createContext, useContext } from 'react'
import { formatLength, type LengthUnit, type Metres } from '../../core/quantity/length'

const UnitContext = createContext<LengthUnit>('m')

export const UnitProvider = UnitContext.Provider
export const useUnit = (): LengthUnit => useContext(UnitContext)

/** A length in the unit in force, the other one beside it, or on hover where space is short. */
export function Length({ metres, brief, ...rest }: { metres: Metres; brief?: true } & BoxProps) {
  const unit = useUnit()
  const other = formatLength(metres, unit === 'm' ? 'ft' : 'm')
  return (
    <Box as="span" whiteSpace="nowrap" title={other} {...rest}>
      {formatLength(metres, unit)}
      {!brief && (
        <Box as="span" color="quiet" fontSize="0.85em">
          {' '}
          ({other})
        </Box>
      )}
    </Box>
  )
}

/** The same without any style of its own, for long lists. */
export function PlainLength({ metres }: { metres: Metres }) {
  const unit = useUnit()
  return <span title={formatLength(metres, unit === 'm' ? 'ft' : 'm')}>{formatLength(metres, unit)}</span>
}
