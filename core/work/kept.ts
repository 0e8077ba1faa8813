/**
 * What became of a list when another was made from it. `replaced` are pairs of what was and what is, `added` stand at its end, and where any other order
 * came of it, `reordered` says so.
 */
export type ListChange<Item> = {
  replaced: readonly (readonly [was: Item, now: Item])[]
  added: readonly Item[]
  removed: readonly Item[]
  reordered: boolean
}

/** Brings what follows from a list along to one that was made from it; undefined where it has to be worked out anew. */
type BringAlong<List, Answer> = (answer: Answer, after: List, change: ListChange<ItemOf<List>>) => Answer | undefined
type ItemOf<List> = List extends readonly (infer Item)[] ? Item : never

/** Everything that is kept with lists and can be brought along. */
const followers = new Set<(before: object, after: object, change: ListChange<never>) => void>()

/** Where each list came from, as long as that list is still in use. */
const origins = new WeakMap<object, { before: WeakRef<object>; change: ListChange<never> }>()

/**
 * The list that a change makes of another: every list that is made from one in use is made here. Whatever is known of the one is known of the other at once,
 * at the cost of the change.
 */
export function madeFrom<Item, List extends readonly Item[]>(
  before: List,
  after: List,
  change: ListChange<Item>,
): List {
  if (before === after) return after
  origins.set(after, { before: new WeakRef(before), change: change as ListChange<never> })
  for (const follow of followers) follow(before, after, change as ListChange<never>)
  return after
}

/** What made one list of another, where it was made from that very list. */
export function changeBetween<Item>(before: readonly Item[], after: readonly Item[]): ListChange<Item> | undefined {
  const origin = origins.get(after)
  return origin?.before.deref() === before ? (origin.change as ListChange<Item>) : undefined
}

/**
 * What follows from a value alone is kept with the very value: what a change has not touched is not worked out again. Of a list it may be brought along to
 * lists that are made from it. `keep` takes what somebody knows to be the answer.
 */
export function keptWith<List extends object, Answer>(
  work: (list: List) => Answer,
  bringAlong?: BringAlong<List, Answer>,
) {
  const answers = new WeakMap<List, Answer>()
  const ask = (list: List): Answer => {
    const found = answers.get(list)
    if (found !== undefined) return found
    const answer = work(list)
    answers.set(list, answer)
    return answer
  }
  if (bringAlong)
    followers.add((before, after, change) => {
      const known = answers.get(before as List)
      if (known === undefined || answers.has(after as List)) return
      const answer = bringAlong(known, after as List, change as ListChange<ItemOf<List>>)
      if (answer !== undefined) answers.set(after as List, answer)
    })
  return Object.assign(ask, {
    keep: (list: List, answer: Answer): void => void answers.set(list, answer),
    known: (list: List): Answer | undefined => answers.get(list),
  })
}
