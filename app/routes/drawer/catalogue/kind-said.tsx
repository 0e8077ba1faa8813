import { Box, Heading, Text } from '@chakra-ui/react'
import type { Observation } from '../../../../core/observe/observation'
import type { SiteIndex } from '../../../../core/plan/site-index'
import type { CableKind } from '../../../../core/vocabulary/cable'
import { SeenForm } from '../../seen/seen-form'
import { SeenList } from '../../seen/seen-list'

type Shown = { kind: CableKind; index: SiteIndex; observations: readonly Observation[] }

/** What is said of a kind of cable as a whole, and a line to write more down. It speaks of every cable of the kind until that cable says otherwise. */
export function KindSaid({ kind, index, observations }: Shown) {
  return (
    <Box as="section" aria-labelledby="kind-said" mt="6">
      <Heading as="h2" size="md" id="kind-said" mb="2">
        Said of this kind
      </Heading>
      {observations.length === 0 ? (
        <Text color="quiet">
          Only its listing is known. What you write here counts for every cable of this kind, until its own mark, chip
          or a test says more.
        </Text>
      ) : (
        <SeenList index={index} observations={observations} />
      )}
      <SeenForm key={observations.length} subject={{ kind: kind.id }} />
    </Box>
  )
}
