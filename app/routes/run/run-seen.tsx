import { Box, Heading, Text } from '@chakra-ui/react'
import type { Observation } from '../../../core/observe/observation'
import { laidCables, type Run } from '../../../core/vocabulary/run'
import { Notice } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import { SeenForm } from '../seen/seen-form'
import { SeenList } from '../seen/seen-list'

type Shown = { run: Run; observations: readonly Observation[]; problem: string | undefined }

/** What was seen of a run as it lay, and a line to write more down. It outweighs what is predicted, as long as the same leads lie in it. */
export function RunSeen({ run, observations, problem }: Shown) {
  const { index } = useSite()
  const leads = laidCables(run)
  const laid = leads.length > 0 && leads.length === run.leads.length
  const now = observations.filter(({ subject }) => 'run' in subject && subject.leads.join() === leads.join())
  const before = observations.length - now.length
  return (
    <Box as="section" aria-labelledby="seen" mt="6">
      <Heading as="h2" size="md" id="seen" mb="2">
        What was seen of it
      </Heading>
      {problem && <Notice tone="blocked">{problem}</Notice>}
      {now.length > 0 && <SeenList index={index} observations={now} />}
      {before > 0 && (
        <Text color="quiet" fontSize="sm" mt="1">
          {before === 1 ? 'One more thing was' : `${before} more things were`} seen while other leads lay in it; that
          stands on their pages.
        </Text>
      )}
      {laid ? (
        <SeenForm key={observations.length} subject={{ run: run.id, leads }} from={run.from} to={run.to} />
      ) : (
        <Text color="quiet">Once a cable lies in it, what you see of it can be written down here.</Text>
      )}
    </Box>
  )
}
