import { data, redirect } from 'react-router'
import { besideAt, whereAt } from '../../../core/bench/where'
import { observed, takeBack, writeDown } from '../../../core/change/changes/observations'
import { circumstancesSchema, type Subject } from '../../../core/observe/every'
import { observationsOf } from '../../../core/observe/learned'
import { type Observation, observationText, type Unwritten } from '../../../core/observe/observation'
import type { Plan } from '../../../core/plan/plan'
import { indexPlan, portKey } from '../../../core/plan/site-index'
import type { PortAddress } from '../../../core/vocabulary/run'
import { refused } from '../../../server/sites/change-site'
import { changeBy, whyNotSaved } from '../../stored.server'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import { contextFor, readSeen } from './seen-context'

/** What something is seen of: its subject, the tag it goes by, and the sockets where the page knows them. */
export type SeenOf = { subject: Subject; tag: string; from?: PortAddress; to?: PortAddress; run?: string }

/** What was wrong with a line of what was seen; nothing else of the page's forms was sent with it. */
export type SeenAnswer = { problem: string; of: 'seen'; result?: undefined; clash?: undefined; lines?: undefined }
const said = (problem: string, status = 422) => data<SeenAnswer>({ problem, of: 'seen' }, { status })

/**
 * Writes down a line of what somebody saw. Where it was is copied from the survey as it stands; what else was plugged in is filled in from the plan, unless the
 * form says otherwise.
 */
export async function saveSeen(
  request: Request,
  form: FormData,
  { site, done }: { site: string; done: string },
  find: (plan: Plan) => SeenOf | null,
) {
  const hand = await handOf(request, form)
  let problem: string | null = null
  const saved = await changeBy(hand, site, ({ plan }) => {
    const of = find(plan)
    if (!of) return refused('seen', 'the cable, run or kind has been deleted meanwhile')
    const index = indexPlan(plan)
    const from = of.from ?? addressIn(plan, form.get('socket'))
    const to = of.to ?? addressIn(plan, form.get('far'))
    const read = readSeen(of.subject, String(form.get('line') ?? ''), contextFor(index, of.subject, from, to))
    if (!read.ok) {
      problem = read.problem
      return refused('line', read.problem)
    }
    const told = circumstancesSchema.safeParse(circumstancesIn(form))
    if (!told.success) {
      problem = `What else may have mattered cannot be saved: ${told.error.issues[0]?.message}.`
      return refused('circumstances', problem)
    }
    const planned = from && !told.data.alone ? besideAt(index, from, of.run) : {}
    const circumstances = { ...planned, ...told.data }
    const place = {
      ...(from ? { where: whereAt(index, from, to) } : {}),
      ...(Object.keys(circumstances).length > 0 ? { circumstances } : {}),
    }
    const seen = read.value.map((each): Unwritten => (each.kind === 'statement' ? each : { ...each, ...place }))
    const observations = observed(seen, of.subject, witnessOf(hand))
    return writeDown(observations, [of.tag, observations.map(observationText).join(', ')])
  })
  if (saved?.outcome === 'saved') return redirect(done)
  if (problem !== null) return said(`${problem} Nothing was saved.`)
  const why = whyNotSaved(saved)
  return said(why.problem, why.status)
}

/** What the form says of the circumstances; what it leaves empty is as the plan has it. */
function circumstancesIn(form: FormData): NonNullable<Unwritten['circumstances']> {
  const charge = Number(String(form.get('charge') ?? '').replace(/ ?%$/, '') || Number.NaN)
  const [beside, adapters] = [namesIn(form, 'beside'), namesIn(form, 'adapters')]
  const supply = String(form.get('supply') ?? '').trim()
  return {
    ...(form.get('alone') === 'on' ? { alone: true } : beside.length > 0 ? { beside } : {}),
    ...(adapters.length > 0 ? { adapters } : {}),
    ...(supply === '' ? {} : { supply }),
    ...(form.get('strange') === 'on' ? { strangeSupply: true } : {}),
    ...(charge >= 0 && charge <= 100 ? { charge } : {}),
  }
}

/** Names with commas between them. */
const namesIn = (form: FormData, field: string): string[] =>
  String(form.get(field) ?? '')
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name !== '')

/** A socket that a form names; none where the survey has no such port. */
function addressIn(plan: Plan, value: FormDataEntryValue | null): PortAddress | undefined {
  for (const { id, ports } of plan.devices)
    for (const port of ports) if (portKey({ device: id, port: port.id }) === value) return { device: id, port: port.id }
  return undefined
}

/** Takes an observation back, with the reason why. */
export async function saveRetraction(
  request: Request,
  form: FormData,
  { site, done }: { site: string; done: string },
  find: (plan: Plan) => { subject: Subject | { run: string }; tag: string } | null,
) {
  const id = String(form.get('observation') ?? '')
  const reason = String(form.get('reason') ?? '').trim()
  if (reason === '' || reason.length > 300) return said('Say in a few words why it does not count. Nothing was saved.')
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, site, ({ plan }) => {
    const of = find(plan)
    const observations = of ? observationsOf(plan, of.subject) : []
    const observation = observations.find((each) => each.id === id)
    if (!of || !observation) return refused('observation', 'that observation is no longer there')
    if (observations.some((each: Observation) => each.kind === 'retraction' && each.retracts === id))
      return refused('observation', 'it has been taken back already')
    return takeBack([observation], reason, [of.tag, observationText(observation)], witnessOf(hand))
  })
  if (saved?.outcome === 'saved') return redirect(done)
  const { problem, status } = whyNotSaved(saved)
  return said(problem, status)
}
