import type { SubmissionResult } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { data, redirect } from 'react-router'
import { z } from 'zod'
import { trialSeen } from '../../../../core/bench/take-reading'
import type { Place } from '../../../../core/change/change'
import { saveCable } from '../../../../core/change/changes/cables'
import { observed, takeBack, writeDown } from '../../../../core/change/changes/observations'
import { learnedOf, learntOfCable, observationsOf } from '../../../../core/observe/learned'
import { observationText } from '../../../../core/observe/observation'
import type { Cable } from '../../../../core/plan/cable'
import { nameField } from '../../../../core/plan/fields'
import { LINK_MODES } from '../../../../core/standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../../../../core/standards/soak'
import { refused } from '../../../../server/sites/change-site'
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
  clash?: { by: string; deleted: boolean; lines: ClashLine[]; place: Place }
}
const said = (answer: CableSaveAnswer, status: number) => data<CableSaveAnswer>(answer, { status })

/** Reads the form of a cable, saves it, or answers with what is wrong, keeping what was typed. */
export async function saveCableForm(form: FormData, request: Request, here: Here) {
  const submission = parseWithZod(form, { schema: cableFormSchema(readUnit(request)) })
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

const trialForm = z.object({
  tried: z.enum(LINK_MODES),
  seen: z.union([z.literal(['nothing', 'dropped']), z.enum(LINK_MODES)]),
  seconds: z.coerce.number().int().min(0).max(10_000_000),
  controller: z.union([z.literal(''), nameField]),
})

/** Writes down what somebody saw come up. */
export async function saveTrialForm(request: Request, form: FormData, here: Here) {
  const read = trialForm.safeParse(Object.fromEntries(form))
  if (!read.success)
    return said(
      { problem: 'Say what was tried, what came up, and for how many seconds it was watched. Nothing was saved.' },
      422,
    )
  const { controller } = read.data
  const seen = {
    ...trialSeen({ ...read.data, soak: SHORTEST_SOAK_SECONDS }),
    ...(controller ? { where: { controller } } : {}),
  }
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, here.site, ({ plan }) => {
    const cable = plan.cables.find(({ id }) => id === here.cable)
    if (!cable) return refused('cable', 'the cable is no longer there')
    const observations = observed([seen], { cable: cable.id }, witnessOf(hand))
    return writeDown(observations, [cable.tag, observations.map(observationText).join(', ')])
  })
  if (saved?.outcome === 'saved') return redirect(addressOf(here, 'read'))
  const { problem, status } = whyNotSaved(saved)
  return said({ problem }, status)
}

/** Takes an observation back, with the reason why. */
export async function saveRetraction(request: Request, form: FormData, here: Here) {
  const id = String(form.get('observation') ?? '')
  const reason = String(form.get('reason') ?? '').trim()
  if (reason === '' || reason.length > 300)
    return said({ problem: 'Say in a few words why it does not count. Nothing was saved.' }, 422)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, here.site, ({ plan }) => {
    const cable = plan.cables.find((each) => each.id === here.cable)
    const observations = observationsOf(plan, { cable: here.cable })
    const observation = observations.find((each) => each.id === id)
    if (!cable || !observation) return refused('observation', 'what was to be taken back is no longer there')
    if (observations.some((each) => each.kind === 'retraction' && each.retracts === id))
      return refused('observation', 'it has been taken back already')
    return takeBack(observation, reason, [cable.tag, observationText(observation)], witnessOf(hand))
  })
  if (saved?.outcome === 'saved') return redirect(addressOf(here, 'retracted'))
  const { problem, status } = whyNotSaved(saved)
  return said({ problem }, status)
}
