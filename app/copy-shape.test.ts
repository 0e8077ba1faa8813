import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { z } from 'zod'
import { everythingLearnt, learnedOf } from '../core/observe/learned'
import { NOTHING_LEARNT } from '../core/observe/learnt'
import { planSchema } from '../core/plan/plan'
import { demo } from '../tests/support/demo-plan'
import { COPY_SHAPE } from './site-copy'

/** Every field that a value has, wherever it stands in it. */
function* fieldsOf(value: unknown, within = ''): Iterable<string> {
  if (Array.isArray(value)) for (const each of value) yield* fieldsOf(each, `${within}[]`)
  else if (typeof value === 'object' && value !== null)
    for (const [name, inner] of Object.entries(value)) {
      yield `${within}.${name}`
      yield* fieldsOf(inner, `${within}.${name}`)
    }
}

/** What a schema says without what it explains to people. */
const bare = (schema: unknown): string =>
  JSON.stringify(schema, (name, value) => (name === 'description' || name === 'default' ? undefined : value))

it('the shape of what browsers keep has another number once it is another', () => {
  const learned = new Set([...fieldsOf(NOTHING_LEARNT), ...fieldsOf(everythingLearnt(learnedOf(demo)))])
  const plan = bare(z.toJSONSchema(planSchema, { io: 'output', unrepresentable: 'any' }))
  const digest = createHash('sha256')
    .update(`${plan} ${[...learned].sort().join()}`)
    .digest('hex')
  const known = readFileSync('tests/fixtures/copy-shapes.txt', 'utf8').trim().split('\n')
  expect(
    known.at(-1),
    'What browsers keep has changed: raise COPY_SHAPE, and add a line with the number and the digest to tests/fixtures/copy-shapes.txt.',
  ).toBe(`${COPY_SHAPE} ${digest.slice(0, 16)}`)
  expect(new Set(known.map((line) => line.split(' ')[0])).size).toBe(known.length)
})
