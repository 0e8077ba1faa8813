import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, redirect, useSearchParams } from 'react-router'
import { nextSetupOf, type Soaking, sessionProgress, soaksOf } from '../../../../core/bench/progress'
import { type Setup, setupsFor } from '../../../../core/bench/setup'
import type { Copy } from '../../../../core/change/change'
import { standCables } from '../../../../core/change/changes/cables'
import { endSession, startSoak, stopSoak } from '../../../../core/change/changes/sessions'
import type { SiteIndex } from '../../../../core/plan/site-index'
import type { Session } from '../../../../core/vocabulary/session'
import { type Hand, type MakeChange, type Refused, refused, unlessSo } from '../../../../server/sites/change-site'
import { readForm } from '../../../read-form.server'
import { baseOf, changeBy, loadSite, whyNotSaved } from '../../../stored.server'
import { MadeFrom } from '../../../ui/change-fields'
import { Notice, QuietButton } from '../../../ui/controls'
import { ErrorView } from '../../../ui/error-view'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'
import { handOf } from '../../../who.server'
import { witnessOf } from '../../../witness.server'
import type { Route } from './+types/session'
import { BenchStep } from './bench-step'
import { readingsDraft } from './save-readings.server'
import { SessionMatrix } from './session-matrix'
import { readWritten, type WrittenReadings, writtenReadings } from './session-readings'
import { Progress } from './sessions'
import { SoakTray } from './soak-tray'

/** What was read in this session, and the time by the server's clock, by which soaks are counted. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = (await loadSite(params.site)).copy
  const session = plan.sessions.find(({ id }) => id === params.session)
  if (!session) throw data(null, { status: 404 })
  return { readings: writtenReadings(plan, session), soaks: soaksOf(plan, session.id, new Date()) }
}

/** Readings, soaks, and what becomes of a cable. Each is saved by itself, so that nothing waits for the end of a session. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const here = `/sites/${params.site}/drawer/sessions/${encodeURIComponent(params.session)}`
  const intent = form.get('intent')
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, (copy) => {
    const session = copy.plan.sessions.find(({ id }) => id === params.session)
    if (!session) return refused('session', 'the session is no longer there')
    return draftFor(copy, session, form, hand)
  })
  if (saved?.outcome === 'saved')
    return redirect(
      intent === 'remove' ? `/sites/${params.site}/drawer/sessions` : intent === 'retire' ? `${here}#table` : here,
    )
  if (saved?.outcome === 'refused')
    return data({ problem: `${sentenceOf(saved.faults)} Nothing was saved.` }, { status: 422 })
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

function draftFor({ plan, place }: Copy, session: Session, form: FormData, hand: Hand): ReturnType<MakeChange> {
  const cable = String(form.get('cable') ?? '')
  switch (form.get('intent')) {
    case 'soak': {
      const test = session.tests.find(({ id }) => id === form.get('test'))
      if (!session.cables.includes(cable) || !test) return refused('test', 'That test is not in this session any more.')
      const { at: since, newId } = witnessOf(hand)
      return startSoak(plan, place, session, { cable, test: test.id, since, id: newId() })
    }
    case 'call-off':
      // somebody may have read it, or called it off, a moment before
      return unlessSo(stopSoak(plan, place, session, cable))
    case 'retire': {
      const ids = new Set(cable.split(' '))
      const chosen = plan.cables.filter(({ id }) => ids.has(id))
      if (chosen.length === 0) return refused('cables', 'none of these cables is there any more')
      return unlessSo(standCables(chosen, baseOf(form), 'retired'))
    }
    case 'remove':
      return endSession(plan, baseOf(form), session)
    default:
      return readingsDraft(plan, place, session, form, hand)
  }
}

const sentenceOf = (faults: Refused['faults']): string =>
  [...new Set(faults.map(({ reason }) => reason))]
    .map((reason) => `${reason[0]?.toUpperCase()}${reason.slice(1)}${/[.!?]$/.test(reason) ? '' : '.'}`)
    .join(' ')

/** At the bench: one step at a time, then the table of what every cable did and what becomes of it. */
export default function SessionPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const session = plan.sessions.find(({ id }) => id === params.session)
  if (!session) return <ErrorView status={404} />
  return (
    <AtTheBench
      session={session}
      index={index}
      readings={loaderData.readings}
      soaks={loaderData.soaks}
      problem={actionData?.problem}
    />
  )
}

function AtTheBench({
  session,
  index,
  readings: written,
  soaks,
  problem,
}: {
  session: Session
  index: SiteIndex
  readings: WrittenReadings
  soaks: Soaking[]
  problem: string | undefined
}) {
  const readings = useMemo(() => readWritten(written), [written])
  const progress = useMemo(() => sessionProgress(index, session, readings, soaks), [index, session, readings, soaks])
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
          readings={readings}
          setup={focus.setup}
          plug={focus.plug}
          soak={soaks.find(({ cable }) => cable === focus.cable) ?? null}
        />
      ) : (
        <Notice tone="clear">
          {total === 0
            ? 'None of these cables fits the ports of these tests.'
            : 'All readings are in. The table below says what becomes of each cable.'}
        </Notice>
      )}
      <SessionMatrix session={session} index={index} readings={readings} />
      <Box as="details" mt="8">
        <Box as="summary" cursor="pointer" color="quiet" fontSize="sm">
          Delete this session
        </Box>
        <Form method="post">
          <MadeFrom />
          <Flex gap="4" mt="2" align="center" wrap="wrap">
            <QuietButton name="intent" value="remove" grave>
              Delete the session
            </QuietButton>
            <Text fontSize="sm" color="quiet">
              The readings stay on the cables; the session and its table are deleted. You can undo this in the history.
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
