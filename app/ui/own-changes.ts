/** Changes that this page has sent, by the ids it gave them: what comes back of them is no news. */
const sent = new Set<string>()
export const isOwn = (id: string): boolean => sent.has(id)

/** A new id for a change; none where the browser cannot make one, and the server does. */
export function newChangeId(): string {
  const id = globalThis.crypto?.randomUUID?.() ?? ''
  if (id) sent.add(id)
  return id
}
