import { z } from 'zod'
import { FEED_WORDS, feedFrom, feedText } from '../../../../core/drawer/feed-text'
import { YES_NO, yesNo } from '../../../../core/drawer/yes-no'
import type { Learnt } from '../../../../core/observe/learnt'
import type { Statement, Unwritten } from '../../../../core/observe/observation'
import { type LengthUnit, parseLength, sameLength } from '../../../../core/quantity/length'
import { plainText } from '../../../../core/quantity/parsed'
import { CONNECTORS } from '../../../../core/standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS } from '../../../../core/standards/grades'
import { POWER_MARKS, parsePowerMark, powerMarkOf } from '../../../../core/standards/mark-text'
import { CABLE_STANDINGS, type Cable } from '../../../../core/vocabulary/cable'
import { nameField, tagField } from '../../../../core/vocabulary/fields'
import { lengthText, readBy } from '../../../ui/form-text'

const figure = (what: string, lowest: number, highest: number, unit: string) =>
  z
    .string()
    .transform((text, context) => {
      const value = Number(
        plainText(text)
          .replace(',', '.')
          .replace(/ ?(mm|awg|w)$/i, ''),
      )
      if (Number.isFinite(value) && value >= lowest && value <= highest) return value
      context.addIssue(`${what} lies between ${lowest} and ${highest}${unit}.`)
      return z.NEVER
    })
    .optional()

const connector = (problem: string) => z.enum(CONNECTORS, { error: problem })

/** What the form of a cable holds, as it is typed; reading it gives quantities. */
export const cableFormSchema = (unit: LengthUnit) =>
  z.object({
    tag: z.string({ error: 'Give the cable a tag, such as C-0042.' }).pipe(tagField),
    first: connector('Choose the connector at the first end.'),
    firstSocket: z.literal('on').optional(),
    second: connector('Choose the connector at the second end.'),
    secondSocket: z.literal('on').optional(),
    ownPlug: nameField.optional(),
    oneWay: z.literal('on').optional(),
    length: readBy((text) => parseLength(text, unit), 'Measure the cable: 2 m, 6 ft 6 in.'),
    mark: z.enum(CABLE_GRADES).optional(),
    power: z.enum(POWER_MARKS).optional(),
    construction: z.enum(CONSTRUCTIONS).default('passive'),
    thickness: figure('A thickness', 0.5, 50, ' mm'),
    awg: figure('A gauge', 0, 40, ''),
    feed: z.enum(FEED_WORDS).default('bus'),
    pair: z.enum(YES_NO).optional(),
    copper: z.enum(YES_NO).optional(),
    passesBack: figure('What it passes back', 1, 240, ' W'),
    passesOn: figure('What it passes on', 1, 240, ' W'),
    kind: z.string().max(64).optional(),
    suppliedWith: z.string().max(64).optional(),
    standing: z.enum(CABLE_STANDINGS).default('drawer'),
    note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
  })
export type CableForm = z.output<ReturnType<typeof cableFormSchema>>
/** The form's own texts, before anything is read. */
export type CableFormTexts = { [Name in keyof CableForm]?: string }

/** The cable a form describes, and what it says of its mark where that is new or differs from before; a mark that was cleared is said to be none. */
export function readCable(
  form: CableForm,
  before: Cable | null,
  learnt: Learnt | undefined,
  id: string,
): { cable: Cable; marks: Unwritten<Statement>[] } {
  const own = (connector: CableForm['first']) => (connector === 'own' && form.ownPlug ? { ownPlug: form.ownPlug } : {})
  const end = (connector: CableForm['first'], socket: 'on' | undefined) =>
    ({ connector, gender: socket ? 'socket' : 'plug', ...own(connector) }) as const
  const cable: Cable = {
    id: before?.id ?? id,
    tag: form.tag,
    ...(form.kind ? { kind: form.kind } : {}),
    ends: [end(form.first, form.firstSocket), end(form.second, form.secondSocket)],
    oneWay: form.oneWay === 'on',
    length: before && sameLength(before.length, form.length) ? before.length : form.length,
    construction: form.construction,
    ...feedFrom(form.construction === 'passive' ? 'bus' : form.feed),
    ...(form.pair ? { pair: form.pair === 'yes' } : {}),
    ...(form.copper && form.construction === 'optical' ? { copper: form.copper === 'yes' } : {}),
    ...(form.passesBack === undefined ? {} : { passesBack: form.passesBack }),
    ...(form.passesOn === undefined ? {} : { passesOn: form.passesOn }),
    standing: form.standing,
    ...(form.awg === undefined ? {} : { awg: form.awg }),
    ...(form.thickness === undefined ? {} : { thickness: form.thickness }),
    ...(form.suppliedWith ? { suppliedWith: form.suppliedWith } : {}),
    ...(form.note ? { note: form.note } : {}),
  }
  const was = markOf(learnt)
  const read = form.power === undefined ? null : parsePowerMark(form.power)
  const power = read?.ok ? read.value : null
  const mark: Unwritten<Statement> = { kind: 'statement', basis: 'claimed' }
  if (form.mark !== was.mark) mark.grade = form.mark ?? null
  if (form.power !== was.power) {
    mark.amps = power?.amps ?? null
    mark.volts = power?.volts === 50 ? 50 : null
  }
  return { cable, marks: mark.grade === undefined && mark.amps === undefined ? [] : [mark] }
}

/** What is printed on a cable, as far as anybody wrote it down. */
function markOf(learnt: Learnt | undefined): Pick<CableForm, 'mark' | 'power'> {
  return {
    mark: learnt?.grade.claimed?.value,
    power: powerMarkOf({ amps: learnt?.amps.claimed?.value, volts: learnt?.volts.claimed?.value }) ?? undefined,
  }
}

const on = (yes: boolean): string | undefined => (yes ? 'on' : undefined)

/** A cable as the form's texts; `readCable` reads them back to the same cable. */
export function textsOfCable(cable: Cable, learnt: Learnt | undefined, unit: LengthUnit): CableFormTexts {
  const [first, second] = cable.ends
  return {
    ...markOf(learnt),
    tag: cable.tag,
    first: first.connector,
    firstSocket: on(first.gender === 'socket'),
    second: second.connector,
    secondSocket: on(second.gender === 'socket'),
    ownPlug: first.ownPlug ?? second.ownPlug,
    oneWay: on(cable.oneWay),
    length: lengthText(cable.length, unit),
    construction: cable.construction,
    thickness: cable.thickness === undefined ? undefined : String(cable.thickness),
    awg: cable.awg === undefined ? undefined : String(cable.awg),
    feed: feedText(cable),
    pair: yesNo(cable.pair) || undefined,
    copper: yesNo(cable.copper) || undefined,
    passesBack: cable.passesBack === undefined ? undefined : String(cable.passesBack),
    passesOn: cable.passesOn === undefined ? undefined : String(cable.passesOn),
    kind: cable.kind,
    suppliedWith: cable.suppliedWith,
    standing: cable.standing,
    note: cable.note,
  }
}
