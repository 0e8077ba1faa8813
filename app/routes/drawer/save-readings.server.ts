import { takeReading } from '../../../core/bench/take-reading'
import type { Evidence } from '../../../core/plan/cable'
import { indexPlan } from '../../../core/plan/site-index'
import { readPlan } from '../../../server/sites/plan-rows'
import { addReadings, runningSoaks } from '../../../server/sites/sessions'
import { type NotSaved, save, whyNotSaved } from '../../stored.server'
import { today } from './today'

type Here = { site: string; session: string }

/** The name of the control that reads a test. */
const READING = /^reading-(.+)$/
const NOT_SAVED = 'Nothing was saved.'

/** Saves whatever a form has read of one cable, all of it or nothing. */
export async function saveReadings(form: FormData, here: Here): Promise<NotSaved | 'saved'> {
  const texts = new Map<string, string>()
  for (const [name, value] of form) {
    const found = READING.exec(name)
    if (found && typeof value === 'string') texts.set(found[1] ?? '', value)
  }
  if (texts.size === 0) return { problem: `No reading was given. ${NOT_SAVED}`, status: 422 }
  const cableId = String(form.get('cable') ?? '')
  const metered = form.get('meter') === 'simulated'
  const answer = await save(async (knex): Promise<NotSaved | 'saved'> => {
    const stored = await readPlan(knex, here.site)
    const session = stored?.plan.sessions.find(({ id }) => id === here.session)
    const cable = stored?.plan.cables.find(({ id }) => id === cableId)
    if (!stored || !session || !cable)
      return { problem: `This session or its cable is no longer there. ${NOT_SAVED}`, status: 404 }
    const soak = (await runningSoaks(knex, here.site, here.session)).find((each) => each.cable === cableId)
    // the simulated meter has a clock of its own; otherwise the time that counts is the server's
    const seconds = metered ? Number(form.get('seconds')) || 0 : (soak?.seconds ?? 0)
    const index = indexPlan(stored.plan)
    const readings: Evidence[] = []
    for (const test of session.tests) {
      const text = texts.get(test.id)
      if (text === undefined) continue
      const taken = takeReading(index, session, cable, { test, text, seconds }, today())
      if (!taken.ok) return { problem: `${taken.problem} ${NOT_SAVED}`, status: 422 }
      readings.push(metered ? { ...taken.value, note: 'from the simulated meter' } : taken.value)
    }
    const saved = await addReadings(knex, here.site, here.session, cableId, readings)
    if (saved.outcome === 'saved') return 'saved'
    return whyNotSaved(saved)
  })
  return answer ?? whyNotSaved(null)
}
