import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { readPlan } from '../plan/read'
import { proofsOf } from '../prove/proof'
import { assessAnew } from './assess'
import { JUDGING_RULES } from './judging-rules'

/** How a plan that is never written anew is judged: grades, what they rest on, and how far each run has come. */
function judgedIn(file: string): unknown {
  const read = readPlan(JSON.parse(readFileSync(file, 'utf8')))
  if (!read.ok) throw new Error(JSON.stringify(read.faults))
  const site = assessAnew({ ...read.plan, site: { ...read.plan.site, practice: true } })
  const proofs = proofsOf(site)
  const { runs, needs } = site.assessment
  const told = ({ id, grade, findings }: (typeof needs)[number] | (typeof runs)[number]) => [
    id,
    grade,
    findings.map(({ check, grade: each }) => `${check} ${each}`),
    proofs.get(id)?.state ?? null,
  ]
  return [runs.map(told), needs.map(told)]
}

it('the rules by which Hallway judges have another number once they judge a plan otherwise', () => {
  const judged = ['1', '3', '4'].map((version) => judgedIn(`tests/fixtures/saltmarsh-version-${version}.json`))
  const digest = createHash('sha256').update(JSON.stringify(judged)).digest('hex')
  const known = readFileSync('tests/fixtures/judging-rules.txt', 'utf8').trim().split('\n')
  expect(
    known.at(-1),
    'A plan is judged otherwise: raise JUDGING_RULES, and add a line with the number and the digest to tests/fixtures/judging-rules.txt.',
  ).toBe(`${JUDGING_RULES} ${digest.slice(0, 16)}`)
  expect(new Set(known.map((line) => line.split(' ')[0])).size).toBe(known.length)
})
