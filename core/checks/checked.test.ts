import fc from 'fast-check'
import { expect, it } from 'vitest'
import { z } from 'zod'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, some } from '../../tests/support/made-up-walk'
import { assess } from './assess'
import { checkedOf, checkedSchema } from './checked'

it('docs/check.schema.json is the shape of what check --json prints (npm run schema writes it anew)', async () => {
  const schema = z.toJSONSchema(checkedSchema, { target: 'draft-2020-12' })
  await expect(`${JSON.stringify(schema, null, 2)}\n`).toMatchFileSnapshot('../../docs/check.schema.json')
})

it('whatever the plan, what is printed is of that shape', () => {
  fc.assert(
    fc.property(fc.array(some, { maxLength: 4 }), (changes) => {
      const printed = JSON.parse(JSON.stringify(checkedOf(assess(madeUpCopy(changes).plan))))
      expect(checkedSchema.parse(printed)).toEqual(printed)
    }),
    { numRuns: cases(30) },
  )
})
