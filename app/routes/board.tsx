import { Box, Flex, Heading, Link, Table, Text } from '@chakra-ui/react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { leadingFinding } from '../../core/checks/assess'
import { needNames, sentence } from '../../core/checks/sentences'
import { formatNeedSize } from '../../core/plan/need-text'
import type { Plan } from '../../core/plan/plan'
import type { Run } from '../../core/plan/run'
import { MainButton, Notice } from '../ui/controls'
import { DoorStrip } from '../ui/door-strip'
import { GradeMark } from '../ui/grade'
import { useSite } from '../ui/site-context'
import { Undo } from '../ui/undo'
import { Length, useUnit } from '../ui/units'

/** Match: every run a row, with its doors in miniature and the one sentence that matters. */
export default function Board() {
  const { plan, assessment } = useSite()
  const [params] = useSearchParams()
  const query = (params.get('q') ?? '').trim().toLowerCase()
  const only = params.get('grade')
  const removed = params.get('removed')
  const restored = params.get('restored')
  const tag = params.get('tag') ?? 'The run'
  const rows = plan.runs
    .map((run, at) => ({ run, verdict: assessment.runs[at] }))
    .filter(
      ({ run, verdict }) => (query === '' || wordsOf(plan, run).includes(query)) && (!only || verdict?.grade === only),
    )
  return (
    <>
      <Flex align="center" justify="space-between" gap="4" mb="4" wrap="wrap">
        <Heading as="h1" size="xl">
          Runs
        </Heading>
        <Flex gap="3" wrap="wrap" align="center">
          <GradeFilter only={only} query={query} />
          <Link href={`/sites/${plan.site.id}/plan.json`} color="brassInk" textDecoration="underline" fontSize="sm">
            Plan file
          </Link>
          {plan.devices.length > 1 && (
            <MainButton asChild>
              <RouterLink to={`/sites/${plan.site.id}/runs/new`}>New run</RouterLink>
            </MainButton>
          )}
        </Flex>
      </Flex>
      {restored && (
        <Notice tone="clear" py="2">
          {restored} is back.
        </Notice>
      )}
      {removed && (
        <Notice tone="note">
          <Undo change={removed} back={`/sites/${plan.site.id}?${new URLSearchParams({ restored: tag })}`}>
            {tag} was deleted, with the needs that only it served.
          </Undo>
        </Notice>
      )}
      {rows.length === 0 ? <Nothing filtered={plan.runs.length > 0} /> : <Rows rows={rows} />}
    </>
  )
}

function GradeFilter({ only, query }: { only: string | null; query: string }) {
  const { assessment } = useSite()
  return (
    <Flex gap="1" fontSize="sm" as="nav" aria-label="Show runs by verdict">
      {([null, 'blocked', 'tight', 'clear'] as const).map((grade) => {
        const count =
          grade === null ? assessment.runs.length : assessment.runs.filter((run) => run.grade === grade).length
        const search = new URLSearchParams({ ...(query ? { q: query } : {}), ...(grade ? { grade } : {}) }).toString()
        return (
          <Link
            asChild
            key={grade}
            px="2"
            py="1"
            borderRadius="2px"
            color="ink"
            fontWeight={only === grade ? '800' : '500'}
            bg={only === grade ? 'floor' : 'transparent'}
            textTransform="capitalize"
          >
            <RouterLink to={{ search }} aria-current={only === grade ? 'true' : undefined}>
              {grade ?? 'all'} {count}
            </RouterLink>
          </Link>
        )
      })}
    </Flex>
  )
}

function Nothing({ filtered }: { filtered: boolean }) {
  const { plan } = useSite()
  if (filtered) {
    return (
      <Text>
        No run matches.{' '}
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={`/sites/${plan.site.id}`}>Show all of them</RouterLink>
        </Link>
      </Text>
    )
  }
  return plan.devices.length > 1 ? (
    <Text>No run yet. Lay the first one: choose two ports and a cable between them.</Text>
  ) : (
    <Text maxW="520px">
      A run joins the ports of two devices, and this site has no devices yet. Bring them in with a plan file: take this
      site's own file (“Plan file” above), add the devices and the cables of your drawer as docs/plan-file.md tells, and
      bring it in.
    </Text>
  )
}

function wordsOf(plan: Plan, run: Run): string {
  const names = [run.from.device, run.to.device].map(
    (id) => plan.devices.find((device) => device.id === id)?.name ?? '',
  )
  const tags = run.leads.map((lead) => plan.cables.find((cable) => cable.id === lead.cable)?.tag ?? '')
  return [run.tag, run.name ?? '', ...names, ...tags].join(' ').toLowerCase()
}

/** A table where there is room; on a phone each run a card, so that what matters is not off the edge. */
const rowLook = {
  '& td': { verticalAlign: 'top', whiteSpace: 'normal', px: '2' },
  '& th': { px: '2' },
  mdDown: {
    '& thead': { srOnly: true },
    '& tr': {
      display: 'flex',
      flexWrap: 'wrap',
      alignItems: 'center',
      borderBottom: '1px solid',
      borderColor: 'line',
      py: '2',
    },
    '& td': { border: 'none', py: '0.5' },
    '& td:nth-of-type(4)': { display: 'none' },
    '& td:last-of-type': { flexBasis: '100%' },
  },
}

function Rows({
  rows,
}: {
  rows: { run: Run; verdict: ReturnType<typeof useSite>['assessment']['runs'][number] | undefined }[]
}) {
  const { plan } = useSite()
  const unit = useUnit()
  const deviceName = (id: string) => plan.devices.find((device) => device.id === id)?.name ?? id
  return (
    <Table.ScrollArea border="1px solid" borderColor="line" borderRadius="2px">
      <Table.Root size="sm" bg="card" css={rowLook}>
        <Table.Header>
          <Table.Row bg="floor">
            {['Run', 'Verdict', 'From and to', 'Needs', 'Cable', 'Doors', 'What matters'].map((name) => (
              <Table.ColumnHeader key={name}>{name}</Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {rows.map(({ run, verdict }) => {
            if (!verdict) return null
            const leading = leadingFinding(verdict.findings)
            return (
              <Table.Row key={run.id} bg="card" _hover={{ bg: 'paper' }}>
                <Table.Cell>
                  <Link
                    asChild
                    fontFamily="mono"
                    fontWeight="700"
                    color="brassInk"
                    textDecoration="underline"
                    whiteSpace="nowrap"
                  >
                    <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`}>{run.tag}</RouterLink>
                  </Link>
                </Table.Cell>
                <Table.Cell>
                  <GradeMark grade={verdict.grade} />
                </Table.Cell>
                <Table.Cell minW="150px">
                  {deviceName(run.from.device)}
                  <Box color="quiet">to {deviceName(run.to.device)}</Box>
                </Table.Cell>
                <Table.Cell fontSize="xs" minW="130px">
                  {verdict.flows.map((flow) => {
                    const need = plan.needs.find((candidate) => candidate.id === flow.needId)
                    return need ? (
                      <Box key={need.id} whiteSpace="nowrap">
                        {needNames[need.kind]}{' '}
                        <Box as="span" fontFamily="mono">
                          {formatNeedSize(need)}
                        </Box>
                      </Box>
                    ) : null
                  })}
                  {verdict.flows.length === 0 && <Box color="quiet">none stated</Box>}
                </Table.Cell>
                <Table.Cell whiteSpace="nowrap" fontFamily="mono" fontSize="xs">
                  {run.leads.map((lead) => {
                    const cable = plan.cables.find((candidate) => candidate.id === lead.cable)
                    return cable ? (
                      <Box key={cable.id} minW="64px">
                        <Box as="span" whiteSpace="nowrap">
                          {cable.tag}
                        </Box>{' '}
                        <Length metres={cable.length} brief />
                      </Box>
                    ) : null
                  })}
                  {run.leads.length === 0 && <Box color="quiet">none yet</Box>}
                </Table.Cell>
                <Table.Cell>
                  <DoorStrip verdict={verdict} />
                </Table.Cell>
                <Table.Cell minW="260px" fontSize="sm">
                  {leading ? sentence(leading, unit) : 'Nothing speaks against it.'}
                </Table.Cell>
              </Table.Row>
            )
          })}
        </Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  )
}
