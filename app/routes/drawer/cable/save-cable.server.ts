import type { SubmissionResult } from '@conform-to/react'
import { data, redirect } from 'react-router'
import type { LogPosition } from '../../../../core/change/change'
import { saveCable } from '../../../../core/change/changes/cables'
import { observed } from '../../../../core/change/changes/observations'
import { learnedOf, learntOfCable } from '../../../../core/observe/learned'
import type { Cable } from '../../../../core/vocabulary/cable'
import { parseFields } from '../../../parse-fields.server'
import { baseOf, changeBy, whyNotSaved } from '../../../stored.server'
import type { ClashLine } from '../../../ui/clash-notice'
import { readUnit } from '../../../unit-cookie'
import { handOf } from '../../../who.server'
import { witnessOf } from '../../../witness.server'
import { cableClashLines } from './cable-clash'
import { cableFormSchema, readCable } from './cable-form'

type Here = { site: string; cable: string }
const addressOf = ({ site, cable }: Here, done: string): string =>
  `/sites/${site}/cables/${encodeURIComponent(cable)}?${new URLSearchParams({ done })}`

export type CableSaveAnswer = {
  result?: SubmissionResult<string[]>
  problem?: string
  clash?: { by: string; deleted: boolean; lines: ClashLine[]; place: LogPosition }
}
const said = (answer: CableSaveAnswer, status: number) => data<CableSaveAnswer>(answer, { status })

/** Reads the form of a cable, saves it, or answers with what is wrong, keeping what was typed. */
export async function saveCableForm(form: FormData, request: Request, here: Here) {
  const submission = parseFields(form, cableFormSchema(readUnit(request)))
  const answer = (status: number, problem?: string, clash?: CableSaveAnswer['clash']) =>
    said(
      {
        result: submission.reply(problem ? { formErrors: [problem] } : undefined) as SubmissionResult<string[]>,
        ...(problem ? { problem } : {}),
        ...(clash ? { clash } : {}),
      },
      status,
    )
  if (submission.status !== 'success') return answer(422)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, here.site, ({ plan }) => {
    const before = plan.cables.find(({ id }) => id === here.cable) ?? null
    const { cable, marks } = readCable(submission.value, before, learntOfCable(learnedOf(plan), here.cable), here.cable)
    return saveCable(cable, baseOf(form), observed(marks, { cable: here.cable }, witnessOf(hand)))
  })
  if (saved?.outcome === 'saved') return redirect(addressOf(here, 'saved'))
  if (saved?.outcome === 'conflict') {
    const { clashes, place } = saved
    const [clash] = clashes
    return answer(409, undefined, {
      by: clash?.by ?? 'Somebody else',
      deleted: clash?.theirs === null,
      lines: clashes.flatMap(({ fields, mine, theirs }) =>
        cableClashLines(fields, mine as Cable | null, theirs as Cable | null),
      ),
      place,
    })
  }
  const { problem, status } = whyNotSaved(saved)
  return answer(status, problem)
}
