import { Box, type BoxProps } from '@chakra-ui/react'
import { createContext, useContext } from 'react'
import { formatLength, type LengthUnit, type Metres } from '../../core/quantity/length'

const UnitContext = createContext<LengthUnit>('m')

export const UnitProvider = UnitContext.Provider
export const useUnit = (): LengthUnit => useContext(UnitContext)

/** A length in the unit in force, the other one beside it. */
export function Length({ metres, ...rest }: { metres: Metres } & BoxProps) {
  const unit = useUnit()
  return (
    <Box as="span" whiteSpace="nowrap" {...rest}>
      {formatLength(metres, unit)}{' '}
      <Box as="span" color="quiet" fontSize="0.85em">
        ({formatLength(metres, unit === 'm' ? 'ft' : 'm')})
      </Box>
    </Box>
  )
}
