import { NOT_AS_LISTED } from '../change/changes/orders'
import { learntOfCable } from '../observe/learned'
import type { SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { type CableGrade, gradeFacts } from '../standards/grades'
import type { OrderLine } from '../vocabulary/order'

/** How a cable that came differs from what was ordered. */
export type Difference = { cable: string; tag: string } & (
  | { is: 'shorter'; length: Metres; ordered: Metres }
  | { is: 'marked less'; mark: CableGrade | null; listed: CableGrade }
  | { is: 'as somebody says'; words: string }
)

/** A lead may be so much shorter than its listing has it before anybody sends it back (a judgement of ours). */
const SHORT_BY = 0.02

/** What of a delivery is not as it was ordered: its taped lengths, its marks, and what somebody said of it. What went back is left out. */
export function differencesOf(index: SiteIndex, line: OrderLine): Difference[] {
  const kind = index.kinds.get(line.kind)
  const gone = new Set((line.back ?? []).flatMap(({ cables = [] }) => cables))
  return (line.tagged ?? []).flatMap((id): Difference[] => {
    const cable = index.cables.get(id)
    if (!cable || gone.has(id)) return []
    const of = { cable: id, tag: cable.tag }
    const mark = printedOn(index, id)
    const said = cable.note?.startsWith(NOT_AS_LISTED) ? cable.note.slice(NOT_AS_LISTED.length) : null
    return [
      ...(atLeast(cable.length, line.length * (1 - SHORT_BY))
        ? []
        : [{ ...of, is: 'shorter' as const, length: cable.length, ordered: line.length }]),
      ...(kind && mark !== undefined && isLess(mark, kind.grade)
        ? [{ ...of, is: 'marked less' as const, mark, listed: kind.grade }]
        : []),
      ...(said === null ? [] : [{ ...of, is: 'as somebody says' as const, words: said }]),
    ]
  })
}

/** The mark that was read off a cable, null where there was none; undefined where nobody looked. */
function printedOn({ learned }: SiteIndex, id: string): CableGrade | null | undefined {
  const learnt = learntOfCable(learned, id)
  return learnt?.grade.claimed?.value ?? (learnt?.unmarked ? null : undefined)
}

const isLess = (mark: CableGrade | null, listed: CableGrade): boolean =>
  mark === null || gradeFacts[mark].marked < gradeFacts[listed].marked
