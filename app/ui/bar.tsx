import { Box } from '@chakra-ui/react'

/** How much of something is done, as a bar; the figure stands beside it for whoever does not see it. */
export function Bar({ share, colour }: { share: number; colour: 'clear' | 'note' }) {
  return (
    <Box h="9px" bg="floor" borderRadius="2px" overflow="hidden" aria-hidden="true">
      <Box h="100%" bg={colour} style={{ width: `${Math.min(1, share) * 100}%` }} suppressHydrationWarning />
    </Box>
  )
}
