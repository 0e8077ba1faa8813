import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink } from 'react-router'
import { leadingFinding, type NeedVerdict } from '../../core/checks/assess'
import { needNames, sentence } from '../../core/checks/sentences'
import type { Need } from '../../core/plan/need'
import { formatNeedSize } from '../../core/plan/need-text'
import text from '../theme/text.module.css'
import { GradeMark } from '../ui/grade'
import { LongTable, type RowProps } from '../ui/long-table'
import { useSite } from '../ui/site-context'
import { useUnit } from '../ui/units'

/** What has to flow, each with its way through the site and the verdict along it. */
export default function Needs() {
  const { plan, assessment } = useSite()
  const rows = useMemo(
    () =>
      plan.needs.flatMap((need, at): NeedRow[] => {
        const verdict = assessment.needs[at]
        return verdict ? [{ need, verdict }] : []
      }),
    [plan, assessment],
  )
  return (
    <>
      <Heading as="h1" size="xl" mb="4">
        Needs
      </Heading>
      {rows.length === 0 ? (
        <Text>Nothing has to flow yet. State what a run is for on the run itself, under “What must flow”.</Text>
      ) : (
        <LongTable
          label="Needs"
          columns={['Need', 'Verdict', 'From and to', 'Its way', 'What matters']}
          rows={rows}
          keyOf={keyOf}
        >
          {(row, props) => <Row key={row.need.id} row={row} props={props} />}
        </LongTable>
      )}
    </>
  )
}

type NeedRow = { need: Need; verdict: NeedVerdict }

const keyOf = ({ need }: NeedRow): string => need.id

function Row({ row: { need, verdict }, props }: { row: NeedRow; props: RowProps }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const own = verdict.findings.filter((finding) => finding.needId === need.id)
  const leading = leadingFinding(verdict.grade === 'clear' && own.length > 0 ? own : verdict.findings)
  const nameOf = (id: string) => index.devices.get(id)?.name ?? id
  return (
    <tr {...props}>
      <td className={text.wide}>
        <b>{need.name ?? needNames[need.kind]}</b>
        <span className={`${text.block} ${text.mono} ${text.tiny}`}>{formatNeedSize(need)}</span>
      </td>
      <td>
        <GradeMark grade={verdict.grade} />
      </td>
      <td className={text.wide}>
        {nameOf(need.from)}
        <span className={`${text.block} ${text.quiet}`}>to {nameOf(need.to)}</span>
      </td>
      <td className={`${text.mono} ${text.whole}`}>
        {verdict.runs.map((id, step) => (
          <span key={id}>
            {step > 0 && ' > '}
            <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.strong}`}>
              {index.runs.get(id)?.tag ?? id}
            </RouterLink>
          </span>
        ))}
        {verdict.runs.length === 0 && 'none'}
      </td>
      <td className={text.widest}>{leading ? sentence(leading, unit) : ''}</td>
    </tr>
  )
}
