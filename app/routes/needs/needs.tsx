import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { leadingFinding, type NeedVerdict } from '../../../core/checks/assess'
import { needNames, sentence } from '../../../core/checks/sentences'
import type { Need } from '../../../core/plan/need'
import { formatNeedSize } from '../../../core/plan/need-text'
import text from '../../theme/text.module.css'
import { MainButton, Notice } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { LongTable, type RowProps } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Undo } from '../../ui/undo'
import { useUnit } from '../../ui/units'

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
      <Flex align="center" justify="space-between" gap="4" mb="4" wrap="wrap">
        <Heading as="h1" size="xl">
          Needs
        </Heading>
        {plan.devices.length > 1 && (
          <MainButton asChild>
            <RouterLink to={`/sites/${plan.site.id}/needs/new`}>State needs</RouterLink>
          </MainButton>
        )}
      </Flex>
      <Done />
      {rows.length === 0 ? (
        <Text>
          Nothing has to flow yet. Lay a run, then state what has to flow over it: here, or on the run itself.
        </Text>
      ) : (
        <LongTable
          label="Needs"
          columns={['Need', 'Verdict', 'From and to', 'Its way', 'What is wrong']}
          rows={rows}
          keyOf={keyOf}
        >
          {(row, props) => <Row key={row.need.id} row={row} props={props} />}
        </LongTable>
      )}
    </>
  )
}

/** Says what was done, with a way back. */
function Done() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const [stated, dropped] = [params.get('stated'), params.get('dropped')]
  const change = stated ?? dropped
  if (!change) return null
  return (
    <Notice tone={stated ? 'clear' : 'note'}>
      <Undo change={change} back={`/sites/${plan.site.id}/needs`}>
        {stated ? 'The needs are stated.' : 'It is no longer asked for.'}
      </Undo>
    </Notice>
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
        <RouterLink to={`/sites/${plan.site.id}/needs/${need.id}`} className={`${text.link} ${text.strong}`}>
          {need.name ?? needNames[need.kind]}
        </RouterLink>
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
      <td className={text.widest}>{leading && verdict.grade !== 'clear' ? sentence(leading, unit) : ''}</td>
    </tr>
  )
}
