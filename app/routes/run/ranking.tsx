import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { type RefObject, useState } from 'react'
import { candidateSentence } from '../../../core/match/candidate-sentence'
import type { Candidate } from '../../../core/match/rank'
import type { Run } from '../../../core/plan/run'
import { choose } from '../../ui/choice'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { Length, useUnit } from '../../ui/units'

const SHOWN = 8

/** The drawer for this run, best first, with the reason in a line; a click puts the cable into the form. */
export function Ranking({
  candidates,
  run,
  formRef,
  onChange,
}: {
  candidates: readonly Candidate[]
  run: Run
  formRef: RefObject<HTMLFormElement | null>
  onChange: () => void
}) {
  const unit = useUnit()
  const [all, setAll] = useState(false)
  const shown = all ? candidates : candidates.slice(0, SHOWN)
  const chosen = new Set(run.leads.map((lead) => lead.cable))
  const chooseLead = (cable: string) => {
    const select = formRef.current?.elements.namedItem('leads[0]')
    if (!(select instanceof HTMLSelectElement)) return
    choose(select, cable)
    onChange()
  }
  return (
    <Box as="section" aria-labelledby="drawer-heading" mt="6">
      <Heading as="h2" size="md" mb="2" id="drawer-heading">
        From the drawer, best first
      </Heading>
      {candidates.length === 0 && <Text color="quiet">No single cable of the drawer plugs into both ports.</Text>}
      <Box as="ol" listStyleType="none">
        {shown.map((candidate) => (
          <Flex
            as="li"
            key={candidate.cable.id}
            gap="3"
            align="center"
            py="1.5"
            borderBottom="1px solid"
            borderColor="line"
          >
            <Box w="96px" flex="none">
              <GradeMark grade={candidate.grade} />
            </Box>
            <Box flex="1" minW="0" fontSize="sm">
              <Box as="span" fontFamily="mono" fontWeight="700">
                {candidate.cable.tag}
              </Box>{' '}
              <Length metres={candidate.cable.length} /> {candidateSentence(candidate, unit)}
            </Box>
            {chosen.has(candidate.cable.id) ? (
              <Text fontSize="sm" fontWeight="700" w="84px" textAlign="center">
                chosen
              </Text>
            ) : (
              <QuietButton
                type="button"
                small
                onClick={() => chooseLead(candidate.cable.id)}
                aria-label={`Choose ${candidate.cable.tag}`}
              >
                Choose
              </QuietButton>
            )}
          </Flex>
        ))}
      </Box>
      {candidates.length > SHOWN && (
        <QuietButton type="button" small onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Show fewer' : `Show all ${candidates.length}`}
        </QuietButton>
      )}
    </Box>
  )
}
