import { Box, Flex, Text } from '@chakra-ui/react'
import { parseJob } from '../../../../core/match/job-text'
import { formatLength } from '../../../../core/quantity/length'
import { formatRate } from '../../../../core/quantity/rate'
import { formatWatts } from '../../../../core/quantity/watts'
import { connectorNames } from '../../../../core/standards/connectors'
import { useUnit } from '../../../ui/units'

/** What was understood of a job, so that nobody has to guess why a cable is listed. */
export function JobWords({ text }: { text: string }) {
  const unit = useUnit()
  const { rate, atLeast, atMost, watts, picture, construction, connectors, words } = parseJob(text, unit)
  const parts = [
    rate !== undefined && `carries ${formatRate(rate)} at its length`,
    atLeast !== undefined && `at least ${formatLength(atLeast, unit)}`,
    atMost !== undefined && `at most ${formatLength(atMost, unit)}`,
    watts !== undefined && `${formatWatts(watts)} or more`,
    picture && 'carries a picture',
    construction,
    ...connectors.map((connector) => connectorNames[connector]),
    words.length > 0 && `"${words.join('" "')}" written on it`,
  ].filter((part): part is string => Boolean(part))
  if (parts.length === 0) return null
  return (
    <Flex gap="2" mb="3" wrap="wrap" fontSize="sm" align="center">
      <Text color="quiet">Looking for:</Text>
      {parts.map((part) => (
        <Box key={part} bg="noteFloor" borderLeft="3px solid" borderColor="note" px="2" borderRadius="2px">
          {part}
        </Box>
      ))}
    </Flex>
  )
}
