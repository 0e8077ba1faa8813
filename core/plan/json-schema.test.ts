import { expect, it } from 'vitest'
import { planJsonSchema } from './json-schema'

it('docs/plan-file.schema.json is the schema that reads plan files (npm run schema writes it anew)', async () => {
  await expect(`${JSON.stringify(planJsonSchema(), null, 2)}\n`).toMatchFileSnapshot('../../docs/plan-file.schema.json')
})
