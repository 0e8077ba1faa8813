import { type Prediction, predict } from '../../../../core/bench/predict'
import { SIMULATED_LEADS, type SoundLead } from '../../../../core/bench/simulated-lead'
import type { Plan } from '../../../../core/plan/plan'
import { indexPlan, portKey } from '../../../../core/plan/site-index'
import type { BenchTest } from '../../../../core/vocabulary/session'
import type { MeterOn } from '../../../../server/instruments/simulated-meter'

/** How much faster than the wall's its clock may run. */
const FASTEST = 30

/** What the simulated bench meter is put on: one lead of a session, in the setup of one test. Null where there is no such lead. */
export function meterOn(plan: Plan, asked: URLSearchParams): MeterOn | null {
  const session = plan.sessions.find(({ id }) => id === asked.get('session'))
  const index = indexPlan(plan)
  const cable = index.cables.get(asked.get('cable') ?? '')
  const test = session?.tests.find(({ id }) => id === asked.get('test'))
  if (!session || !cable || !test) return null
  const sound: SoundLead = { mode: null, write: null, read: null, watts: null, voltsLost: null, picture: null }
  for (const each of session.tests) {
    const here = portKey(each.from) === portKey(test.from) && portKey(each.to) === portKey(test.to)
    if (here) Object.assign(sound, soundIn(each, predict(index, each, cable)))
  }
  const lead = SIMULATED_LEADS.find((each) => each === asked.get('lead')) ?? 'as marked'
  const pace = Math.min(FASTEST, Math.max(1, Number(asked.get('pace')) || 1))
  return { cable: cable.id, lead, sound, pace }
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
