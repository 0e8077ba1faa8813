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
        {sorted.map((finding, at) => (
          <FindingItem key={`${finding.check} ${finding.needId ?? ''} ${finding.part.id} ${at}`} finding={finding} plan={plan} />
        ))}
      </Box>
    </Box>
  )
}

function FindingItem({ finding, plan }: { finding: Finding; plan: Plan }) {
  const unit = useUnit()
  const need = plan.needs.find((candidate) => candidate.id === finding.needId)
  const margin = marginOf(finding)
  return (
    <Box as="li" bg="card" border="1px solid" borderColor="line" borderLeft="4px solid" borderLeftColor={finding.grade} px="3" py="2" mb="2" borderRadius="2px">
      <Flex align="center" gap="3" wrap="wrap" mb="1">
        <GradeMark grade={finding.grade} />
        <Text fontWeight="700">
          {finding.check}
          {need ? `, ${need.name ?? needNames[need.kind]}` : ''}
        </Text>
        {finding.unit && (
          <Text fontFamily="mono" fontSize="xs" color="quiet">
            have {formatFigure(finding.have, finding.unit, unit)} · need {formatFigure(finding.need, finding.unit, unit)}
            {margin !== null && ` · ${margin < 0 ? 'short by' : 'over'} ${formatFigure(Math.abs(margin), finding.unit, unit)}`}
          </Text>
        )}
      </Flex>
      <Text fontSize="sm">{sentence(finding, unit)}</Text>
      {finding.remedies.length > 0 && (
        <Box as="ul" pl="5" listStyleType="'→ '" fontSize="sm" mt="1">
          {finding.remedies.map((remedy) => (
            <li key={remedy.code}>{remedySentence(remedy, unit)}</li>
          ))}
        </Box>
      )}
      {finding.caution && (
        <Text fontSize="sm" mt="1" fontWeight="600" color="blocked">
          Caution: {cautionSentences[finding.caution]}
        </Text>
      )}
      <Text fontSize="xs" color="quiet" mt="1">
        {finding.part.label} · {citeSource(finding.source)}
      </Text>
    </Box>
  )
}
