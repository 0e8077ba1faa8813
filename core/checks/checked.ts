import { z } from 'zod'
import { citeSource } from '../standards/source'
import type { Assessment } from './assess'
import { everyCheck, type Finding } from './checks'
import { GRADES } from './finding'
import { remedySentence } from './remedies'
import { sentence } from './sentences'
import { cautionSentences } from './wording'

const findingSchema = z.strictObject({
  check: z.enum(everyCheck.map(({ name }) => name) as [string, ...string[]]).describe('Which check says it'),
  grade: z.enum(GRADES),
  part: z.string().describe('The port, cable, run or need that it is about, by its id'),
  have: z.number().nullable().describe('What there is, in the unit'),
  need: z.number().nullable().describe('What is asked, in the unit'),
  unit: z.enum(['m', 'bit/s', 'W', 'V']).nullable(),
  because: z.string().describe('The sentence a person reads'),
  remedies: z.array(z.string()).describe('What would help, each as a sentence'),
  caution: z.string().nullable().describe('What to take care of, where it can hurt people or equipment'),
  source: z.string().describe('Where the figures come from'),
})

const verdict = z.enum(['clear', 'tight', 'blocked'])

/** What `check --json` prints: the verdict on every run and need of a plan. */
export const checkedSchema = z.strictObject({
  runs: z.array(z.strictObject({ id: z.string(), grade: verdict, findings: z.array(findingSchema) })),
  needs: z.array(
    z.strictObject({
      id: z.string(),
      grade: verdict,
      path: z.array(z.string()).describe('The ports and leads that it passes, in order'),
      findings: z.array(findingSchema),
    }),
  ),
})
export type Checked = z.output<typeof checkedSchema>

/** An assessment as other programs read it: figures, and the words of every finding. */
export const checkedOf = ({ runs, needs }: Assessment): Checked => ({
  runs: runs.map(({ id, grade, findings }) => ({ id, grade, findings: findings.map(findingOf) })),
  needs: needs.map(({ id, grade, path, findings }) => ({
    id,
    grade,
    path: path.map((part) => part.id),
    findings: findings.map(findingOf),
  })),
})

const findingOf = (found: Finding): Checked['runs'][number]['findings'][number] => ({
  check: found.check,
  grade: found.grade,
  part: found.part.id,
  have: found.have,
  need: found.need,
  unit: found.unit,
  because: sentence(found),
  remedies: found.remedies.map((remedy) => remedySentence(remedy)),
  caution: found.caution ? cautionSentences[found.caution] : null,
  source: citeSource(found.source),
})
