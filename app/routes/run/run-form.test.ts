import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { directNeeds } from '../../../core/plan/direct-needs'
import { readPlanText } from '../../../core/plan/read'
import { changeOf, runFormSchema, textsOf } from './run-form'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')
const demo = read.plan
const ids = { run: 'new', need: (at: number) => `need-${at}` }

describe('the run form', () => {
  it.each(['m', 'ft'] as const)('in %s: every run of the demo comes back from its own texts unchanged', (unit) => {
    for (const run of demo.runs) {
      const needs = directNeeds(demo, run)
      const form = runFormSchema(unit).parse(textsOf(run, needs, unit))
      const change = changeOf(form, run, demo, ids)
      expect(change.run).toEqual(run)
      expect(change.needs).toEqual(needs)
    }
  })

  it('reads a new run, with new ids for what is new', () => {
    const form = runFormSchema('ft').parse({
      tag: 'R-50',
      from: 'image-a/card-c',
      to: 'carry-disk/c',
      length: '10',
      leads: ['c-0026', ''],
      needs: [{ kind: 'camera', way: 'up', size: '4 Gb/s' }],
    })
    const { run, needs } = changeOf(form, null, demo, ids)
    expect(run).toMatchObject({ id: 'new', leads: [{ cable: 'c-0026', reversed: false }], route: { length: 3.048 } })
    expect(needs).toEqual([{ id: 'need-0', kind: 'camera', rate: 4e9, from: 'carry-disk', to: 'image-a' }])
  })

  it('puts each fault beside its field', () => {
    const faults = runFormSchema('m').safeParse({
      tag: '',
      from: '',
      to: 'x',
      length: '0',
      needs: [{ kind: 'power', size: 'lots' }],
    })
    expect(faults.error?.issues.map((issue) => issue.path.join('.')).sort()).toEqual([
      'from',
      'length',
      'needs.0.size',
      'tag',
      'to',
    ])
  })
})
