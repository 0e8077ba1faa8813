import { Box, Heading, Link, Table, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { leadingFinding } from '../../core/checks/assess'
import { needNames, sentence } from '../../core/checks/sentences'
import { formatNeedSize } from '../../core/plan/need-text'
import { GradeMark } from '../ui/grade'
import { RuledTable } from '../ui/ruled-table'
import { useSite } from '../ui/site-context'
import { useUnit } from '../ui/units'

/** What has to flow, each with its way through the site and the verdict along it. */
export default function Needs() {
  const { plan, assessment } = useSite()
  const unit = useUnit()
  const deviceName = (id: string) => plan.devices.find((device) => device.id === id)?.name ?? id
  const tagOf = (id: string) => plan.runs.find((run) => run.id === id)?.tag ?? id
  return (
    <>
      <Heading as="h1" size="xl" mb="4">
        Needs
      </Heading>
      {plan.needs.length === 0 ? (
        <Text>Nothing has to flow yet. State what a run is for on the run itself, under “What must flow”.</Text>
      ) : (
        <RuledTable label="Needs" columns={['Need', 'Verdict', 'From and to', 'Its way', 'What matters']}>
          {plan.needs.map((need, at) => {
            const verdict = assessment.needs[at]
            if (!verdict) return null
            const own = verdict.findings.filter((finding) => finding.needId === need.id)
            const leading = leadingFinding(verdict.grade === 'clear' && own.length > 0 ? own : verdict.findings)
            return (
              <Table.Row key={need.id} bg="card">
                <Table.Cell minW="150px">
                  <b>{need.name ?? needNames[need.kind]}</b>
                  <Box fontFamily="mono" fontSize="xs">
                    {formatNeedSize(need)}
                  </Box>
                </Table.Cell>
                <Table.Cell>
                  <GradeMark grade={verdict.grade} />
                </Table.Cell>
                <Table.Cell minW="160px">
                  {deviceName(need.from)}
                  <Box color="quiet">to {deviceName(need.to)}</Box>
                </Table.Cell>
                <Table.Cell fontFamily="mono" fontSize="sm" whiteSpace="nowrap">
                  {verdict.runs.map((id, step) => (
                    <Box as="span" key={id}>
                      {step > 0 && ' > '}
                      <Link asChild color="brassInk" textDecoration="underline" fontWeight="700">
                        <RouterLink to={`/sites/${plan.site.id}/runs/${id}`}>{tagOf(id)}</RouterLink>
                      </Link>
                    </Box>
                  ))}
                  {verdict.runs.length === 0 && 'none'}
                </Table.Cell>
                <Table.Cell minW="260px">{leading ? sentence(leading, unit) : ''}</Table.Cell>
              </Table.Row>
            )
          })}
        </RuledTable>
      )}
    </>
  )
}
