import type { SubmissionResult } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { data, redirect } from 'react-router'
import { z } from 'zod'
import { trialSeen } from '../../../core/bench/take-reading'
import { trialSchema } from '../../../core/plan/cable'
import { SHORTEST_SOAK_SECONDS } from '../../../core/standards/soak'
import { addEvidence, saveCable } from '../../../server/sites/cables'
import { readPlan } from '../../../server/sites/plan-rows'
import { save, whyNotSaved } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import { cableFormSchema, readCable } from './cable-form'
import { today } from './today'

type Here = { site: string; cable: string }
const addressOf = ({ site, cable }: Here, done: string): string =>
  `/sites/${site}/cables/${encodeURIComponent(cable)}?done=${done}`

/** Reads the form of a cable and saves it, or answers with what is wrong, keeping what was typed. */
export async function saveCableForm(form: FormData, request: Request, here: Here) {
  const submission = parseWithZod(form, { schema: cableFormSchema(readUnit(request)) })
  const answer = (status: number, problem?: string) =>
    data(
      {
        result: submission.reply(problem ? { formErrors: [problem] } : undefined) as SubmissionResult<string[]>,
        ...(problem ? { problem } : {}),
      },
      { status },
    )
  if (submission.status !== 'success') return answer(422)
  const saved = await save(async (knex) => {
    const stored = await readPlan(knex, here.site)
    const before = stored?.plan.cables.find((cable) => cable.id === here.cable)
    if (!before) return { outcome: 'no-site' } as const
    const { cable, learned } = readCable(submission.value, before, { id: here.cable, today: today() })
    return saveCable(knex, here.site, submission.value.base ?? 0, cable, learned)
  })
  if (saved?.outcome === 'saved') return redirect(addressOf(here, 'saved'))
  if (saved?.outcome === 'conflict')
    return answer(
      409,
      'Somebody changed this cable since you opened this page, so nothing was saved. What you typed is still below; open the page in another tab to see what they changed.',
    )
  const { problem, status } = whyNotSaved(saved)
  return answer(status, problem)
}

const trialForm = z.object({
  tried: trialSchema.shape.tried,
  seen: z.union([z.literal(['nothing', 'dropped']), trialSchema.shape.tried]),
  seconds: z.coerce.number().int().min(0).max(10_000_000),
  controller: z.string().trim().max(120),
})

/** Writes down what somebody saw come up. */
export async function saveTrialForm(form: FormData, here: Here) {
  const read = trialForm.safeParse(Object.fromEntries(form))
  if (!read.success)
    return data(
      { problem: 'Say what was tried, what came up, and for how many seconds it was watched. Nothing was saved.' },
      { status: 422 },
    )
  const trial = trialSeen({ ...read.data, soak: SHORTEST_SOAK_SECONDS })
  const saved = await save((knex) => addEvidence(knex, here.site, here.cable, [{ ...trial, on: today() }]))
  if (saved?.outcome === 'saved') return redirect(addressOf(here, 'read'))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}
