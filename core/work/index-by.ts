import { keptWith, type ListChange } from './kept'
import { type Patch, patched } from './patched-map'

type KeysOf<Item> = (item: Item) => Iterable<string>

/** The item of a list that has a key; where several have it, the last of them. */
export const oneBy = <Item>(keysOf: KeysOf<Item>) =>
  keptWith(
    (list: readonly Item[]): ReadonlyMap<string, Item> => {
      const found = new Map<string, Item>()
      for (const item of list) for (const key of keysOf(item)) found.set(key, item)
      return found
    },
    (known, after, change) => {
      if (change.reordered) return undefined
      const changes = new Map<string, Item | undefined>()
      const now = (key: string): Item | undefined => (changes.has(key) ? changes.get(key) : known.get(key))
      const unsure = new Set<string>()
      const leave = (key: string, item: Item): void => {
        if (now(key) === item) unsure.add(key)
      }
      for (const [was, is] of change.replaced) {
        const kept = new Set(keysOf(is))
        for (const key of keysOf(was))
          if (!kept.delete(key)) leave(key, was)
          else if (now(key) === was) changes.set(key, is)
        for (const key of kept) unsure.add(key)
      }
      for (const item of change.removed) for (const key of keysOf(item)) leave(key, item)
      for (const item of change.added) for (const key of keysOf(item)) changes.set(key, item)
      if (unsure.size > 0) {
        for (const key of unsure) changes.set(key, undefined)
        for (const item of after) for (const key of keysOf(item)) if (unsure.has(key)) changes.set(key, item)
      }
      return patched(known, changes)
    },
  )

/** The items of a list that have a key, each once and in the order of the list. */
export const manyBy = <Item>(keysOf: KeysOf<Item>) =>
  keptWith(
    (list: readonly Item[]): ReadonlyMap<string, readonly Item[]> => grouped(list, keysOf, () => true),
    (known, after, change) => (change.reordered ? undefined : patched(known, regrouped(known, after, change, keysOf))),
  )

function regrouped<Item>(
  known: ReadonlyMap<string, readonly Item[]>,
  after: readonly Item[],
  { replaced, added, removed }: ListChange<Item>,
  keysOf: KeysOf<Item>,
): Patch<string, readonly Item[]> {
  const changes = new Map<string, readonly Item[] | undefined>()
  const now = (key: string): readonly Item[] => (changes.has(key) ? changes.get(key) : known.get(key)) ?? []
  const set = (key: string, items: readonly Item[]): void => void changes.set(key, items.length > 0 ? items : undefined)
  const unsure = new Set<string>()
  for (const [was, is] of replaced) {
    const fresh = new Set(keysOf(is))
    for (const key of new Set(keysOf(was)))
      if (fresh.delete(key))
        set(
          key,
          now(key).map((item) => (item === was ? is : item)),
        )
      else
        set(
          key,
          now(key).filter((item) => item !== was),
        )
    // where it stands among those that have the key already, only the list tells
    for (const key of fresh) unsure.add(key)
  }
  for (const item of removed)
    for (const key of new Set(keysOf(item)))
      set(
        key,
        now(key).filter((other) => other !== item),
      )
  for (const item of added) for (const key of new Set(keysOf(item))) set(key, [...now(key), item])
  if (unsure.size > 0) {
    const anew = grouped(after, keysOf, (key) => unsure.has(key))
    for (const key of unsure) changes.set(key, anew.get(key))
  }
  return changes
}

function grouped<Item>(
  list: readonly Item[],
  keysOf: KeysOf<Item>,
  asked: (key: string) => boolean,
): Map<string, Item[]> {
  const found = new Map<string, Item[]>()
  for (const item of list)
    for (const key of new Set(keysOf(item))) {
      if (!asked(key)) continue
      const items = found.get(key)
      if (items) items.push(item)
      else found.set(key, [item])
    }
  return found
}
