import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { Link as RouterLink, useNavigation } from 'react-router'
import { changeWords } from '../../../core/change/words'
import type { ListName } from '../../../core/plan/entity'
import type { HistoryLine } from '../../../server/sites/history'
import { ChangeId } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { useSite } from '../../ui/site-context'

/** Changes as signs along a corridor, the latest first: who did what, when, and what it touched. */
export function HistoryLines({ lines }: { lines: readonly HistoryLine[] }) {
  return (
    <Box as="ol" listStyleType="none" borderLeft="3px solid" borderColor="line" ml="1">
      {lines.map((line) => (
        <Line key={line.place} line={line} />
      ))}
    </Box>
  )
}

function Line({ line }: { line: HistoryLine }) {
  const { plan } = useSite()
  const busy = useNavigation().state !== 'idle'
  const shown = line.touched.filter(({ list }) => addressOf(plan.site.id, list, '') !== null)
  return (
    <Flex
      as="li"
      id={`change-${line.place}`}
      gap="4"
      py="2.5"
      pl="4"
      borderBottom="1px solid"
      borderColor="line"
      align="start"
      justify="space-between"
      position="relative"
      _before={{
        content: '""',
        position: 'absolute',
        left: '-3px',
        top: '20px',
        w: '12px',
        h: '3px',
        bg: 'brass',
      }}
    >
      <Box minW="0">
        <Text>
          <b>{line.by}</b> {changeWords(line.what)}.
        </Text>
        <Text fontSize="sm" color="quiet">
          <Moment at={line.at} />, change {line.place}
          {line.along && `, together with ${line.along.join(', ')}`}
          {shown.length > 0 && ': '}
          {shown.map(({ list, id, name }, at) => (
            <Box as="span" key={`${list}/${id}`}>
              {at > 0 && ', '}
              <Link asChild color="brassInk" textDecoration="underline">
                <RouterLink to={addressOf(plan.site.id, list, id) ?? ''}>{name ?? id}</RouterLink>
              </Link>
            </Box>
          ))}
          {line.things > line.touched.length && ` and ${line.things - line.touched.length} more`}
        </Text>
        {line.kept && (
          <Text fontSize="sm" color="quiet">
            Cannot be undone: {line.kept}
          </Text>
        )}
      </Box>
      {line.kept === null && (
        <Form method="post" preventScrollReset>
          <input type="hidden" name="undo" value={line.id} />
          <ChangeId />
          <QuietButton loading={busy} aria-label={`Undo change ${line.place}`}>
            Undo
          </QuietButton>
        </Form>
      )}
    </Flex>
  )
}

/** The history of one of a list; null for what has no page of its own to be named by. */
function addressOf(site: string, list: ListName, id: string): string | null {
  switch (list) {
    case 'runs':
    case 'cables':
    case 'devices':
    case 'needs':
    case 'kinds':
    case 'sessions':
    case 'places':
      return `/sites/${site}/history?${new URLSearchParams({ list, id })}`
    default:
      return null
  }
}
