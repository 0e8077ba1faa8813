import { Box, Heading } from '@chakra-ui/react'
import type { RunVerdict } from '../../../core/checks/assess'
import type { Finding } from '../../../core/checks/checks'
import { GRADES, marginOf } from '../../../core/checks/finding'
import { remedySentence } from '../../../core/checks/remedies'
import { sentence } from '../../../core/checks/sentences'
import { cautionSentences, formatFigure, needNames, otherFigure } from '../../../core/checks/wording'
import type { Plan } from '../../../core/plan/plan'
import { citeSource } from '../../../core/standards/source'
import text from '../../theme/text.module.css'
import { GradeMark } from '../../ui/grade'
import { useUnit } from '../../ui/units'
import look from './findings.module.css'

/** What was found, worst first: why, by what margin, which part, what to do, and on whose word. */
export function Findings({ verdict, plan }: { verdict: Pick<RunVerdict, 'findings'> | undefined; plan: Plan }) {
  if (!verdict) return null
  const sorted = [...verdict.findings].sort((one, other) => GRADES.indexOf(one.grade) - GRADES.indexOf(other.grade))
  const clear = sorted.filter(({ grade }) => grade === 'clear')
  const told = sorted.filter(({ grade }) => grade !== 'clear')
  const cautions = [...new Set(sorted.flatMap(({ caution }) => caution ?? []))]
  return (
    <Box as="section" aria-labelledby="findings-heading" mb="6">
      <Heading as="h2" size="md" mb="2" id="findings-heading">
        Findings
      </Heading>
      <Box as="ul" listStyleType="none">
        <Items findings={told} plan={plan} />
      </Box>
      {clear.length > 0 && (
        <details className={look.clear}>
          <summary>
            <GradeMark grade="clear" size="xs" /> {clear.length} {clear.length === 1 ? 'finding' : 'findings'}:{' '}
            {[...new Set(clear.map(({ check }) => check))].join(', ')}
          </summary>
          <ul>
            <Items findings={clear} plan={plan} />
          </ul>
        </details>
      )}
      {cautions.map((caution) => (
        <p key={caution} className={look.caution}>
          Caution: {cautionSentences[caution]}
        </p>
      ))}
    </Box>
  )
}

const Items = ({ findings, plan }: { findings: readonly Finding[]; plan: Plan }) =>
  findings.map((finding) => (
    <FindingItem
      key={`${finding.needId ?? ''} ${finding.part.id} ${JSON.stringify(finding.reason)}`}
      finding={finding}
      plan={plan}
    />
  ))

function FindingItem({ finding, plan }: { finding: Finding; plan: Plan }) {
  const unit = useUnit()
  const need = plan.needs.find((candidate) => candidate.id === finding.needId)
  const loud = finding.grade === 'blocked' || finding.grade === 'tight'
  return (
    <li className={look.finding} data-grade={finding.grade} data-loud={loud || undefined}>
      <div className={look.head}>
        <GradeMark grade={finding.grade} size={loud ? 'sm' : 'xs'} />
        <b>
          {finding.check}
          {need ? `, ${need.name ?? needNames[need.kind]}` : ''}
        </b>
        <Figures finding={finding} />
      </div>
      <p className={look.reason}>{sentence(finding, unit)}</p>
      {loud && finding.remedies.length > 0 && (
        <ul className={look.remedies}>
          {finding.remedies.map((remedy) => (
            <li key={remedy.code}>{remedySentence(remedy, unit)}</li>
          ))}
        </ul>
      )}
      <p className={`${text.tiny} ${text.quiet}`}>
        {finding.part.label}: {citeSource(finding.source)}
      </p>
    </li>
  )
}

function Figures({ finding }: { finding: Finding }) {
  const unit = useUnit()
  const margin = marginOf(finding)
  const both = (value: number | null): string => {
    const other = otherFigure(value, finding.unit, unit)
    return `${formatFigure(value, finding.unit, unit)}${other ? ` (${other})` : ''}`
  }
  if (finding.unit === null) return null
  const left =
    margin === null
      ? ''
      : margin === 0
        ? ', nothing to spare'
        : `, ${formatFigure(Math.abs(margin), finding.unit, unit)} ${margin < 0 ? 'short' : 'to spare'}`
  return (
    <span className={`${text.mono} ${text.tiny} ${text.quiet}`}>
      have {both(finding.have)}, need {both(finding.need)}
      {left}
    </span>
  )
}
