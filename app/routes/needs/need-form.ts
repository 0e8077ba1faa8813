import { z } from 'zod'
import { formatNeedSize, needExamples, readNeedSize, saidSize } from '../../../core/needs/need-text'
import { type Parsed, parsed, plainText, unreadable } from '../../../core/quantity/parsed'
import { variantOf } from '../../../core/variants/need-variants'
import { nameField } from '../../../core/vocabulary/fields'
import { NEED_KINDS, type Need, type NeedKind } from '../../../core/vocabulary/need'

const figure = (lowest: number, highest: number, otherwise: string) =>
  z
    .string()
    .transform((text, context) => {
      const value = Number(text.replace(',', '.'))
      if (value >= lowest && value <= highest) return value
      context.addIssue(otherwise)
      return z.NEVER
    })
    .optional()

/** What a need's own form holds, as it is typed; reading it gives the need. */
export const needFormSchema = z
  .object({
    from: z.string({ error: 'Choose where it flows from.' }).max(64),
    to: z.string({ error: 'Choose where it flows to.' }).max(64),
    kind: z.enum(NEED_KINDS, { error: 'Choose what must get through.' }),
    size: z.string({ error: 'Say how much must get through.' }),
    name: nameField.optional(),
    priority: z
      .string()
      .regex(/^[1-9]?$/, 'Choose who is served first.')
      .optional(),
    uncompressed: z.literal('on').optional(),
    delay: z
      .string()
      .regex(/^\d{1,3}(\.\d{1,2})?$/, 'Give milliseconds, such as 2.5.')
      .optional(),
    hours: figure(0.1, 24, 'Give hours, such as 2.5.'),
    volts: figure(1, 60, 'Give volts, such as 12.'),
    feed: z.enum(['there', 'missing']).optional(),
    refresh: figure(10, 480, 'Give Hz, such as 90.'),
    link: z.enum(['gen1x1', 'gen2x1']).optional(),
    variants: z.string().max(2000).optional(),
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
    const variants = readVariants(form.kind, form.variants ?? '')
    if (!variants.ok) {
      context.addIssue({ code: 'custom', path: ['variants'], message: variants.problem })
      return z.NEVER
    }
    const { from, to, name, note, priority, uncompressed, delay, hours, volts, feed, refresh, link } = form
    return {
      from,
      to,
      ...size.value,
      ...(name ? { name } : {}),
      ...(note ? { note } : {}),
      ...(priority ? { priority: Number(priority) } : {}),
      ...(uncompressed && size.value.kind === 'picture' ? { uncompressed: true as const } : {}),
      ...(delay !== undefined && size.value.kind === 'audio' ? { delay: Number(delay) } : {}),
      ...(hours !== undefined && size.value.kind === 'headset' ? { hours } : {}),
      ...(volts !== undefined && size.value.kind === 'sensor' ? { volts } : {}),
      ...(feed && size.value.kind === 'sensor' ? { feed } : {}),
      ...(refresh !== undefined && size.value.kind === 'headset' ? { refresh } : {}),
      ...(link && size.value.kind === 'headset' ? { link } : {}),
      ...(variants.value.length > 0 ? { variants: variants.value } : {}),
    }
  })
type Variants = NonNullable<Need['variants']>
const MOST_VARIANTS = 12

/** Lines such as "the next decoder: 4 Gb/s": what else may be asked, each with its size. */
function readVariants(kind: NeedKind, text: string): Parsed<Variants> {
  const lines = text.split('\n').map(plainText).filter(Boolean)
  if (lines.length > MOST_VARIANTS) return unreadable(`A need has at most ${MOST_VARIANTS} variants.`)
  const variants: Variants = []
  for (const line of lines) {
    const [name = '', ...rest] = line.split(':')
    const size = readNeedSize(kind, rest.join(':'))
    if (!name.trim() || rest.length === 0 || !size.ok)
      return unreadable(
        `"${line.slice(0, 40)}" is not a name and a size. Write a line like: the next one: ${needExamples[kind]}.`,
      )
    const { value } = size
    variants.push({
      name: name.trim().slice(0, 120),
      ...('mode' in value ? { mode: value.mode } : {}),
      ...('rate' in value ? { rate: value.rate } : {}),
      ...('back' in value && value.back !== undefined ? { back: value.back } : {}),
      ...('watts' in value && value.watts !== undefined ? { watts: value.watts } : {}),
    })
  }
  return parsed(variants)
}

export type NeedForm = z.output<typeof needFormSchema>
export type NeedFormTexts = {
  from: string
  to: string
  kind: string
  size: string
  name?: string
  priority?: string
  uncompressed?: string
  delay?: string
  hours?: string
  volts?: string
  feed?: string
  refresh?: string
  link?: string
  variants?: string
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
  delay: need.kind === 'audio' && need.delay !== undefined ? String(need.delay) : undefined,
  hours: need.kind === 'headset' && need.hours !== undefined ? String(need.hours) : undefined,
  volts: need.kind === 'sensor' && need.volts !== undefined ? String(need.volts) : undefined,
  feed: need.kind === 'sensor' ? need.feed : undefined,
  refresh: need.kind === 'headset' && need.refresh !== undefined ? String(need.refresh) : undefined,
  link: need.kind === 'headset' ? need.link : undefined,
  variants: need.variants?.map((variant) => `${variant.name}: ${formatNeedSize(variantOf(need, variant))}`).join('\n'),
  note: need.note,
})
