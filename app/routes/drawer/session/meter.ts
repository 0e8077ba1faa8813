import { data } from 'react-router'
import { type Prediction, predict } from '../../../../core/bench/predict'
import { SIMULATED_LEADS, type SoundLead } from '../../../../core/bench/simulated-lead'
import { indexPlan, portKey } from '../../../../core/plan/site-index'
import type { BenchTest } from '../../../../core/vocabulary/session'
import { meterStream } from '../../../../server/instruments/simulated-meter'
import { loadSite } from '../../../stored.server'
import type { Route } from './+types/meter'

/** How much faster than the wall's its clock may run. */
const FASTEST = 30

/** The simulated bench meter on one lead in one setup, as server-sent events. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url)
  const { plan } = (await loadSite(params.site)).copy
  const session = plan.sessions.find(({ id }) => id === params.session)
  const index = indexPlan(plan)
  const cable = index.cables.get(searchParams.get('cable') ?? '')
  const test = session?.tests.find(({ id }) => id === searchParams.get('test'))
  if (!session || !cable || !test) throw data('There is no such lead in this session.', { status: 404 })
  const sound: SoundLead = { mode: null, write: null, read: null, watts: null, voltsLost: null, picture: null }
  for (const each of session.tests) {
    const here = portKey(each.from) === portKey(test.from) && portKey(each.to) === portKey(test.to)
    if (here) Object.assign(sound, soundIn(each, predict(index, each, cable)))
  }
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

/** What a sound lead shows in one test: what is predicted of it there. */
function soundIn({ kind }: BenchTest, prediction: Prediction): Partial<SoundLead> {
  switch (prediction.kind) {
    case 'link':
      return { mode: prediction.mode }
    case 'watts':
      return { watts: prediction.watts }
    case 'picture':
      return { picture: prediction.fits }
    case 'volts lost':
      return { voltsLost: prediction.expected ?? prediction.most * 0.6 }
    case 'rate':
      return { [kind]: (prediction.low + prediction.high) / 2 }
    default:
      return {}
  }
}
