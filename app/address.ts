/** Whoever reads an address reads it against some host: no address within Hallway leaves this one. */
const HERE = 'http://here'

/** An address within Hallway that a form asks to go back to, as browsers read it; the front door where it names anything else. */
export function within(asked: unknown): string {
  const text = typeof asked === 'string' ? asked : ''
  if (!text.startsWith('/') || text.length > LONGEST || !URL.canParse(text, HERE)) return '/'
  const { origin, pathname, search, hash } = new URL(text, HERE)
  // "/.//elsewhere" comes to "//elsewhere", which is another host
  return origin === HERE && !pathname.startsWith('//') ? `${pathname}${search}${hash}` : '/'
}
const LONGEST = 4000
