import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { useEffect, useMemo } from 'react'
import { data, Form, redirect, useRevalidator, useSearchParams } from 'react-router'
import { nextSetupOf, type Soaking, sessionProgress } from '../../../core/bench/progress'
import { type Setup, setupsFor } from '../../../core/bench/setup'
import type { Session } from '../../../core/plan/session'
import type { SiteIndex } from '../../../core/plan/site-index'
import { changeCables } from '../../../server/sites/cables'
import { removeSession, runningSoaks, startSoak, stopSoak } from '../../../server/sites/sessions'
import { AWAY_MESSAGE, load, loadPlan, save, whyNotSaved } from '../../stored.server'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/session'
import { BenchStep } from './bench-step'
import { saveReadings } from './save-readings.server'
import { SessionMatrix } from './session-matrix'
import { Progress } from './sessions'
import { SoakTray } from './soak-tray'

export const loader = async ({ params }: Route.LoaderArgs) => ({
  soaks: await load((knex) => runningSoaks(knex, params.site, params.session)),
})

/** Readings, soaks, and what becomes of a cable. Each is saved by itself, so that nothing waits for the end of a session. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await request.formData()
  const cable = String(form.get('cable') ?? '')
  const here = `/sites/${params.site}/drawer/sessions/${encodeURIComponent(params.session)}`
  const done = async (work: Promise<unknown>, to = here) =>
    (await work) === null ? data({ problem: AWAY_MESSAGE }, { status: 503 }) : redirect(to)
  switch (form.get('intent')) {
    case 'soak': {
      const { plan } = await loadPlan(params.site)
      const session = plan.sessions.find(({ id }) => id === params.session)
      const test = session?.tests.find(({ id }) => id === form.get('test'))
      if (!session?.cables.includes(cable) || !test)
        return data({ problem: 'That test is not in this session any more.' }, { status: 409 })
      return done(save((knex) => startSoak(knex, params.site, params.session, cable, test.id)))
    }
    case 'call-off':
      return done(save((knex) => stopSoak(knex, params.site, params.session, cable)))
    case 'retire': {
      const ids = cable.split(' ').filter(Boolean)
      const changed = await save((knex) =>
        changeCables(knex, params.site, ids, { change: 'stand', standing: 'retired' }),
      )
      if (changed?.outcome === 'changed') return redirect(`${here}#table`)
      const { problem, status } = whyNotSaved(changed)
      return data({ problem }, { status })
    }
    case 'remove':
      return done(
        save((knex) => removeSession(knex, params.site, params.session)),
        `/sites/${params.site}/drawer/sessions`,
      )
    default: {
      const answer = await saveReadings(form, params)
      return answer === 'saved' ? redirect(here) : data({ problem: answer.problem }, { status: answer.status })
    }
  }
}

/** At the bench: one step at a time, then the table of what every cable did and what becomes of it. */
export default function SessionPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const session = plan.sessions.find(({ id }) => id === params.session)
  useFreshOnReturn()
  if (!session) return <ErrorView status={404} />
  return <AtTheBench session={session} index={index} soaks={loaderData.soaks} problem={actionData?.problem} />
}

function AtTheBench({
  session,
  index,
  soaks,
  problem,
}: {
  session: Session
  index: SiteIndex
  soaks: Soaking[]
  problem: string | undefined
}) {
  const progress = useMemo(() => sessionProgress(index, session, soaks), [index, session, soaks])
  const { order, read, total } = progress
  const focus = useFocus(session, index, progress.order)
  return (
    <>
      <Flex align="center" gap="5" mb="3" wrap="wrap">
        <Heading as="h2" size="lg">
          {session.name}
        </Heading>
        <Progress read={read} total={total} />
        {order.plugs > 0 && (
          <Text fontSize="sm" color="quiet">
            {order.plugs} {order.plugs === 1 ? 'plug' : 'plugs'} to put in, about {minutes(order.seconds)}
          </Text>
        )}
        <Link href="#table" fontSize="sm" color="brassInk" textDecoration="underline">
          To the table
        </Link>
      </Flex>
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <SoakTray session={session} index={index} soaks={soaks.filter(({ cable }) => cable !== focus?.cable)} />
      {focus ? (
        <BenchStep
          key={`${focus.cable} ${focus.setup.tests.map(({ id }) => id)[0]}`}
          session={session}
          index={index}
          cableId={focus.cable}
          setup={focus.setup}
          plug={focus.plug}
          soak={soaks.find(({ cable }) => cable === focus.cable) ?? null}
        />
      ) : (
        <Notice tone="clear">
          {total === 0
            ? 'None of these cables fits the ports of these tests.'
            : 'Everything is read. The table below says what becomes of each cable.'}
        </Notice>
      )}
      <SessionMatrix session={session} index={index} />
      <Box as="details" mt="8">
        <Box as="summary" cursor="pointer" color="quiet" fontSize="sm">
          End this session for good
        </Box>
        <Form method="post">
          <Flex gap="4" mt="2" align="center" wrap="wrap">
            <QuietButton name="intent" value="remove" color="blocked" borderColor="blocked">
              Delete the session
            </QuietButton>
            <Text fontSize="sm" color="quiet">
              What was read stays on the cables; the session and its table go, and cannot be put back.
            </Text>
          </Flex>
        </Form>
      </Box>
    </>
  )
}

type Focus = { cable: string; setup: Setup; plug: readonly ('from' | 'to')[] | null }

/** What the page shows: the test somebody opened, the cable somebody picked, or the next step of the order. */
function useFocus(
  session: Session,
  index: SiteIndex,
  order: ReturnType<typeof sessionProgress>['order'],
): Focus | null {
  const [params] = useSearchParams()
  const picked = session.cables.find((id) => id === params.get('cable'))
  const test = session.tests.find(({ id }) => id === params.get('test'))
  const cable = picked ? index.cables.get(picked) : undefined
  if (cable && test) {
    const setup = setupsFor(index, session.tests, cable, (each) => each.id !== test.id)[0]
    if (setup) return { cable: cable.id, setup, plug: null }
  }
  if (cable) {
    const setup = nextSetupOf(order, cable.id)
    if (setup) return { cable: cable.id, setup, plug: null }
  }
  const [step] = order.steps
  return step ? { cable: step.cable, setup: step.setup, plug: step.kind === 'read' ? [] : step.plug } : null
}

const minutes = (seconds: number): string =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`

/** What others read meanwhile shows when somebody looks at the page again. */
function useFreshOnReturn(): void {
  const { revalidate } = useRevalidator()
  useEffect(() => {
    const look = () => {
      if (document.visibilityState === 'visible') revalidate()
    }
    document.addEventListener('visibilitychange', look)
    return () => document.removeEventListener('visibilitychange', look)
  }, [revalidate])
}
