import fc from 'fast-check'
import { expect, it } from 'vitest'
import { z } from 'zod'
import { cases } from '../tests/support/laws'
import { parseFields } from './parse-fields.server'

const schema = z.object({
  tag: z.string(),
  leads: z.array(z.string()).optional(),
  cables: z.array(z.string()).optional(),
})
const formOf = (...fields: [string, string][]) => {
  const form = new FormData()
  for (const [name, value] of fields) form.append(name, value)
  return form
}

it('of a field that is sent twice the last counts, but for lists of ticked ones', () => {
  const read = parseFields(formOf(['tag', 'a'], ['tag', 'b'], ['cables', 'c-1'], ['cables', 'c-2']), schema, ['cables'])
  expect(read.status === 'success' && read.value).toEqual({ tag: 'b', cables: ['c-1', 'c-2'] })
})
it('what no button asks for breaks nothing', () => {
  const intent = fc.oneof(
    fc.constantFrom(
      '-1',
      'null',
      '[]',
      '"x"',
      '{"type":"insert"}',
      '{"type":"remove","payload":{"name":"__proto__","index":-5}}',
    ),
    fc.json(),
    fc.string(),
  )
  fc.assert(
    fc.property(intent, (asked) => {
      const read = parseFields(formOf(['tag', 'a'], ['leads[0]', 'x'], ['__intent__', asked]), schema)
      expect(JSON.stringify(read.reply())).toContain('tag')
    }),
    { numRuns: cases(300) },
  )
})
it('a button that asks for a line more gets it', () => {
  const more = JSON.stringify({ type: 'insert', payload: { name: 'leads', defaultValue: 'y' } })
  const read = parseFields(formOf(['tag', 'a'], ['leads[0]', 'x'], ['__intent__', more]), schema)
  expect(read.reply().initialValue).toMatchObject({ leads: ['x', 'y'] })
})
