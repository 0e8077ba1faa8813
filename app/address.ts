/** An address within Hallway that a form asks to go back to; the front door where it names anything else. */
export function within(asked: unknown): string {
  const text = typeof asked === 'string' ? asked : ''
  // browsers drop control characters from an address before they read it
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters that must not slip through
  const plain = /^\/(?![/\\])[^\\\u0000-\u0020]*$/
  return plain.test(text) ? text : '/'
}
