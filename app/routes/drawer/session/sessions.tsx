import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { testText } from '../../../../core/bench/grade-reading'
import { sessionProgress } from '../../../../core/bench/progress'
import { loadSite } from '../../../stored.server'
import text from '../../../theme/text.module.css'
import { Bar } from '../../../ui/bar'
import { MainButton } from '../../../ui/controls'
import { RuledTable } from '../../../ui/ruled-table'
import { useSite } from '../../../ui/site-context'
import type { Route } from './+types/sessions'
import { readWritten, writtenReadings } from './session-readings'

/** What was read in each session; the site brings only what it comes to. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return { readings: copy.plan.sessions.map((session) => [session.id, writtenReadings(copy.plan, session)] as const) }
}

/** Sort-out sessions, each with how far it has come; any can be gone on with. */
export default function Sessions({ loaderData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const home = `/sites/${plan.site.id}/drawer/sessions`
  const latest = [...plan.sessions].reverse()
  const written = new Map(loaderData.readings)
  return (
    <>
      <Flex gap="6" mb="4" wrap="wrap" align="center">
        <Text flex="1 1 420px" maxW="720px">
          A session puts a heap of leads through the same few tests, with the fewest plugs pulled, and ends with what
          each lead is good for. Every reading is kept at once: leave it whenever you must, and come back.
        </Text>
        <MainButton asChild>
          <RouterLink to={`${home}/new`}>New session</RouterLink>
        </MainButton>
      </Flex>
      {latest.length === 0 ? (
        <Text color="quiet">No session yet.</Text>
      ) : (
        <RuledTable label="Sessions" columns={['Session', 'Day', 'Cables', 'Tests', 'Read']}>
          {latest.map((session) => {
            const { read, total } = sessionProgress(index, session, readWritten(written.get(session.id) ?? []), [])
            return (
              <tr key={session.id}>
                <td>
                  <Link asChild color="brassInk" textDecoration="underline" fontWeight="700">
                    <RouterLink to={`${home}/${session.id}`}>{session.name}</RouterLink>
                  </Link>
                  {session.note && <Box color="quiet">{session.note}</Box>}
                </td>
                <td className={`${text.mono} ${text.tiny} ${text.whole}`}>{session.on}</td>
                <td className={text.mono}>{session.cables.length}</td>
                <td>{session.tests.map(testText).join(', ')}</td>
                <td className={text.whole}>
                  <Progress read={read} total={total} />
                </td>
              </tr>
            )
          })}
        </RuledTable>
      )}
    </>
  )
}

/** How far a session has come, as a bar and in figures. */
export function Progress({ read, total }: { read: number; total: number }) {
  return (
    <Flex align="center" gap="2">
      <Box w="90px">
        <Bar share={total === 0 ? 1 : read / total} colour="clear" />
      </Box>
      <Box as="span" fontFamily="mono" fontSize="sm">
        {read} of {total}
      </Box>
    </Flex>
  )
}
