import { ReadMap } from './read-map'

/** Entries that are others than in a map: undefined where a key is gone. */
export type Patch<Key, Value> = ReadonlyMap<Key, Value | undefined>

/** So many entries are held beside the map they change, and more where it is large: then all are copied once. */
const FEWEST_COPIED = 64

/**
 * A map with some entries changed. What stays the same is shared with the map it was made from. Changing one entry of a hundred thousand costs as much as
 * changing one of a few.
 */
export function patched<Key, Value>(map: ReadonlyMap<Key, Value>, changes: Patch<Key, Value>): ReadonlyMap<Key, Value> {
  if (changes.size === 0) return map
  const [base, before] = map instanceof PatchedMap ? (map as PatchedMap<Key, Value>).parts() : [map, []]
  const patch = new Map<Key, Value | undefined>(before)
  for (const [key, value] of changes) patch.set(key, value)
  const made = new PatchedMap(base, patch)
  return patch.size > Math.max(FEWEST_COPIED, Math.sqrt(base.size)) ? new Map(made) : made
}

class PatchedMap<Key, Value> extends ReadMap<Key, Value> {
  readonly size: number
  private readonly base: ReadonlyMap<Key, Value>
  private readonly patch: Patch<Key, Value>

  constructor(base: ReadonlyMap<Key, Value>, patch: Patch<Key, Value>) {
    super()
    this.base = base
    this.patch = patch
    let { size } = base
    for (const [key, value] of patch) size += Number(value !== undefined) - Number(base.has(key))
    this.size = size
  }

  parts(): [ReadonlyMap<Key, Value>, Patch<Key, Value>] {
    return [this.base, this.patch]
  }

  get(key: Key): Value | undefined {
    return this.patch.has(key) ? this.patch.get(key) : this.base.get(key)
  }

  has(key: Key): boolean {
    return this.patch.has(key) ? this.patch.get(key) !== undefined : this.base.has(key)
  }

  /** In the order of the map it was made from, and then what is new. */
  *entries(): MapIterator<[Key, Value]> {
    for (const [key, was] of this.base) {
      const value = this.patch.has(key) ? this.patch.get(key) : was
      if (value !== undefined) yield [key, value]
    }
    for (const [key, value] of this.patch) if (value !== undefined && !this.base.has(key)) yield [key, value]
  }
}
