import { type DBSchema, openDB } from 'idb'
import type { Item } from './item'

/** Where forms that wait are kept beyond the life of a page. */
export type Keep = {
  put(item: Item): Promise<void>
  remove(id: string): Promise<void>
  all(): Promise<Item[]>
}

interface Schema extends DBSchema {
  waiting: { key: string; value: Item }
}

/** In the browser's own database. One that keeps none, as in a private window, only makes a reload forget. */
export function browserKeep(name = 'hallway-outbox'): Keep {
  const open = async () =>
    openDB<Schema>(name, 1, {
      upgrade(database) {
        database.createObjectStore('waiting', { keyPath: 'id' })
      },
    })
  const opened = open().catch(() => null)
  const forgiving = <T>(work: Promise<T>, otherwise: T): Promise<T> => work.catch(() => otherwise)
  return {
    put: (item) =>
      forgiving(
        opened.then((database) => database?.put('waiting', item)).then(() => {}),
        undefined,
      ),
    remove: (id) =>
      forgiving(
        opened.then((database) => database?.delete('waiting', id)),
        undefined,
      ),
    all: () =>
      forgiving(
        opened.then((database) => database?.getAll('waiting') ?? []),
        [],
      ),
  }
}
