import { Box, type BoxProps, Button, type ButtonProps } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { Grade } from '../../core/checks/finding'

/** The one action of a form. */
export const MainButton = (props: ButtonProps) => (
  <Button
    type="submit"
    size="sm"
    bg="brassInk"
    color="onBrass"
    borderRadius="2px"
    fontWeight="700"
    px="5"
    _hover={{ bg: 'brass' }}
    {...props}
  />
)

/** Any other action. */
export const QuietButton = (props: ButtonProps) => (
  <Button
    type="submit"
    size="sm"
    variant="outline"
    borderColor="edge"
    color="ink"
    borderRadius="2px"
    bg="card"
    _hover={{ bg: 'floor' }}
    {...props}
  />
)

/** A strip of words across the page: what happened, and what can be done about it. */
export function Notice({ tone, children, ...rest }: { tone: Grade; children: ReactNode } & BoxProps) {
  return (
    <Box
      role={tone === 'blocked' ? 'alert' : 'status'}
      bg={`${tone}Floor`}
      borderLeft="4px solid"
      borderColor={tone}
      px="4"
      py="3"
      mb="4"
      borderRadius="2px"
      {...rest}
    >
      {children}
    </Box>
  )
}
