import type { ChangeToMake, Edit, LogPosition } from '../../../core/change/change'
import type { Witness } from '../../../core/change/changes/observations'
import {
  decideBy,
  removeOrder,
  type SentBack,
  sendBack,
  sendOrder,
  tagArrived,
  takeArrival,
  type Unpacked,
} from '../../../core/change/changes/orders'
import { addDays, type Day } from '../../../core/order/days'
import { promisedDay, termsOfLine, WARN_DAYS } from '../../../core/order/follow'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { type LengthUnit, parseLength } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { CABLE_GRADES } from '../../../core/standards/grades'
import { dayField } from '../../../core/vocabulary/fields'
import { MOST_OF_ARTICLE, type OrderLine, waitingToTag } from '../../../core/vocabulary/order'
import { type Refused, refused } from '../../../server/sites/change-site'

/** What a form of Orders asks of the site as it stands. */
export function orderChange(
  plan: Plan,
  base: LogPosition,
  form: FormData,
  { unit, witness }: { unit: LengthUnit; witness: Witness },
): ChangeToMake | Refused {
  const order = byId(plan.orders).get(textOf(form, 'order'))
  const line = byId(plan.orderLines).get(textOf(form, 'line'))
  const day = dayField.safeParse(textOf(form, 'on'))
  const intent = textOf(form, 'intent')
  if (intent === 'remove' || intent === 'send') {
    if (!order) return refused('order', 'somebody removed this order meanwhile')
    if (intent === 'remove') return removeOrder(plan, base, order)
    return day.success
      ? sendOrder(plan, base, order, { on: day.data, promised: promisedFor(plan, order.id, day.data) })
      : refused('on', 'choose the day')
  }
  if (!line) return refused('line', 'somebody removed this line meanwhile')
  if (intent === 'tag') {
    if (waitingToTag(line) === 0) return refused('line', 'all that came of it are tagged already')
    const unpacked = readUnpacked(form, unit)
    return unpacked.ok ? tagArrived(plan, base, line, unpacked.value, witness) : refused('lengths', unpacked.problem)
  }
  if (!day.success) return refused('on', 'choose the day')
  if (intent === 'decide') return decideBy(plan, base, line, day.data)
  const count = Number(form.get('count'))
  if (!Number.isInteger(count) || count < 1 || count > MOST_OF_ARTICLE) return refused('count', 'say how many')
  if (intent === 'arrived')
    return takeArrival(plan, base, line, { on: day.data, count }, decisionAfter(plan, line, day.data))
  if (intent === 'back') return sendBack(plan, base, line, readBack(plan, line, form, { on: day.data, count }))
  return refused('intent', 'nothing was asked for')
}

const textOf = (form: FormData, name: string): string => String(form.get(name) ?? '').trim()

/** The day that each line of an order is promised for, where somebody promises one. */
function promisedFor(plan: Plan, order: string, on: Day): Map<string, Day> {
  return new Map(
    plan.orderLines.flatMap((line): [string, Day][] => {
      const day = line.order === order ? promisedDay(plan, line, on) : null
      return day === null ? [] : [[line.id, day]]
    }),
  )
}

/** What is bought to try is decided on before it must go back, counted from the day it came. */
function decisionAfter(plan: Plan, line: OrderLine, on: Day): Day | null {
  const { returnDays } = termsOfLine(plan, line)
  const first = (line.arrived ?? []).length === 0
  return line.decide !== undefined && first && returnDays ? addDays(on, Math.max(1, returnDays - WARN_DAYS)) : null
}

/** What was found when it was unpacked: taped lengths, the mark, what is not as the listing has it. */
function readUnpacked(form: FormData, unit: LengthUnit): Parsed<Unpacked> {
  const lengths: number[] = []
  for (const text of textOf(form, 'lengths').split(/[;\n]/)) {
    if (text.trim() === '') continue
    const read = parseLength(text.trim(), unit)
    if (!read.ok) return unreadable(read.problem)
    lengths.push(read.value)
  }
  const mark = textOf(form, 'mark')
  const grade = CABLE_GRADES.find((each) => each === mark)
  const differs = textOf(form, 'differs').slice(0, 120)
  return parsed({
    lengths,
    ...(mark === 'none' ? { mark: null } : grade ? { mark: grade } : {}),
    ...(differs === '' ? {} : { differs }),
  })
}

/** Which of the tagged cables go back: those that were named, else none that was tagged while some was not. */
function readBack(plan: Plan, line: OrderLine, form: FormData, of: { on: Day; count: number }): SentBack {
  const why = textOf(form, 'why').slice(0, 120)
  const named = new Set(
    textOf(form, 'tags')
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map((tag) => tag.toLowerCase()),
  )
  const gone = new Set((line.back ?? []).flatMap(({ cables = [] }) => cables))
  const cables = byId(plan.cables)
  const tagged = (line.tagged ?? []).filter((id) => !gone.has(id))
  const chosen = tagged.filter((id) => named.has((cables.get(id)?.tag ?? '').toLowerCase()))
  const rest = Math.max(0, of.count - chosen.length - waitingToTag(line))
  return {
    ...of,
    cables: [...chosen, ...tagged.filter((id) => !chosen.includes(id)).slice(0, rest)],
    ...(why === '' ? {} : { why }),
    ...(form.get('replaced') === 'on' ? { replaced: true } : {}),
  }
}

/** The cables that a change brought into the drawer, as many as an address names. */
export const newCables = (edits: readonly Edit[]): string[] =>
  edits.flatMap(({ list, base, id }) => (list === 'cables' && base === null ? [id] : [])).slice(0, 100)
