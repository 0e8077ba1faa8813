import { Box, Heading } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { TopBar } from '../../ui/frame'

/** A page of people, outside of any site. */
export const PeoplePage = ({ title, children }: { title: string; children: ReactNode }) => (
  <>
    <TopBar />
    <Box as="main" id="content" tabIndex={-1} maxW="760px" mx="auto" px="5" py="7">
      <Heading as="h1" size="2xl" mb="3">
        {title}
      </Heading>
      {children}
    </Box>
  </>
)
