/** What a browser runs on, in words by which somebody knows it again; no more of it is kept. */
export function deviceOf(request: Request): string {
  const agent = request.headers.get('User-Agent') ?? ''
  if (/\b(mobile|tablet)\b/i.test(agent)) return 'a phone or tablet'
  // the word that every browser begins with
  return agent.startsWith('Mozilla/') ? 'a computer' : 'another program'
}
