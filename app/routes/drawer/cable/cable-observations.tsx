import { Box, Heading, Text } from '@chakra-ui/react'
import { knownOf } from '../../../../core/link/lay'
import { basisNames } from '../../../../core/observe/basis'
import type { Observation } from '../../../../core/observe/observation'
import type { SiteIndex } from '../../../../core/plan/site-index'
import type { Cable } from '../../../../core/vocabulary/cable'
import { SeenForm } from '../../seen/seen-form'
import { SeenList } from '../../seen/seen-list'

type Shown = { cable: Cable; index: SiteIndex; observations: readonly Observation[] }

/** All that was seen of a cable and by whom, and a line to write more down. */
export function CableObservations({ cable, index, observations }: Shown) {
  const kind = cable.kind ? index.kinds.get(cable.kind) : undefined
  const { conflicts } = knownOf(index, cable)
  const isOverruled = (piece: Observation): boolean =>
    piece.kind === 'statement' &&
    conflicts.some(({ overruled }) => overruled.basis === piece.basis && overruled.at === piece.at)
  return (
    <Box as="section" aria-labelledby="evidence" mb="6">
      <Heading as="h2" size="md" id="evidence" mb="2">
        How it is known
      </Heading>
      {observations.length === 0 && !kind ? (
        <Text color="quiet">
          Nothing is known about it yet. Read its mark or its chip, or test it in a sort-out session.
        </Text>
      ) : (
        <SeenList index={index} observations={observations} isOverruled={isOverruled}>
          {kind && (
            <tr>
              <td />
              <td>{basisNames.listed}</td>
              <td>{kind.name}</td>
              <td />
            </tr>
          )}
        </SeenList>
      )}
      <SeenForm key={observations.length} subject={{ cable: cable.id }} />
    </Box>
  )
}
