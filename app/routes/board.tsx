import { Flex, Heading, Link, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { leadTag } from '../../core/change/changes/run'
import { leadingFinding, type RunVerdict } from '../../core/checks/assess'
import { needNames, sentence } from '../../core/checks/sentences'
import { formatNeedSize } from '../../core/plan/need-text'
import type { Run } from '../../core/plan/run'
import { leadCable, type SiteIndex } from '../../core/plan/site-index'
import text from '../theme/text.module.css'
import { MainButton, Notice } from '../ui/controls'
import { DoorStrip } from '../ui/door-strip'
import { GradeMark } from '../ui/grade'
import { LongTable, type RowProps } from '../ui/long-table'
import { useSite } from '../ui/site-context'
import { Undo } from '../ui/undo'
import { Length, useUnit } from '../ui/units'
import look from './board.module.css'

/** Match: every run a row, with its doors in miniature and the one sentence that matters. */
export default function Board() {
  const { plan, index, assessment } = useSite()
  const [params] = useSearchParams()
  const query = (params.get('q') ?? '').trim().toLowerCase()
  const only = params.get('grade')
  const removed = params.get('removed')
  const restored = params.get('restored')
  const tag = params.get('tag') ?? 'The run'
  const rows = useMemo(
    () =>
      plan.runs.flatMap((run, at): BoardRow[] => {
        const verdict = assessment.runs[at]
        const shown =
          verdict && (!only || verdict.grade === only) && (query === '' || wordsOf(index, run).includes(query))
        return shown ? [{ run, verdict }] : []
      }),
    [plan, index, assessment, query, only],
  )
  return (
    <>
      <Flex align="center" justify="space-between" gap="4" mb="4" wrap="wrap">
        <Heading as="h1" size="xl">
          Runs
        </Heading>
        <Flex gap="3" wrap="wrap" align="center">
          <GradeFilter only={only} query={query} />
          <Link href={`/sites/${plan.site.id}/plan.json`} color="brassInk" textDecoration="underline" fontSize="sm">
            Plan file
          </Link>
          {plan.devices.length > 1 && (
            <MainButton asChild>
              <RouterLink to={`/sites/${plan.site.id}/runs/new`}>New run</RouterLink>
            </MainButton>
          )}
        </Flex>
      </Flex>
      {restored && (
        <Notice tone="clear" slim>
          {restored} is back.
        </Notice>
      )}
      {removed && (
        <Notice tone="note">
          <Undo change={removed} back={`/sites/${plan.site.id}?${new URLSearchParams({ restored: tag })}`}>
            {tag} was deleted, with the needs that only it served.
          </Undo>
        </Notice>
      )}
      {rows.length === 0 ? (
        <Nothing filtered={plan.runs.length > 0} />
      ) : (
        <LongTable
          label="Runs"
          columns={['Run', 'Verdict', 'From and to', 'Needs', 'Cable', 'Doors', 'What matters']}
          rows={rows}
          keyOf={keyOf}
        >
          {(row, props) => <Row key={row.run.id} row={row} props={props} />}
        </LongTable>
      )}
    </>
  )
}

function GradeFilter({ only, query }: { only: string | null; query: string }) {
  const { assessment } = useSite()
  return (
    <Flex gap="1" fontSize="sm" as="nav" aria-label="Show runs by verdict">
      {([null, 'blocked', 'tight', 'clear'] as const).map((grade) => {
        const count =
          grade === null ? assessment.runs.length : assessment.runs.filter((run) => run.grade === grade).length
        const search = new URLSearchParams({ ...(query ? { q: query } : {}), ...(grade ? { grade } : {}) }).toString()
        return (
          <Link
            asChild
            key={grade}
            px="2"
            py="1"
            borderRadius="2px"
            color="ink"
            fontWeight={only === grade ? '800' : '500'}
            bg={only === grade ? 'floor' : 'transparent'}
            textTransform="capitalize"
          >
            <RouterLink to={{ search }} aria-current={only === grade ? 'true' : undefined}>
              {grade ?? 'all'} {count}
            </RouterLink>
          </Link>
        )
      })}
    </Flex>
  )
}

function Nothing({ filtered }: { filtered: boolean }) {
  const { plan } = useSite()
  if (filtered) {
    return (
      <Text>
        No run matches.{' '}
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={`/sites/${plan.site.id}`}>Show all of them</RouterLink>
        </Link>
      </Text>
    )
  }
  return plan.devices.length > 1 ? (
    <Text>No run yet. Lay the first one: choose two ports and a cable between them.</Text>
  ) : (
    <Text maxW="520px">
      A run joins the ports of two devices, and this site has no devices yet. Bring them in with a plan file: take this
      site's own file (“Plan file” above), add the devices and the cables of your drawer as docs/plan-file.md tells, and
      bring it in.
    </Text>
  )
}

function wordsOf({ devices, plan }: SiteIndex, run: Run): string {
  const names = [run.from.device, run.to.device].map((id) => devices.get(id)?.name ?? '')
  const tags = run.leads.map((lead) => leadTag(plan, lead))
  return [run.tag, run.name ?? '', ...names, ...tags].join(' ').toLowerCase()
}

type BoardRow = { run: Run; verdict: RunVerdict }

const keyOf = ({ run }: BoardRow): string => run.id

function Row({ row: { run, verdict }, props }: { row: BoardRow; props: RowProps }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const leading = leadingFinding(verdict.findings)
  const nameOf = (id: string) => index.devices.get(id)?.name ?? id
  const cables = run.leads.map((lead) => leadCable(index, lead))
  return (
    <tr {...props}>
      <td className={text.whole}>
        <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={`${text.link} ${text.mono} ${text.strong}`}>
          {run.tag}
        </RouterLink>
      </td>
      <td>
        <GradeMark grade={verdict.grade} />
      </td>
      <td className={text.wide}>
        {nameOf(run.from.device)}
        <span className={`${text.block} ${text.quiet}`}>to {nameOf(run.to.device)}</span>
      </td>
      <td className={`${text.tiny} ${look.needs}`}>
        {verdict.flows.map(({ needId }) => {
          const need = index.needs.get(needId)
          return (
            need && (
              <span key={needId} className={`${text.block} ${text.whole}`}>
                {needNames[need.kind]} <span className={text.mono}>{formatNeedSize(need)}</span>
              </span>
            )
          )
        })}
        {verdict.flows.length === 0 && <span className={text.quiet}>none stated</span>}
      </td>
      <td className={`${text.mono} ${text.tiny} ${text.whole}`}>
        {cables.map((cable) => (
          <span key={cable.id} className={text.block}>
            {cable.tag} <Length metres={cable.length} brief />
          </span>
        ))}
        {cables.length === 0 && <span className={text.quiet}>none yet</span>}
      </td>
      <td>
        <DoorStrip verdict={verdict} />
      </td>
      <td className={text.widest}>{leading ? sentence(leading, unit) : 'Nothing speaks against it.'}</td>
    </tr>
  )
}
