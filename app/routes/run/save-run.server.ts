import { randomUUID } from 'node:crypto'
import type { SubmissionResult } from '@conform-to/react'
import { data, redirect } from 'react-router'
import type { LogPosition } from '../../../core/change/change'
import { saveRun } from '../../../core/change/changes/run'
import { keepWhatIf } from '../../../core/variants/keep-what-if'
import { refused, unlessSo } from '../../../server/sites/change-site'
import { currentCopy } from '../../../server/sites/copies'
import { parseFields } from '../../parse-fields.server'
import { addressWith, baseOf, changeBy, load, whyNotSaved } from '../../stored.server'
import { NOT_TRIED, triedOf } from '../../tried'
import { readUnit } from '../../unit-cookie'
import { handOf } from '../../who.server'
import { type ToldClash, tellRunClash } from './run-clash'
import { changeOf, runFormSchema } from './run-form'

export type RunSaveAnswer = {
  result: SubmissionResult<string[]>
  /** What somebody else made of the same, and the place in the log at which it stands. */
  clash?: ToldClash & { place: LogPosition }
}

/** Saves what the run form says, and answers with a redirect or with what is wrong, keeping what was typed. */
export async function saveRunForm(request: Request, form: FormData, siteId: string, runId: string | null) {
  const submission = parseFields(form, runFormSchema(readUnit(request)))
  const answer = (status: number, extra: Omit<RunSaveAnswer, 'result'> & { problem?: string } = {}) => {
    const { problem, ...rest } = extra
    const result = submission.reply(problem ? { formErrors: [problem] } : undefined)
    return data<RunSaveAnswer>({ result: result as SubmissionResult<string[]>, ...rest }, { status })
  }
  // a line added or taken away before scripts have loaded
  if (submission.status !== 'success') return answer(submission.status === 'error' ? 422 : 200)

  const hand = await handOf(request, form)
  const fresh = { run: runId ?? freshId('run', hand.id), need: (at: number) => freshId('need', hand.id, at) }
  const base = runId === null ? null : baseOf(form)
  const tried = triedOf(form)
  if (tried === undefined) return answer(422, { problem: NOT_TRIED })
  const saved = await changeBy(hand, siteId, (copy) => {
    const { plan } = copy
    const before = plan.runs.find((run) => run.id === runId) ?? null
    const had = submission.value.had?.split(' ').filter(Boolean) ?? []
    const made = saveRun(plan, base, { ...changeOf(submission.value, before, plan, fresh), had })
    return tried?.words
      ? (keepWhatIf(copy, made, [fresh.run], tried.words) ?? refused('tried', NOT_TRIED))
      : unlessSo(made)
  })
  if (saved?.outcome === 'saved')
    return redirect(addressWith(`/sites/${siteId}/runs/${fresh.run}`, { done: 'saved', took: tried && saved.id }))
  if (saved?.outcome === 'conflict') {
    const held = await load((knex) => currentCopy(knex, siteId))
    if (held) return answer(409, { clash: { ...tellRunClash(held.copy.plan, saved.clashes), place: saved.place } })
  }
  const { problem, status } = whyNotSaved(saved)
  return answer(status, { problem })
}

/** An id that is the same when the same change is sent again. */
const freshId = (what: string, change: string | undefined, at = 0): string =>
  change ? `${what}-${change.slice(0, 40)}${at > 0 ? `-${at}` : ''}` : `${what}-${randomUUID()}`
