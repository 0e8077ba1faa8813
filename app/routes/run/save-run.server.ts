import { randomUUID } from 'node:crypto'
import type { SubmissionResult } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { data, redirect } from 'react-router'
import type { Run } from '../../../core/plan/run'
import { readPlan } from '../../../server/sites/plan-rows'
import { type RunChange, saveRun } from '../../../server/sites/runs'
import { AWAY_MESSAGE, save } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import { changeOf, runFormSchema } from './run-form'

export type RunSaveAnswer = {
  result: SubmissionResult<string[]>
  /** Somebody else's version of this run, and the revision at which it stands; null run: they deleted it. */
  conflict?: { theirs: RunChange | null; revision: number }
}

/** Reads the run form, saves it, and answers with a redirect or with what is wrong, keeping what was typed. */
export async function saveRunForm(request: Request, siteId: string, runId: string | null) {
  const form = await request.formData()
  const submission = parseWithZod(form, { schema: runFormSchema(readUnit(request)) })
  const answer = (status: number, extra: Omit<RunSaveAnswer, 'result'> & { problem?: string } = {}) => {
    const { problem, ...rest } = extra
    const result = submission.reply(problem ? { formErrors: [problem] } : undefined)
    return data<RunSaveAnswer>({ result: result as SubmissionResult<string[]>, ...rest }, { status })
  }
  // a line added or taken away before scripts have loaded
  if (submission.status !== 'success') return answer(submission.status === 'error' ? 422 : 200)

  const outcome = await save(async (knex) => {
    const stored = await readPlan(knex, siteId)
    if (!stored) return 'no-site'
    const { plan } = stored
    const before: Run | null = plan.runs.find((run) => run.id === runId) ?? null
    const change = changeOf(submission.value, before, plan, {
      run: runId ?? `run-${randomUUID()}`,
      need: () => `need-${randomUUID()}`,
    })
    // "save mine over theirs" names the revision it means to replace
    const over = form.get('over')
    const base = runId === null || over === 'deleted' ? null : Number(over ?? submission.value.base)
    return { change, saved: await saveRun(knex, siteId, base, change) }
  })
  if (outcome === null) return answer(503, { problem: AWAY_MESSAGE })
  if (outcome === 'no-site' || outcome.saved.outcome === 'no-site') {
    return answer(404, { problem: 'This site no longer exists, so nothing was saved.' })
  }
  const { change, saved } = outcome
  if (saved.outcome === 'saved') return redirect(`/sites/${siteId}/runs/${change.run.id}?done=saved`)
  if (saved.outcome === 'conflict') return answer(409, { conflict: { theirs: saved.theirs, revision: saved.revision } })
  const reasons = saved.faults.map((fault) => fault.reason).join('; ')
  return answer(422, { problem: `This does not fit the site: ${reasons}. Nothing was saved.` })
}
