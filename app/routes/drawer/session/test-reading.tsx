import { Box, Flex, Text } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useNavigation } from 'react-router'
import { predictionText, readingText, testText } from '../../../../core/bench/grade-reading'
import { predict } from '../../../../core/bench/predict'
import type { Soaking } from '../../../../core/bench/progress'
import { sharedModes } from '../../../../core/link/shared-modes'
import type { HeldBackBy } from '../../../../core/observe/every'
import { WARMTHS } from '../../../../core/observe/kinds/warmth'
import type { Tried } from '../../../../core/observe/observation'
import type { SiteIndex } from '../../../../core/plan/site-index'
import { linkModeFacts } from '../../../../core/standards/link-modes'
import type { Cable } from '../../../../core/vocabulary/cable'
import type { BenchTest } from '../../../../core/vocabulary/session'
import { Bar } from '../../../ui/bar'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton, QuietButton } from '../../../ui/controls'
import { PlainInput, PlainSelect } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useSeconds } from '../../../ui/use-seconds'

type Props = { index: SiteIndex; cable: Cable; test: BenchTest; read: Tried | undefined; soak: Soaking | null }

/** One test of one lead: what it should do, and the largest buttons that take what it does. */
export function TestReading({ index, cable, test, read, soak }: Props) {
  return (
    <Box borderTop="1px solid" borderColor="line" py="3">
      <Flex gap="4" align="baseline" mb="2" wrap="wrap">
        <Text fontWeight="700" fontSize="lg">
          {testText(test)}
        </Text>
        <Text color="quiet">should: {predictionText(predict(index, test, cable))}</Text>
        {read && (
          <Text color="clear" fontWeight="600">
            read: {readingText(read)}
          </Text>
        )}
      </Flex>
      <Form method="post" preventScrollReset>
        <input type="hidden" name="cable" value={cable.id} />
        <ChangeId />
        <Controls index={index} test={test} soak={soak} />
      </Form>
    </Box>
  )
}

const nameOf = (test: BenchTest): string => `reading-${test.id}`

function Controls({ index, test, soak }: { index: SiteIndex; test: BenchTest; soak: Soaking | null }) {
  switch (test.kind) {
    case 'link':
      return test.soak > 0 && soak === null ? (
        <Flex gap="3" wrap="wrap">
          <input type="hidden" name="test" value={test.id} />
          <Target name="intent" value="soak" strong>
            Start the soak
          </Target>
          <Target name={nameOf(test)} value="nothing">
            No link came up
          </Target>
        </Flex>
      ) : (
        <>
          {soak && <SoakClock key={soak.seconds} soak={soak} whole={test.soak} />}
          <Flex gap="3" wrap="wrap">
            {sharedModes(index, test).map((mode) => (
              <Target key={mode} name={nameOf(test)} value={mode}>
                {linkModeFacts[mode].name}
              </Target>
            ))}
            <Target name={nameOf(test)} value={soak ? 'dropped' : 'nothing'}>
              {soak ? 'It dropped' : 'No link came up'}
            </Target>
            {soak && (
              <QuietButton name="intent" value="call-off">
                Stop the soak
              </QuietButton>
            )}
          </Flex>
        </>
      )
    case 'write':
    case 'read':
      return <Figure test={test} unit="MB/s" label="Megabytes a second" limits={COPY_LIMITS} />
    case 'watts':
      return <Figure test={test} unit="W" label="Watts" limits={POWER_LIMITS} />
    case 'volts lost':
      return <Figure test={test} unit="V" label="Volts lost, there and back" />
    case 'picture':
      return (
        <Flex gap="3" wrap="wrap">
          <Target name={nameOf(test)} value="held">
            It held
          </Target>
          <Target name={nameOf(test)} value="not">
            It did not
          </Target>
        </Flex>
      )
    case 'warmth':
      return (
        <Flex gap="3" wrap="wrap">
          {WARMTHS.map((felt) => (
            <Target key={felt} name={nameOf(test)} value={felt}>
              {{ cool: 'Cool', warm: 'Warm', hot: 'Too hot to hold' }[felt]}
            </Target>
          ))}
        </Flex>
      )
  }
}

/** Large enough to hit with a lead in the other hand. */
function Target({ strong, children, ...rest }: { name?: string; value?: string; strong?: true; children: ReactNode }) {
  const busy = useNavigation().state !== 'idle'
  return strong ? (
    <MainButton large disabled={busy} {...rest}>
      {children}
    </MainButton>
  ) : (
    <QuietButton large disabled={busy} {...rest}>
      {children}
    </QuietButton>
  )
}

const COPY_LIMITS: readonly HeldBackBy[] = ['lead', 'disk']
const POWER_LIMITS: readonly HeldBackBy[] = ['lead', 'charger']

type FigureProps = { test: BenchTest; unit: string; label: string; limits?: readonly HeldBackBy[] }

function Figure({ test, unit, label, limits }: FigureProps) {
  return (
    <Flex gap="3" align="center" wrap="wrap">
      <PlainInput
        mono
        big
        style={{ width: 150 }}
        name={nameOf(test)}
        aria-label={label}
        inputMode="decimal"
        autoComplete="off"
        required
        maxLength={24}
      />
      <Box as="span" fontFamily="mono">
        {unit}
      </Box>
      {limits && (
        <Flex as="label" gap="2" align="center" fontSize="sm">
          What held it back
          <PlainSelect name="limit" defaultValue="unknown">
            <option value="unknown">not known</option>
            {limits.map((limit) => (
              <option key={limit} value={limit}>
                the {limit}
              </option>
            ))}
          </PlainSelect>
        </Flex>
      )}
      <Target>Save</Target>
    </Flex>
  )
}

function SoakClock({ soak, whole }: { soak: Soaking; whole: number }) {
  const seconds = useSeconds(soak.seconds)
  const over = seconds >= whole
  return (
    <Flex align="center" gap="4" mb="3">
      <Box
        role="timer"
        fontFamily="mono"
        fontSize="3xl"
        fontWeight="700"
        color={over ? 'clear' : 'ink'}
        minW="130px"
        suppressHydrationWarning
      >
        {Math.floor(seconds)} s
      </Box>
      <Box flex="1" maxW="420px">
        <Bar share={seconds / Math.max(1, whole)} colour={over ? 'clear' : 'note'} />
        <Text fontSize="sm" color="quiet" aria-live="polite">
          {over
            ? 'The soak is over. What is it linked as now?'
            : `Watch it to ${whole} s; marginal leads let go between 45 and 90. Other leads can be tested meanwhile.`}
        </Text>
      </Box>
    </Flex>
  )
}
