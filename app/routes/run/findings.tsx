import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import type { RunVerdict } from '../../../core/checks/assess'
import { type Finding, GRADES, marginOf } from '../../../core/checks/finding'
import { cautionSentences, formatFigure, needNames, remedySentence, sentence } from '../../../core/checks/sentences'
import type { Plan } from '../../../core/plan/plan'
import { citeSource } from '../../../core/standards/source'
import { GradeMark } from '../../ui/grade'
import { useUnit } from '../../ui/units'

/** What was found, worst first: why, by what margin, which part, what to do, and on whose word. */
export function Findings({ verdict, plan }: { verdict: RunVerdict | undefined; plan: Plan }) {
  if (!verdict) return null
  const sorted = [...verdict.findings].sort((one, other) => GRADES.indexOf(one.grade) - GRADES.indexOf(other.grade))
  return (
    <Box as="section" aria-labelledby="findings-heading" mb="6">
      <Heading as="h2" size="md" mb="2" id="findings-heading">
        Findings
      </Heading>
      <Box as="ul" listStyleType="none">
        {sorted.map((finding) => (
          <FindingItem
            key={`${finding.needId ?? ''} ${finding.part.id} ${JSON.stringify(finding.reason)}`}
            finding={finding}
            plan={plan}
          />
        ))}
      </Box>
    </Box>
  )
}

function FindingItem({ finding, plan }: { finding: Finding; plan: Plan }) {
  const unit = useUnit()
  const need = plan.needs.find((candidate) => candidate.id === finding.needId)
  const loud = finding.grade === 'blocked' || finding.grade === 'tight'
  return (
    <Box
      as="li"
      bg={loud ? 'card' : undefined}
      border={loud ? '1px solid' : 'none'}
      borderBottom="1px solid"
      borderColor="line"
      borderLeft="4px solid"
      borderLeftColor={finding.grade}
      px="3"
      py={loud ? '2' : '1'}
      mb={loud ? '2' : '0'}
      fontSize="sm"
    >
      <Flex align="baseline" gap="2" wrap="wrap">
        <GradeMark grade={finding.grade} size="sm" fontSize={loud ? 'sm' : 'xs'} />
        <Text fontWeight="700">
          {finding.check}
          {need ? `, ${need.name ?? needNames[need.kind]}` : ''}
        </Text>
        <Figures finding={finding} />
      </Flex>
      <Text mt={loud ? '1' : '0'}>{sentence(finding, unit)}</Text>
      {finding.remedies.length > 0 && (
        <Box as="ul" pl="5" listStyleType="'→ '" mt="1">
          {finding.remedies.map((remedy) => (
            <li key={remedy.code}>{remedySentence(remedy, unit)}</li>
          ))}
        </Box>
      )}
      {finding.caution && (
        <Text mt="1" fontWeight="600" color="blocked">
          Caution: {cautionSentences[finding.caution]}
        </Text>
      )}
      <Text fontSize="xs" color="quiet">
        {finding.part.label}: {citeSource(finding.source)}
      </Text>
    </Box>
  )
}

function Figures({ finding }: { finding: Finding }) {
  const unit = useUnit()
  const margin = marginOf(finding)
  if (finding.unit === null) return null
  const left =
    margin === null
      ? ''
      : margin === 0
        ? ', nothing over'
        : `, ${margin < 0 ? 'short by' : 'over'} ${formatFigure(Math.abs(margin), finding.unit, unit)}`
  return (
    <Text fontFamily="mono" fontSize="xs" color="quiet">
      have {formatFigure(finding.have, finding.unit, unit)}, need {formatFigure(finding.need, finding.unit, unit)}
      {left}
    </Text>
  )
}
