/** Changes that this page has sent, by the ids it gave them: what comes back of them is no news. */
const sent = new Set<string>()
export const isOwn = (id: string): boolean => sent.has(id)

/** A new id for a change. A page over plain http may make no UUID, but random numbers it has. */
export function newChangeId(): string {
  const id =
    globalThis.crypto.randomUUID?.() ??
    [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  sent.add(id)
  return id
}
