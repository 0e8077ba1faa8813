import { ReadMap } from './read-map'

/** A map as another reading of the same entries: each value is looked at when it is asked for, and undefined leaves it out. Nothing is copied. */
export class ViewedMap<Key, Value> extends ReadMap<Key, Value> {
  private readonly base: ReadonlyMap<Key, Value>
  private readonly look: (value: Value, key: Key) => Value | undefined
  private readonly seen = new Map<Key, Value | undefined>()

  constructor(base: ReadonlyMap<Key, Value>, look: (value: Value, key: Key) => Value | undefined) {
    super()
    this.base = base
    this.look = look
  }

  get(key: Key): Value | undefined {
    if (this.seen.has(key)) return this.seen.get(key)
    const value = this.base.get(key)
    if (value === undefined) return undefined
    const looked = this.look(value, key)
    this.seen.set(key, looked)
    return looked
  }

  has(key: Key): boolean {
    return this.get(key) !== undefined
  }

  get size(): number {
    return [...this.entries()].length
  }

  *entries(): MapIterator<[Key, Value]> {
    for (const [key] of this.base) {
      const value = this.get(key)
      if (value !== undefined) yield [key, value]
    }
  }
}
