import { LRUCache } from 'lru-cache'
import { gauge } from './gauge'

/** What is kept, by what it is: one shelf for each database that is asked. */
const shelves = new Map<string, Set<WeakRef<LRUCache<string, object>>>>()

const counted = new Map<string, () => number>()

/** Tells in the figures of the process how much is kept of something that has no shelf. */
export const tellKept = (what: string, bytes: () => number): void => void counted.set(what, bytes)

gauge({
  name: 'hallway_kept_bytes',
  help: 'What the web process keeps to save work, as far as its size is known',
  labelNames: ['what'],
  collect() {
    for (const [what, all] of shelves)
      this.set({ what }, sum([...all].map((each) => each.deref()?.calculatedSize ?? 0)))
    for (const [what, bytes] of counted) this.set({ what }, bytes())
  },
})

const sum = (sizes: readonly number[]): number => sizes.reduce((all, size) => all + size, 0)

type Bounds<T> = { bytes: number; most: number; sizeOf: (value: T, key: string) => number }

/**
 * A shelf for what would have to be worked out or read again: so many bytes and so many of them at most, what was not asked for the longest forgotten first.
 * How full it is stands in the figures of the process.
 */
export function shelfFor<T extends object>(what: string, { bytes, most, sizeOf }: Bounds<T>): LRUCache<string, T> {
  const shelf = new LRUCache<string, T>({
    max: most,
    maxSize: bytes,
    sizeCalculation: (value, key) => Math.max(1, Math.ceil(sizeOf(value, key))),
  })
  const all = shelves.get(what) ?? new Set()
  shelves.set(what, all)
  all.add(new WeakRef(shelf as unknown as LRUCache<string, object>))
  return shelf
}
