type Item = { id: string }

/**
 * The entities of a list that only grows, by their ids. Lists that were made from one another by adding at the end share one map of places, of which each sees
 * as much as it is long: adding one to a hundred thousand costs as much as adding one to none.
 */
export class AppendedIndex<T extends Item> implements ReadonlyMap<string, T> {
  private readonly list: readonly T[]
  private readonly places: Map<string, number>

  private constructor(list: readonly T[], places: Map<string, number>) {
    this.list = list
    this.places = places
  }

  static of<T extends Item>(list: readonly T[]): AppendedIndex<T> {
    return new AppendedIndex(list, new Map(list.map(({ id }, at) => [id, at])))
  }

  /** The index of a list that has the same items and more behind them. Where somebody else has added to the same list, it gets a map of its own. */
  appended(list: readonly T[]): AppendedIndex<T> {
    if (this.places.size !== this.list.length) return AppendedIndex.of(list)
    for (let at = this.list.length; at < list.length; at += 1) this.places.set(list[at]?.id ?? '', at)
    return new AppendedIndex(list, this.places)
  }

  get size(): number {
    return this.list.length
  }

  get(id: string): T | undefined {
    const at = this.places.get(id)
    const item = at === undefined ? undefined : this.list[at]
    // what was added to a longer list is not in this one
    return item?.id === id ? item : undefined
  }

  has(id: string): boolean {
    return this.get(id) !== undefined
  }

  *entries(): MapIterator<[string, T]> {
    for (const item of this.list) yield [item.id, item]
  }

  *keys(): MapIterator<string> {
    for (const { id } of this.list) yield id
  }

  *values(): MapIterator<T> {
    yield* this.list
  }

  forEach(tell: (item: T, id: string, map: ReadonlyMap<string, T>) => void): void {
    for (const item of this.list) tell(item, item.id, this)
  }

  [Symbol.iterator](): MapIterator<[string, T]> {
    return this.entries()
  }
}
