import { z } from 'zod'
import { nameField } from '../../../core/plan/fields'
import { NEED_KINDS, type Need } from '../../../core/plan/need'
import { readNeedSize, saidSize } from '../../../core/plan/need-text'

/** What a need's own form holds, as it is typed; reading it gives the need. */
export const needFormSchema = z
  .object({
    from: z.string({ error: 'Choose where it flows from.' }).max(64),
    to: z.string({ error: 'Choose where it flows to.' }).max(64),
    kind: z.enum(NEED_KINDS, { error: 'Choose what has to flow.' }),
    size: z.string({ error: 'Say how much has to flow.' }),
    name: nameField.optional(),
    priority: z
      .string()
      .regex(/^[1-9]?$/, 'Choose who is served first.')
      .optional(),
    uncompressed: z.literal('on').optional(),
    note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
  })
  .transform((form, context) => {
    const size = readNeedSize(form.kind, form.size)
    if (!size.ok) {
      context.addIssue({ code: 'custom', path: ['size'], message: size.problem })
      return z.NEVER
    }
    if (form.from === form.to) {
      context.addIssue({ code: 'custom', path: ['to'], message: 'A need flows between two devices.' })
      return z.NEVER
    }
    const { from, to, name, note, priority, uncompressed } = form
    return {
      from,
      to,
      ...size.value,
      ...(name ? { name } : {}),
      ...(note ? { note } : {}),
      ...(priority ? { priority: Number(priority) } : {}),
      ...(uncompressed && size.value.kind === 'picture' ? { uncompressed: true as const } : {}),
    }
  })
export type NeedForm = z.output<typeof needFormSchema>
export type NeedFormTexts = {
  from: string
  to: string
  kind: string
  size: string
  name?: string
  priority?: string
  uncompressed?: string
  note?: string
}

/** The need that a form describes; runs it is pinned to stay as they were. */
export const needOf = (form: NeedForm, id: string, before: Need | null): Need =>
  ({ id, ...form, ...(before?.through ? { through: before.through } : {}) }) as Need

export const textsOfNeed = (need: Need): NeedFormTexts => ({
  from: need.from,
  to: need.to,
  kind: need.kind,
  size: saidSize(need),
  name: need.name,
  priority: need.priority === undefined ? '' : String(need.priority),
  uncompressed: need.kind === 'picture' && need.uncompressed ? 'on' : undefined,
  note: need.note,
})
