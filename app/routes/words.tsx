import { Box, Heading } from '@chakra-ui/react'
import { TopBar } from '../ui/frame'
import { WordsAndKeys } from '../ui/words-and-keys'
import type { Route } from './+types/words'

export const meta: Route.MetaFunction = () => [{ title: 'Words and keys · Hallway' }]

/** What Hallway's words mean and what its keys do, for whoever has no scripts or wants to print it. */
export default function Words() {
  return (
    <>
      <TopBar />
      <Box as="main" id="content" tabIndex={-1} maxW="820px" mx="auto" px="5" py="6">
        <Heading as="h1" size="xl" mb="3">
          Words and keys
        </Heading>
        <WordsAndKeys />
      </Box>
    </>
  )
}
