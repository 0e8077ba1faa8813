import { Box } from '@chakra-ui/react'

/** What the head of a column says, where the rows of a table stand as cards and show no heads. */
export const OnCards = ({ children }: { children: string }) => (
  <Box as="span" hideFrom="md" color="quiet">
    {children}
  </Box>
)
