import fc from 'fast-check'
import { applyChange } from '../../core/change/apply'
import type { ChangeToMake, Copy, Edit } from '../../core/change/change'
import { copyOf } from '../../core/change/copy'
import { demo } from './demo-plan'
import { type Choice, choice, madeUpEdit } from './made-up-changes'

/** The demo as it is before anything was changed. */
export const start = copyOf(demo)
export const some = fc.array(choice, { minLength: 1, maxLength: 4 })
export const many = fc.array(some, { minLength: 1, maxLength: 6 })

/** A site once somebody made a change of it. */
export function took(copy: Copy, { edits }: ChangeToMake): Copy {
  const applied = applyChange(copy, { edits })
  if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
  return applied.copy
}

/** Several edits as one change, each of another entity. */
export function edited(copy: Copy, choices: readonly Choice[]): Edit[] {
  const edits = choices.map((each, at) => madeUpEdit(copy, each, copy.place * 10 + at))
  return [...new Map(edits.map((edit) => [`${edit.list}/${edit.id}`, edit])).values()]
}
/** Walks through changes that were accepted, one upon the other. */
export function walk(
  changes: readonly Choice[][],
  see: (before: Copy, after: Copy, inverse: readonly Edit[], edits: readonly Edit[]) => void,
): void {
  let copy = start
  for (const choices of changes) {
    const applied = applyChange(copy, { edits: edited(copy, choices) })
    if (applied.outcome !== 'applied') continue
    see(copy, applied.copy, applied.inverse, applied.edits)
    copy = applied.copy
  }
}

/** The plan that a walk of changes comes to: a made-up plan, which a person might have made of the demo. */
export function madeUpCopy(changes: readonly Choice[][]): Copy {
  let copy = start
  walk(changes, (_, after) => {
    copy = after
  })
  return copy
}
