import { Box, Flex, Table, Text } from '@chakra-ui/react'
import { Link as RouterLink, useLocation } from 'react-router'
import { needNames } from '../../../core/checks/sentences'
import type { Need } from '../../../core/plan/need'
import { formatNeedSize } from '../../../core/plan/need-text'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import { formatLengthBoth } from '../../../core/quantity/length'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import type { RunSaveAnswer } from './save-run.server'

type Props = { conflict: NonNullable<RunSaveAnswer['conflict']>; plan: Plan; run: Run; needs: readonly Need[] }

/** Somebody saved the same run first: what they changed, and the two ways on. Nothing of either is lost. */
export function ConflictNotice({ conflict, plan, run, needs }: Props) {
  const { pathname } = useLocation()
  const { theirs, revision } = conflict
  const before = linesOf(plan, run, needs)
  const now = theirs ? linesOf(plan, theirs.run, theirs.needs) : null
  const changed = now ? Object.keys(before).filter((name) => before[name] !== now[name]) : []
  return (
    <Notice tone="tight">
      <Text fontWeight="700">
        {theirs
          ? 'Somebody else saved this run while you had it open.'
          : 'Somebody else deleted this run while you had it open.'}{' '}
        Nothing was saved; what you typed is still below.
      </Text>
      {now && changed.length > 0 && (
        <Table.Root size="sm" my="2" bg="transparent" maxW="640px">
          <Table.Body>
            {changed.map((name) => (
              <Table.Row key={name} bg="transparent">
                <Table.Cell fontWeight="600">{name}</Table.Cell>
                <Table.Cell>was {before[name] || 'empty'}</Table.Cell>
                <Table.Cell>they say {now[name] || 'empty'}</Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
      <Flex gap="3" mt="2" wrap="wrap">
        <MainButton form={`run-${run.id}`} name="over" value={theirs ? revision : 'deleted'}>
          {theirs ? 'Save mine over theirs' : 'Put it back as mine'}
        </MainButton>
        <QuietButton asChild>
          <RouterLink to={theirs ? pathname : `/sites/${plan.site.id}`} reloadDocument>
            {theirs ? 'Take theirs' : 'Leave it deleted'}
          </RouterLink>
        </QuietButton>
      </Flex>
      <Box srOnly role="alert">
        Conflict: choose whose version to keep.
      </Box>
    </Notice>
  )
}

function linesOf(plan: Plan, run: Run, needs: readonly Need[]): Record<string, string> {
  const tagOf = (id: string) => plan.cables.find((cable) => cable.id === id)?.tag ?? id
  const nameOf = (id: string) => plan.devices.find((device) => device.id === id)?.name ?? id
  return {
    Tag: run.tag,
    'Host port': `${nameOf(run.from.device)} ${run.from.port}`,
    'Device port': `${nameOf(run.to.device)} ${run.to.port}`,
    Cable: run.leads.map((lead) => tagOf(lead.cable)).join(' + '),
    'Route length': formatLengthBoth(run.route.length),
    Needs: needs.map((need) => `${needNames[need.kind]} ${formatNeedSize(need)}`).join('; '),
    Note: run.note ?? '',
  }
}
