/** What a map that is only read tells by its entries; whoever is one says what they are. */
export abstract class ReadMap<Key, Value> implements ReadonlyMap<Key, Value> {
  abstract readonly size: number
  abstract get(key: Key): Value | undefined
  abstract has(key: Key): boolean
  abstract entries(): MapIterator<[Key, Value]>

  *keys(): MapIterator<Key> {
    for (const [key] of this.entries()) yield key
  }

  *values(): MapIterator<Value> {
    for (const [, value] of this.entries()) yield value
  }

  forEach(tell: (value: Value, key: Key, map: ReadonlyMap<Key, Value>) => void): void {
    for (const [key, value] of this.entries()) tell(value, key, this)
  }

  [Symbol.iterator](): MapIterator<[Key, Value]> {
    return this.entries()
  }
}
