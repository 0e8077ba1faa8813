import { data } from 'react-router'
import { type Prediction, predict } from '../../../core/bench/predict'
import { SIMULATED_LEADS, type SoundLead } from '../../../core/bench/simulated-lead'
import type { BenchTest } from '../../../core/plan/session'
import { indexPlan, portKey } from '../../../core/plan/site-index'
import { meterStream } from '../../../server/instruments/simulated-meter'
import { loadPlan } from '../../stored.server'
import type { Route } from './+types/meter'

/** How much faster than the wall's its clock may run. */
const FASTEST = 30

/** The simulated bench meter on one lead in one setup, as server-sent events. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url)
  const { plan } = await loadPlan(params.site)
  const session = plan.sessions.find(({ id }) => id === params.session)
  const index = indexPlan(plan)
  const cable = index.cables.get(searchParams.get('cable') ?? '')
  const test = session?.tests.find(({ id }) => id === searchParams.get('test'))
  if (!session || !cable || !test) throw data('There is no such lead in this session.', { status: 404 })
  const sameSetup = (other: BenchTest): boolean =>
    portKey(other.from) === portKey(test.from) && portKey(other.to) === portKey(test.to)
  const sound = soundLead(
    session.tests.filter(sameSetup).map((each) => predict(index, each, cable)),
    session.tests.filter(sameSetup),
  )
  const lead = SIMULATED_LEADS.find((each) => each === searchParams.get('lead')) ?? 'as marked'
  const pace = Math.min(FASTEST, Math.max(1, Number(searchParams.get('pace')) || 1))
  return new Response(meterStream({ cable: cable.id, lead, sound, pace }, request.signal), {
    headers: {
      'Content-Type': 'text/event-stream; charset=utf-8',
      // held back to be compressed, an event would come late
      'Cache-Control': 'no-cache, no-transform',
    },
  })
}

/** What a sound lead shows in a setup: what is predicted of it in each test there. */
function soundLead(predictions: readonly Prediction[], tests: readonly BenchTest[]): SoundLead {
  const sound: SoundLead = { mode: null, write: null, read: null, watts: null, voltsLost: null, picture: null }
  for (const [at, prediction] of predictions.entries()) {
    if (prediction.kind === 'link') sound.mode = prediction.mode
    if (prediction.kind === 'watts') sound.watts = prediction.watts
    if (prediction.kind === 'picture') sound.picture = prediction.fits
    if (prediction.kind === 'volts lost') sound.voltsLost = prediction.expected ?? prediction.most * 0.6
    if (prediction.kind === 'rate') {
      const middle = (prediction.low + prediction.high) / 2
      if (tests[at]?.kind === 'write') sound.write = middle
      else sound.read = middle
    }
  }
  return sound
}
