const SYSTEMS: readonly [RegExp, string][] = [
  [/android/i, 'a phone or tablet'],
  [/iphone|ipad/i, 'a phone or tablet'],
  [/windows/i, 'a computer'],
  [/macintosh|mac os/i, 'a computer'],
  [/linux|x11/i, 'a computer'],
]

/** What a browser runs on, in words by which somebody knows it again; no more of it is kept. */
export function deviceOf(request: Request): string {
  const agent = request.headers.get('User-Agent') ?? ''
  return SYSTEMS.find(([pattern]) => pattern.test(agent))?.[1] ?? 'another program'
}
