import { z } from 'zod'
import { readNeedSize, saidSize } from '../../../core/needs/need-text'
import { directNeeds } from '../../../core/plan/direct-needs'
import type { Plan } from '../../../core/plan/plan'
import { runLike } from '../../../core/plan/run-like'
import { type LengthUnit, sameLength } from '../../../core/quantity/length'
import { followedRoute } from '../../../core/route/follow'
import { legsExample, legsText, parseRoute } from '../../../core/route/legs'
import { tagField } from '../../../core/vocabulary/fields'
import { NEED_KINDS, type Need } from '../../../core/vocabulary/need'
import { leadFrom, leadKey, type PortAddress, type Run } from '../../../core/vocabulary/run'
import { addressFrom, lengthText, portField, readBy } from '../../ui/form-text'

const needForm = z
  .object({
    id: z.string().max(64).optional(),
    kind: z.enum(NEED_KINDS, { error: 'Choose what must get through.' }),
    way: z.enum(['down', 'up']).default('down'),
    size: z.string({ error: 'Say how much must get through.' }),
    priority: z
      .string()
      .regex(/^[1-9]?$/, 'Choose who is served first.')
      .optional(),
  })
  .transform((need, context) => {
    const size = readNeedSize(need.kind, need.size)
    if (size.ok)
      return {
        id: need.id,
        way: need.way,
        size: size.value,
        priority: need.priority ? Number(need.priority) : undefined,
      }
    context.addIssue({ code: 'custom', path: ['size'], message: size.problem })
    return z.NEVER
  })

/** What the run form holds, as it is typed; reading it gives quantities. */
export const runFormSchema = (unit: LengthUnit) =>
  z.object({
    tag: z.string({ error: 'Give the run a tag, such as R-07.' }).pipe(tagField),
    from: portField('Choose the host port.'),
    to: portField('Choose the device port.'),
    length: readBy(
      (text) => parseRoute(text, unit),
      `Give the length of the route, such as 4.2 m, 14 ft or 13' 9", or its legs: ${legsExample}.`,
    ),
    follows: z.literal('on').optional(),
    leads: z.array(z.string().optional()).max(8).default([]),
    needs: z.array(needForm).max(16).default([]),
    note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
    /** The needs the form was shown with, by their ids. */
    had: z.string().max(2000).optional(),
  })
export type RunForm = z.output<ReturnType<typeof runFormSchema>>
/** The form's own texts, before anything is read. */
export type RunFormTexts = {
  tag: string
  from: string
  to: string
  length: string
  follows?: string
  leads: string[]
  needs: { id?: string; kind: string; way: string; size: string; priority?: string }[]
  note?: string
  had?: string
}

/** The run and its direct needs that a form describes. What the form does not show (name, how leads lie) stays as it was. */
export function changeOf(
  form: RunForm,
  before: Run | null,
  plan: Plan,
  ids: { run: string; need: (at: number) => string },
): { run: Run; needs: Need[] } {
  const from = addressFrom(form.from)
  const to = addressFrom(form.to)
  const run: Run = {
    ...(before ?? { id: ids.run }),
    tag: form.tag,
    from,
    to,
    leads: form.leads
      .filter((key): key is string => Boolean(key))
      .map((key) => before?.leads.find((lead) => leadKey(lead) === key) ?? leadFrom(key)),
    route: routeOf(form, before),
  }
  if (run.route.follows) run.route = followedRoute(plan, run)
  if (form.note) run.note = form.note
  else delete run.note
  const known = new Map(before ? directNeeds(plan, before).map((need) => [need.id, need]) : [])
  const needs = form.needs.map(({ id, way, size, priority }, at): Need => {
    const old = id ? known.get(id) : undefined
    const ends = way === 'down' ? { from: from.device, to: to.device } : { from: to.device, to: from.device }
    return {
      id: old?.id ?? ids.need(at),
      ...(old?.name ? { name: old.name } : {}),
      ...(old?.note ? { note: old.note } : {}),
      ...(old?.through ? { through: old.through } : {}),
      ...(priority ? { priority } : {}),
      ...ends,
      ...(old?.variants && old.kind === size.kind ? { variants: old.variants } : {}),
      ...(old?.kind === 'audio' && size.kind === 'audio' && old.delay !== undefined ? { delay: old.delay } : {}),
      ...(old?.kind === 'headset' && size.kind === 'headset' && old.hours !== undefined ? { hours: old.hours } : {}),
      ...(old?.kind === 'sensor' && size.kind === 'sensor' && old.volts !== undefined ? { volts: old.volts } : {}),
      ...(old?.kind === 'picture' && size.kind === 'picture' && old.uncompressed ? { uncompressed: true } : {}),
      ...size,
    } as Need
  })
  return { run, needs }
}

/** The route that a form describes: one that follows the pathways is theirs to tell, one that nobody touched stays as it was. */
function routeOf({ length: { length, legs }, follows }: RunForm, before: Run | null): Run['route'] {
  const { legs: had, follows: followed, ...rest }: Run['route'] = before?.route ?? { length }
  if (follows) return { ...rest, follows: true }
  if (before && !legs && sameLength(before.route.length, length))
    return { ...rest, ...(had && !followed ? { legs: had } : {}) }
  return { ...rest, length, ...(legs ? { legs } : {}) }
}

/** A route as `parseRoute` reads it back: its legs where these were said, else its length. */
export const routeText = ({ legs, follows, length }: Run['route'], unit: LengthUnit): string =>
  legs && !follows ? legsText(legs, unit) : lengthText(length, unit)

/** The next run like one, as the form's texts, with the same needs between its two devices. */
export function textsLike(plan: Plan, run: Run, unit: LengthUnit): Omit<RunFormTexts, 'tag'> {
  const { from, to, leads, length } = runLike(plan, run)
  const { needs } = textsOf(run, directNeeds(plan, run), unit)
  const said = (end: PortAddress | null): string => (end ? `${end.device}/${end.port}` : '')
  return {
    from: said(from),
    to: said(to),
    length: lengthText(length, unit),
    leads: leads.length > 0 ? leads.map(leadKey) : [''],
    needs: needs.map(({ id: _, ...need }) => need),
  }
}

/** A run as the form's texts; `changeOf` reads them back to the same run. */
export function textsOf(run: Run, needs: readonly Need[], unit: LengthUnit): RunFormTexts {
  return {
    tag: run.tag,
    from: `${run.from.device}/${run.from.port}`,
    to: `${run.to.device}/${run.to.port}`,
    length: routeText(run.route, unit),
    follows: run.route.follows ? 'on' : undefined,
    leads: run.leads.length > 0 ? run.leads.map(leadKey) : [''],
    needs: needs.map((need) => ({
      id: need.id,
      kind: need.kind,
      way: need.from === run.from.device ? 'down' : 'up',
      size: saidSize(need),
      priority: need.priority === undefined ? '' : String(need.priority),
    })),
    note: run.note,
    had: needs.map(({ id }) => id).join(' '),
  }
}
