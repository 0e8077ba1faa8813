import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { readingText } from '../../../core/bench/grade-reading'
import type { Tried } from '../../../core/observe/observation'
import { portKey, socketAt } from '../../../core/plan/site-index'
import { orderTests, referenceOf, type TestPlan, visitsOf, type Wanted } from '../../../core/prove/test-plan'
import { testName } from '../../../core/prove/test-words'
import { durationText } from '../../../core/quantity/duration'
import text from '../../theme/text.module.css'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import look from './prove.module.css'

/** Rows that are shown at once. */
const MOST_SHOWN = 100

/** What to test in which order: few plugs, soaks side by side, what is risky last. */
export default function TestPlanPage() {
  const { plan, assessed } = useSite()
  const [params] = useSearchParams()
  const wanted: Wanted = params.get('only') === 'stale' ? 'stale' : 'open'
  const made = useMemo(() => {
    const { visits, spared } = visitsOf(assessed, wanted)
    return orderTests(visits, spared)
  }, [assessed, wanted])
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        {wanted === 'stale' ? 'Prove again what is stale' : 'Plan of tests'}
      </Heading>
      {made.visits.length === 0 ? (
        <Text>
          {wanted === 'stale' ? 'No test of a laid run is stale.' : 'Every test of every laid run has passed.'}{' '}
          <RouterLink to={`${home}/prove`} className={text.link}>
            All runs
          </RouterLink>
        </Text>
      ) : (
        <Order made={made} />
      )}
      <p className={text.small}>
        {wanted === 'stale' ? (
          <RouterLink to={`${home}/test-plan`} className={text.link}>
            With all that was never tested
          </RouterLink>
        ) : (
          <RouterLink to={`${home}/test-plan?only=stale`} className={text.link}>
            Only what is stale
          </RouterLink>
        )}
      </p>
    </>
  )
}

function Order({ made }: { made: TestPlan }) {
  const { plan, index, assessed } = useSite()
  const { visits, hands, ends, atLeast, exact, spared } = made
  const reference = referenceOf(assessed)
  const plugs = visits.reduce((sum, visit) => sum + visit.plugs, 0)
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <Text mb="2">
        {visits.length} {visits.length === 1 ? 'visit' : 'visits'}, about {durationText(hands)} of work,{' '}
        {plugs === 0 ? 'no plug to move' : `${plugs} plugs to move`}. The last soak is over after {durationText(ends)}
        {exact || ends <= atLeast
          ? '; no order is over sooner.'
          : `; no order is over before ${durationText(atLeast)}.`}{' '}
        {spared > 0 &&
          `${spared} link ${spared === 1 ? 'test is' : 'tests are'} left out: the soak in the same socket shows the same.`}
      </Text>
      {reference?.test.result && (
        <Text mb="2">
          Begin and end with{' '}
          <RouterLink to={`${home}/prove/${reference.run.id}`} className={`${text.link} ${text.mono}`}>
            {reference.run.tag}
          </RouterLink>
          : it read {readingText(reference.test.result.reading as Tried)} <Moment at={reference.at} dayOnly />. If it
          reads differently now, doubt the instrument.
        </Text>
      )}
      <RuledTable label="Order of the tests" columns={['', 'Run', 'Socket', 'Tests', 'Begins', 'Over']} cards>
        {visits.slice(0, MOST_SHOWN).map(({ run, socket, tests, plugs: moved, start, end, risk }, position) => {
          const { device, port } = socketAt(index, socket)
          return (
            <tr key={`${run.id} ${portKey(socket)}`}>
              <td className={text.mono}>{position + 1}</td>
              <td className={text.whole}>
                <RouterLink to={`${home}/prove/${run.id}`} className={`${text.link} ${text.mono} ${text.strong}`}>
                  {run.tag}
                </RouterLink>
              </td>
              <td>
                {device.name}, {port.name}
                {moved > 0 && <span className={text.quiet}> (move the plug there and back)</span>}
              </td>
              <td>
                {tests
                  .map(
                    ({ standing: { test }, repeats }) =>
                      `${testName(index, test)}${repeats > 1 ? `, ${repeats} times` : ''}`,
                  )
                  .join('; ')}
                {risk && <span className={text.warn}> Last: {risk}.</span>}
              </td>
              <td className={text.whole}>{start === 0 ? 'at once' : `after ${durationText(start)}`}</td>
              <td className={text.whole}>after {durationText(end)}</td>
            </tr>
          )
        })}
      </RuledTable>
      {visits.length > MOST_SHOWN && <p className={text.quiet}>and {visits.length - MOST_SHOWN} more behind them.</p>}
      <p className={`${text.quiet} ${look.section}`}>
        Hold alike what is not tested: the same disk, charger and file, the battery below half, and what is usually
        plugged in.
      </p>
    </>
  )
}
