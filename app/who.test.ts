import { describe, expect, it } from 'vitest'
import { digestOf } from './who.server'

/** A form as a server gets it, with a file that comes at its own moment. */
async function sent(fields: Record<string, string>, bytes: string, at = 0, path = '/sites') {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) form.set(name, value)
  form.set('file', new File([bytes], 'plan.json', { lastModified: at }))
  return digestOf({ url: `http://localhost${path}` }, form)
}

describe('what was sent, in short', () => {
  const fields = { change: 'the-first-page', intent: 'import' }
  it('is the same for the same sent again, whenever its file arrives and whatever the id', async () => {
    const first = await sent(fields, '{"a": 1}')
    expect(await sent(fields, '{"a": 1}', 1000)).toBe(first)
    expect(await sent({ ...fields, change: 'another-page' }, '{"a": 1}')).toBe(first)
  })
  it('is another for another route, field or file, also of the same size', async () => {
    const all = [
      await sent(fields, '{"a": 1}'),
      await sent(fields, '{"a": 2}'),
      await sent({ ...fields, intent: 'check' }, '{"a": 1}'),
      await sent(fields, '{"a": 1}', 0, '/sites/other'),
    ]
    expect(new Set(all).size).toBe(all.length)
  })
})
