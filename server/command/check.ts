import { readFileSync, statSync } from 'node:fs'
import { type Assessment, assess } from '../../core/checks/assess'
import { checkedOf } from '../../core/checks/checked'
import type { Finding } from '../../core/checks/checks'
import { remedySentence } from '../../core/checks/remedies'
import { sentence } from '../../core/checks/sentences'
import { cautionSentences, formatFigure, gradeWords, needNames } from '../../core/checks/wording'
import type { Plan } from '../../core/plan/plan'
import { type Fault, LARGEST_PLAN_BYTES, type ReadPlan, readPlanText, refuse } from '../../core/plan/read'
import { citeSource } from '../../core/standards/source'

const ALL_CLEAR = 0
const SOMETHING_BLOCKED = 1
const UNREADABLE = 2

type CheckOptions = { json: boolean; print: (text: string) => void; complain: (text: string) => void }

/** Prints the verdict on a plan file and answers the exit code: 0 nothing blocked, 1 something blocked, 2 unreadable. */
export function check(file: string, { json, print, complain }: CheckOptions): number {
  const read = readPlanFile(file)
  if (!read.ok) {
    complain(`${file} cannot be read as a plan:`)
    for (const fault of read.faults) complain(`  ${faultLine(fault)}`)
    if (read.more) complain('  and more')
    return UNREADABLE
  }
  const assessment = assess(read.plan)
  print(json ? JSON.stringify(checkedOf(assessment)) : asText(read.plan, assessment))
  return [...assessment.runs, ...assessment.needs].some(({ grade }) => grade === 'blocked')
    ? SOMETHING_BLOCKED
    : ALL_CLEAR
}

export const faultLine = ({ path, reason }: Fault): string => `${path}: ${reason}`

/** Reads a plan file from disk; a file too large to be one is not even opened. */
export function readPlanFile(file: string): ReadPlan {
  try {
    const { size } = statSync(file)
    if (size > LARGEST_PLAN_BYTES) {
      return refuse(
        '(file)',
        `${(size / 1e6).toFixed(1)} MB, and a plan file is at most ${LARGEST_PLAN_BYTES / 1e6} MB`,
      )
    }
    return readPlanText(readFileSync(file, 'utf8'))
  } catch (error) {
    return refuse('(file)', error instanceof Error ? error.message : 'it cannot be opened')
  }
}

function asText(plan: Plan, { runs, needs }: Assessment): string {
  const nameOf = new Map(plan.devices.map((device) => [device.id, device.name]))
  const lines = [plan.site.name, '']
  for (const run of runs) {
    const given = plan.runs.find((candidate) => candidate.id === run.id)
    const ends = given ? `${nameOf.get(given.from.device)} -> ${nameOf.get(given.to.device)}` : ''
    lines.push(`${run.tag}  ${gradeWords[run.grade].toUpperCase()}  ${ends}`, ...run.findings.flatMap(findingLines), '')
  }
  lines.push('Needs')
  for (const need of needs) {
    const given = plan.needs.find((candidate) => candidate.id === need.id)
    const title = given
      ? `${given.name ?? needNames[given.kind]}: ${nameOf.get(given.from)} -> ${nameOf.get(given.to)}`
      : need.id
    lines.push(`  ${gradeWords[need.grade].toUpperCase().padEnd(8)}${title}`)
    if (need.runs.length === 0) lines.push(...need.findings.flatMap(findingLines))
  }
  return lines.join('\n')
}

function findingLines(finding: Finding): string[] {
  const figures = finding.unit
    ? ` [have ${formatFigure(finding.have, finding.unit)}, need ${formatFigure(finding.need, finding.unit)}]`
    : ''
  return [
    `  ${gradeWords[finding.grade].padEnd(8)}${finding.check}: ${sentence(finding)}${figures}`,
    ...finding.remedies.map((remedy) => `            - ${remedySentence(remedy)}`),
    ...(finding.caution ? [`            ! ${cautionSentences[finding.caution]}`] : []),
    ...(finding.grade === 'clear' ? [] : [`            (${citeSource(finding.source)})`]),
  ]
}
