import { replay } from '../change/apply'
import type { ChangeToMake, Copy, Edit } from '../change/change'
import { entityKey } from '../change/change'
import { entityAt } from '../change/copy'
import { editsBetween } from '../change/edits-between'
import { walkNeeds } from '../checks/assess'
import { canBeJudged } from '../plan/direct-needs'
import { byId } from '../plan/lookup'
import { indexPlan } from '../plan/site-index'
import { roomOf } from '../remedy/room'
import { whatIfsFor } from './what-ifs'

/**
 * A change as a form made it together with what was tried beside it, by its words: the site as the form leaves it, and then as the what-if leaves that. `runs`
 * are those it was tried on. Null where there is no such what-if any more; what the form made that cannot be judged comes back as it is, for whoever applies it
 * to refuse.
 */
export function keepWhatIf(
  copy: Copy,
  made: ChangeToMake,
  runs: readonly string[],
  words: string,
): ChangeToMake | null {
  const formed = replay(copy, made.edits).copy.plan
  const index = indexPlan(formed)
  const on = runs.flatMap((id) => index.runs.get(id) ?? [])
  const [first] = on
  if (!first) return null
  if (!on.every((run) => canBeJudged(formed, run))) return made
  const walks = walkNeeds(indexPlan(roomOf(index, first.id)))
  const whatIf = whatIfsFor(index, on, walks.crossings).find((each) => each.words === words)
  if (!whatIf) return null
  const kept = whatIf.change(formed)
  const own = new Map(made.edits.map((edit) => [entityKey(edit.list, edit.id), edit]))
  const edits = editsBetween(copy.plan, kept, copy.place).map((edit): Edit => {
    const typed = own.get(entityKey(edit.list, edit.id))
    // what was typed was made from the copy that its form was made from
    return typed ? ({ ...edit, base: typed.base } as Edit) : edit
  })
  const told = new Set(edits.map(({ list, id }) => entityKey(list, id)))
  const same = made.edits.filter(({ list, id }) => !told.has(entityKey(list, id)) && entityAt(kept, list, id) !== null)
  return {
    what: { name: 'keep trial', about: [byId(kept.runs).get(first.id)?.tag ?? first.tag, words] },
    edits: [...edits, ...same],
  }
}
