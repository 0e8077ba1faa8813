import { Box, Flex, Grid, Heading, Text } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import { useNavigationType } from 'react-router'
import type { SessionReadings } from '../../../../core/bench/matrix'
import type { Soaking } from '../../../../core/bench/progress'
import { isRisky } from '../../../../core/bench/risk'
import { goesInTurned, type Setup } from '../../../../core/bench/setup'
import { abilitiesOf } from '../../../../core/link/abilities'
import { type SiteIndex, type Socket, socketAt } from '../../../../core/plan/site-index'
import { connectorNames } from '../../../../core/standards/connectors'
import type { Cable } from '../../../../core/vocabulary/cable'
import type { Session } from '../../../../core/vocabulary/session'
import { ConnectorFace } from '../../../ui/connector-face'
import { Notice } from '../../../ui/controls'
import { Length } from '../../../ui/units'
import { UseDoor } from '../../../ui/use-door'
import { BenchMeter } from './bench-meter'
import { TestReading } from './test-reading'

type Props = {
  session: Session
  index: SiteIndex
  cableId: string
  readings: SessionReadings
  setup: Setup
  /** Ends that go in anew; null where somebody came here by their own way. */
  plug: readonly ('from' | 'to')[] | null
  soak: Soaking | null
}

/** One step at the bench: which lead, into which ports, and what to read there. */
export function BenchStep({ session, index, cableId, readings, setup, plug, soak }: Props) {
  const heading = useRef<HTMLHeadingElement>(null)
  const cable = index.cables.get(cableId)
  const arrived = useNavigationType()
  // after a reading the next step begins where the last one ended for whoever works with the keyboard
  useEffect(() => {
    if (arrived !== 'POP') heading.current?.focus({ preventScroll: true })
  }, [arrived])
  if (!cable) return null
  const [from, to] = [socketAt(index, setup.from), socketAt(index, setup.to)]
  const ends = goesInTurned(index, cable, setup) ? (['second', 'first'] as const) : (['first', 'second'] as const)
  return (
    <Box
      as="section"
      aria-label="Step"
      bg="card"
      border="1px solid"
      borderColor="line"
      borderRadius="2px"
      p={{ base: '3', md: '5' }}
      mb="6"
    >
      <Flex align="center" gap="4" wrap="wrap" mb="3">
        <Heading as="h3" size="3xl" fontFamily="mono" ref={heading} tabIndex={-1}>
          {cable.tag}
        </Heading>
        <UseDoor abilities={abilitiesOf(index, cable)} size={28} />
        <Length metres={cable.length} />
        {cable.note && <Text color="quiet">{cable.note}</Text>}
      </Flex>
      {isRisky(index, cable) && (
        <Notice tone="tight">
          This lead may get hot. It comes last, and starts on the equipment with the fewest runs. Feel its plugs often;
          the moment one gets hot, disconnect it at the supply.
        </Notice>
      )}
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="3" mb="4">
        <PlugTile cable={cable} end={ends[0]} socket={from} goesIn={plug === null || plug.includes('from')} />
        <PlugTile cable={cable} end={ends[1]} socket={to} goesIn={plug === null || plug.includes('to')} />
      </Grid>
      {setup.tests.map((test) => (
        <TestReading
          key={test.id}
          index={index}
          cable={cable}
          test={test}
          read={readings.get(cable.id)?.get(test.id)?.at(-1)}
          soak={soak?.test === test.id ? soak : null}
        />
      ))}
      <BenchMeter session={session} cable={cable} setup={setup} />
    </Box>
  )
}

/** Where one end goes, large enough to read from the bench; an end that stays says so. */
function PlugTile({
  cable,
  end,
  socket: { device, port },
  goesIn,
}: {
  cable: Cable
  end: 'first' | 'second'
  socket: Socket
  goesIn: boolean
}) {
  const { connector } = cable.ends[end === 'first' ? 0 : 1]
  return (
    <Flex
      gap="4"
      align="center"
      p="3"
      borderRadius="2px"
      bg={goesIn ? 'noteFloor' : 'floor'}
      borderLeft="6px solid"
      borderColor={goesIn ? 'brass' : 'line'}
    >
      <ConnectorFace connector={connector} width={60} />
      <Box>
        <Box fontSize="sm" color="quiet">
          {goesIn ? 'Put' : 'Leave'} the {end} end ({connectorNames[connector]}) {goesIn ? 'into' : 'in'}
        </Box>
        <Box fontSize="xl" fontWeight="700">
          {device.name}
        </Box>
        <Box fontSize="lg">{port.name}</Box>
      </Box>
    </Flex>
  )
}
