import { Box, Flex, Grid, Text } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import type { Setup } from '../../../../core/bench/setup'
import { type MeterSample, SIMULATED_LEADS, type SimulatedLead } from '../../../../core/bench/simulated-lead'
import { decimal } from '../../../../core/quantity/parsed'
import { formatBytesPerSecond, MEGABYTE_PER_SECOND } from '../../../../core/quantity/rate'
import { formatWatts } from '../../../../core/quantity/watts'
import { linkModeFacts } from '../../../../core/standards/link-modes'
import type { Cable } from '../../../../core/vocabulary/cable'
import type { BenchTest, Session } from '../../../../core/vocabulary/session'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton, QuietButton } from '../../../ui/controls'
import { Labelled, PlainSelect } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useStream } from '../../../ui/page-stream'

const leads: Record<SimulatedLead, string> = {
  'as marked': 'a lead that does what it should',
  'charge-only': 'a charge-only lead',
  drops: 'a lead that drops in its soak',
  'falls back': 'a lead that falls back beside a neighbour',
  heats: 'a lead that heats',
  lies: 'any lead, read by a meter that lies',
}

type Look = { sample: MeterSample; wasUp: boolean }

/** A meter that plays a lead, for trying a session without a bench; a real one would send the same events. */
export function BenchMeter({ session, cable, setup }: { session: Session; cable: Cable; setup: Setup }) {
  const [lead, setLead] = useState<SimulatedLead>('as marked')
  const [pace, setPace] = useState(1)
  const [running, setRunning] = useState(false)
  const [look, setLook] = useState<Look | null>(null)
  const [lost, setLost] = useState(false)
  const [first] = setup.tests
  const on = new URLSearchParams({
    session: session.id,
    cable: cable.id,
    test: first?.id ?? '',
    lead,
    pace: String(pace),
  }).toString()
  const stream = useStream('sample', (data) => {
    const sample: MeterSample = JSON.parse(data)
    setLook((before) => ({ sample, wasUp: sample.mode !== null || before?.wasUp === true }))
  })
  useStream('lost', () => {
    if (running) setLost(true)
    setRunning(false)
  })
  useEffect(() => {
    if (!running || !stream) return
    setLook(null)
    setLost(false)
    return stream.watch('meter', on)
  }, [running, stream, on])
  return (
    <Box as="details" borderTop="1px solid" borderColor="line" pt="3">
      <Box as="summary" cursor="pointer" color="brassInk" fontWeight="600">
        Simulated bench meter
      </Box>
      <Flex gap="3" align="end" wrap="wrap" mt="2">
        <Labelled label="On the bench lies" w="270px">
          <PlainSelect value={lead} onChange={(event) => setLead(event.target.value as SimulatedLead)}>
            {SIMULATED_LEADS.map((value) => (
              <option key={value} value={value}>
                {leads[value]}
              </option>
            ))}
          </PlainSelect>
        </Labelled>
        <Labelled label="Its clock" w="170px">
          <PlainSelect value={pace} onChange={(event) => setPace(Number(event.target.value))}>
            <option value={1}>as it is</option>
            <option value={10}>ten times as fast</option>
          </PlainSelect>
        </Labelled>
        <QuietButton type="button" onClick={() => setRunning(!running)}>
          {running ? 'Stop the meter' : 'Start the meter'}
        </QuietButton>
      </Flex>
      {lost && (
        <Text color="blocked" role="alert" mt="2">
          The meter no longer answers. Start it again; the readings so far are saved.
        </Text>
      )}
      {look && <Reading look={look} cable={cable} tests={setup.tests} />}
    </Box>
  )
}

function Reading({ look: { sample, wasUp }, cable, tests }: { look: Look; cable: Cable; tests: readonly BenchTest[] }) {
  const shown: [string, string | null][] = [
    ['link', sample.mode ? linkModeFacts[sample.mode].name : wasUp ? 'dropped' : 'nothing'],
    ['write', sample.write === null ? null : formatBytesPerSecond(sample.write)],
    ['read', sample.read === null ? null : formatBytesPerSecond(sample.read)],
    ['power', sample.watts === null ? null : formatWatts(sample.watts)],
    ['lost', sample.voltsLost === null ? null : `${decimal(sample.voltsLost, 2)} V`],
    ['picture', sample.picture === null ? null : sample.picture ? 'holds' : 'none'],
    ['plug', `${decimal(sample.celsius, 1)} °C`],
  ]
  const soak = tests.reduce((longest, test) => Math.max(longest, test.kind === 'link' ? test.soak : 0), 0)
  return (
    <>
      <Grid
        templateColumns="repeat(auto-fit, minmax(120px, 1fr))"
        gap="2"
        mt="3"
        aria-label="What the meter shows"
        role="group"
      >
        <Gauge name="after" value={`${Math.floor(sample.seconds)} s${soak > 0 ? ` of ${soak}` : ''}`} />
        {shown.map(([name, value]) => (value === null ? null : <Gauge key={name} name={name} value={value} />))}
      </Grid>
      <Form method="post" preventScrollReset>
        <ChangeId />
        <input type="hidden" name="cable" value={cable.id} />
        <input type="hidden" name="meter" value="simulated" />
        <input type="hidden" name="seconds" value={Math.floor(sample.seconds)} />
        {tests.map((test) => (
          <input key={test.id} type="hidden" name={`reading-${test.id}`} value={textFor(test, { sample, wasUp })} />
        ))}
        <MainButton>Take these readings</MainButton>
      </Form>
    </>
  )
}

function Gauge({ name, value }: { name: string; value: string }) {
  return (
    <Box bg="floor" px="3" py="2" borderRadius="2px">
      <Box fontSize="xs" color="quiet">
        {name}
      </Box>
      <Box fontFamily="mono" fontWeight="700">
        {value}
      </Box>
    </Box>
  )
}

/** What the meter shows, as a test's reading is written. */
function textFor(test: BenchTest, { sample, wasUp }: Look): string {
  switch (test.kind) {
    case 'link':
      return sample.mode ?? (wasUp ? 'dropped' : 'nothing')
    case 'write':
    case 'read':
      return String(Math.round((sample[test.kind] ?? 0) / MEGABYTE_PER_SECOND))
    case 'watts':
      return String(sample.watts ?? 0)
    case 'volts lost':
      return String(sample.voltsLost ?? 0)
    case 'picture':
      return sample.picture ? 'held' : 'not'
    case 'warmth':
      return String(sample.celsius)
  }
}
