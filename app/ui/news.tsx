import { Box, Text } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { isOwn } from './own-changes'
import { useSite } from './site-context'

const SHOWN_MS = 12_000

/** One quiet line that says who else has just changed what. */
export function News() {
  const { news } = useSite()
  const [shown, setShown] = useState<string | null>(null)
  const others = news.filter(({ id }) => !isOwn(id))
  const latest = others.at(-1)
  useEffect(() => {
    if (!latest) return
    const more =
      others.length > 1 ? `, and ${others.length - 1} more ${others.length === 2 ? 'change' : 'changes'}` : ''
    setShown(`${latest.by} ${latest.words}${more}.`)
    const timer = setTimeout(() => setShown(null), SHOWN_MS)
    return () => clearTimeout(timer)
  }, [latest, others.length])
  return (
    <Box
      role="status"
      position="fixed"
      bottom={{ base: '70px', md: '14px' }}
      right="14px"
      zIndex="10"
      maxW="min(420px, 90vw)"
    >
      {shown && (
        <Text bg="sign" color="signInk" px="4" py="2" borderRadius="2px" fontSize="sm">
          {shown}
        </Text>
      )}
    </Box>
  )
}
