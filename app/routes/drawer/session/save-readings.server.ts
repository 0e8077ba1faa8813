import { soaksOf } from '../../../../core/bench/progress'
import { takeReading } from '../../../../core/bench/take-reading'
import type { ChangeToMake, LogPosition } from '../../../../core/change/change'
import { observed } from '../../../../core/change/changes/observations'
import { takeReadings } from '../../../../core/change/changes/sessions'
import { HELD_BACK_BY } from '../../../../core/observe/every'
import type { Observation } from '../../../../core/observe/observation'
import type { Plan } from '../../../../core/plan/plan'
import { indexPlan } from '../../../../core/plan/site-index'
import type { Session } from '../../../../core/vocabulary/session'
import { type Hand, type Refused, refused } from '../../../../server/sites/change-site'
import { witnessOf } from '../../../witness.server'

/** The name of the control that reads a test. */
const READING = /^reading-(.+)$/
const METER = { name: 'simulated meter', simulated: true } as const

/** Whatever a form has read of one cable, all of it or nothing. */
export function readingsDraft(
  plan: Plan,
  place: LogPosition,
  session: Session,
  form: FormData,
  hand: Hand,
): ChangeToMake | Refused {
  const texts = new Map<string, string>()
  for (const [name, value] of form) {
    const found = READING.exec(name)
    if (found && typeof value === 'string') texts.set(found[1] ?? '', value)
  }
  if (texts.size === 0) return refused('reading', 'No reading was given.')
  const cable = plan.cables.find(({ id }) => id === form.get('cable'))
  if (!cable || !session.cables.includes(cable.id)) return refused('cable', 'The cable is not in this session.')
  const metered = form.get('meter') === 'simulated'
  const witness = witnessOf(hand)
  const soak = soaksOf(plan, session.id, new Date(witness.at)).find((each) => each.cable === cable.id)
  // the simulated meter has a clock of its own; otherwise the time that counts is the server's
  const seconds = metered ? Number(form.get('seconds')) || 0 : (soak?.seconds ?? 0)
  const limit = HELD_BACK_BY.find((each) => each === form.get('limit'))
  const index = indexPlan(plan)
  const readings: Observation[] = []
  for (const test of session.tests) {
    const text = texts.get(test.id)
    if (text === undefined) continue
    const taken = takeReading(index, session, cable, { test, text, seconds, limit })
    if (!taken.ok) return refused('reading', taken.problem)
    const seen = metered ? { ...taken.value, instrument: METER } : taken.value
    readings.push(...observed([seen], { cable: cable.id }, witness))
  }
  return takeReadings(plan, place, session, cable.id, readings)
}
