import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, redirect, useSearchParams } from 'react-router'
import { z } from 'zod'
import { writeCount } from '../../../core/change/changes/prove'
import { byId } from '../../../core/plan/lookup'
import { indexPlan } from '../../../core/plan/site-index'
import { adviceOf, adviceSentences } from '../../../core/prove/advice'
import { doubtsOf } from '../../../core/prove/doubt'
import {
  RECORD_GRAINS,
  type RecordGrain,
  type RecordRow,
  recordTold,
  WEIGHTS,
  type Weight,
} from '../../../core/prove/record'
import { dropsText, likelyText, shareText } from '../../../core/prove/record-sheets'
import { formatLength } from '../../../core/quantity/length'
import { LINK_MODES, linkModeFacts } from '../../../core/standards/link-modes'
import { idField, nameField } from '../../../core/vocabulary/fields'
import { refused } from '../../../server/sites/change-site'
import { elsewhere, type SiteAdvice } from '../../elsewhere.server'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Chart } from '../../ui/chart'
import { axisLook, chartColour } from '../../ui/chart-colour'
import { Notice, QuietButton } from '../../ui/controls'
import { InlineSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import row from '../../ui/row-form.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { Length, useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import { PolicyEffectLine } from '../policy-effect-line'
import type { Route } from './+types/record'
import { CountForm } from './count-form'
import look from './prove.module.css'
import { grainOf, weightOf } from './record-grain'
import { Matrix, SocketTable, WattsSeen } from './record-tables'

/** What other sites of this Hallway know of the same kinds. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const { record, sockets, advice } = await elsewhere(copy.plan)
  return { others: record, sockets, advice, doubts: doubtsOf(indexPlan(copy.plan)) }
}

/** Writes down what somebody else counted of a kind. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const read = countSchema.safeParse(Object.fromEntries(form))
  const saved = read.success
    ? await changeBy(hand, params.site, ({ plan }) => {
        const kind = byId(plan.kinds).get(read.data.kind)
        if (!kind) return refused('kind', 'somebody removed this kind meanwhile')
        if (read.data.held > read.data.tried) return refused('held', 'no more can have held than were tried')
        return writeCount(kind, read.data, witnessOf(hand))
      })
    : null
  if (saved?.outcome === 'saved') return redirect(addressWith(`/sites/${params.site}/record`, { took: saved.id }))
  if (!read.success)
    return data(
      { problem: 'Say of which kind, in which mode, how many held of how many, and who counted.' },
      { status: 422 },
    )
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

const countSchema = z.object({
  kind: idField,
  mode: z.enum(LINK_MODES),
  held: z.coerce.number().int().min(0).max(1e6),
  tried: z.coerce.number().int().min(1).max(1e6),
  from: nameField,
})

const grainWords: Record<RecordGrain, string> = {
  kind: 'by kind',
  length: 'by kind and length',
  controller: 'by kind, length and controller',
}
const MOST_ROWS = 100
const MOST_BARS = 24

/** The site's own record: what held where, and what it advises. */
export default function RecordPage({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const [params] = useSearchParams()
  const grain = grainOf(params)
  const weight = weightOf(params, plan.policy)
  const rows = useMemo(
    () => recordTold(index, loaderData.others, grain, weight),
    [index, loaderData.others, grain, weight],
  )
  const advice = useMemo(() => adviceOf(index), [index])
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Record
      </Heading>
      <Text mb="2">
        What cables did here and at the other sites of this Hallway, each counted once in each socket. Few tries leave
        much open: the range says how much. How likely the next one holds leans on leads like it where few were tried.
      </Text>
      <Took />
      {loaderData.doubts.map(({ instrument, words }) => (
        <Notice key={`${instrument} ${words}`} tone="tight">
          {words}
        </Notice>
      ))}
      <section aria-labelledby="advice">
        <h2 id="advice" className={text.half}>
          What we advise
        </h2>
        {advice.devices.length === 0 ? (
          <Text>
            Nothing was tested between known sockets yet. A sort-out session or a proved run begins the record.
          </Text>
        ) : (
          <ul className={look.list}>
            {advice.devices.slice(0, MOST_BARS).map((each) => (
              <li key={each.device}>
                <b>{each.device}</b>:{' '}
                {adviceSentences(each, plan.policy.currency, (metres) => formatLength(metres, unit)).join(' ')}
              </li>
            ))}
          </ul>
        )}
        {advice.avoid.length > 0 && (
          <>
            <h3 className={text.half}>Not to be bought</h3>
            <ul className={look.list}>
              {advice.avoid.map(({ kind, why, on }) => (
                <li key={kind}>
                  {kind}: {why}
                  {on && `, since ${on}`}
                </li>
              ))}
            </ul>
          </>
        )}
        {loaderData.advice.map((told) => (
          <OthersAdvice key={told.id} told={told} />
        ))}
        <p className={text.small}>
          <a href={`${home}/record/advice.pdf`} className={text.link} download>
            As a page to hand out (PDF)
          </a>
        </p>
      </section>
      <section className={look.section} aria-labelledby="kinds">
        <h2 id="kinds">What kinds did</h2>
        <Form className={row.form}>
          <InlineSelect name="by" defaultValue={grain} aria-label="How finely">
            {RECORD_GRAINS.map((each) => (
              <option key={each} value={each}>
                {grainWords[each]}
              </option>
            ))}
          </InlineSelect>
          <InlineSelect name="others" defaultValue={String(weight)} aria-label="How much the tries of others count">
            {WEIGHTS.map((each) => (
              <option key={each} value={each}>
                {weightWords[each]}
              </option>
            ))}
          </InlineSelect>
          <QuietButton>Show</QuietButton>
          <a href={`${home}/record/record.csv?by=${grain}&others=${weight}`} className={text.link} download>
            Download as CSV
          </a>
        </Form>
        <ByTheBench />
        {rows.length === 0 ? (
          <Text>No cable of a kind was tested yet.</Text>
        ) : (
          <>
            <Chart
              label="How often each kind held, with the range that so few tries leave open. The figures stand in the table below."
              height={Math.min(rows.length, MOST_BARS) * 26 + 60}
              of={rows}
              option={() => shareOption(rows.slice(0, MOST_BARS), (row) => rowName(row, unit))}
            />
            <RuledTable
              label="What kinds did"
              wide
              columns={[
                'Kind',
                'Length',
                'Mode',
                'Controller',
                'Held',
                'Next one holds',
                'For days',
                'Drops',
                'Of others',
              ]}
            >
              {rows.slice(0, MOST_ROWS).map((row) => (
                <tr key={`${row.kind} ${row.length} ${row.mode} ${row.controller}`}>
                  <td>{row.kind}</td>
                  <td className={text.whole}>{row.length === null ? 'all' : <Length metres={row.length} brief />}</td>
                  <td>{linkModeFacts[row.mode].name}</td>
                  <td>{row.controller ?? 'all'}</td>
                  <td className={text.mono}>{shareText(row)}</td>
                  <td className={text.mono}>{row.likely !== null && `${likelyText(row.likely)} %`}</td>
                  <td className={text.mono}>{row.inPlace > 0 && row.inPlace}</td>
                  <td className={text.mono}>{dropsText(row)}</td>
                  <td className={text.mono}>{row.elsewhere}</td>
                </tr>
              ))}
            </RuledTable>
          </>
        )}
        {rows.length > MOST_ROWS && <p className={text.quiet}>and {rows.length - MOST_ROWS} more in the CSV.</p>}
        <CountForm problem={actionData?.problem ?? null} />
      </section>
      <SocketTable others={loaderData.sockets} />
      <Matrix />
      <WattsSeen />
    </>
  )
}

/** What another site of this Hallway advises, by its own tests. */
function OthersAdvice({ told }: { told: SiteAdvice }) {
  const unit = useUnit()
  return (
    <details>
      <summary>At {told.site}</summary>
      <ul className={look.list}>
        {told.devices.slice(0, MOST_BARS).map((each) => (
          <li key={each.device}>
            <b>{each.device}</b>:{' '}
            {adviceSentences(each, told.currency, (metres) => formatLength(metres, unit)).join(' ')}
          </li>
        ))}
        {told.avoid.map(({ kind, why, on }) => (
          <li key={kind}>
            Not to be bought: {kind}: {why}
            {on && `, since ${on}`}
          </li>
        ))}
      </ul>
    </details>
  )
}

const weightWords: Record<Weight, string> = {
  1: 'others count fully',
  0.5: 'others count half',
  0: 'own tries only',
}

const BENCH = { choices: [{ length: 'bench' as const }] }

/** What the record would change if the site went by the bench. */
function ByTheBench() {
  const { plan } = useSite()
  const { step, last } = useAsked('policies', plan.policy.length === 'bench' ? null : BENCH)
  if (plan.policy.length === 'bench')
    return (
      <p className={text.quiet}>
        This site decides by the bench: a cable that passed here may be longer than the book allows.
      </p>
    )
  return (
    <p>
      By the bench, a cable that passed here may be longer than the book allows.{' '}
      <PolicyEffectLine effect={step === 'answered' ? last[0]?.turned : undefined} home={`/sites/${plan.site.id}`} />
    </p>
  )
}

const rowName = ({ kind, length, mode, controller }: RecordRow, unit: 'm' | 'ft'): string =>
  [kind, length === null ? null : formatLength(length, unit), linkModeFacts[mode].name, controller]
    .filter(Boolean)
    .join(', ')

/** Shares as dots, each with its range as a line. */
function shareOption(rows: readonly RecordRow[], nameOf: (row: RecordRow) => string) {
  const shown = rows.toReversed()
  return {
    grid: { left: 8, right: 24, top: 8, bottom: 24, containLabel: true },
    tooltip: {},
    xAxis: {
      type: 'value',
      min: 0,
      max: 100,
      ...axisLook(),
      axisLabel: { ...axisLook().axisLabel, formatter: '{value} %', hideOverlap: true },
    },
    yAxis: {
      type: 'category',
      data: shown.map(nameOf),
      ...axisLook(),
      axisLabel: { ...axisLook().axisLabel, width: window.innerWidth < 768 ? 120 : 260, overflow: 'truncate' },
    },
    series: [
      {
        type: 'bar',
        stack: 'range',
        silent: true,
        itemStyle: { color: 'transparent' },
        data: shown.map(({ rate }) => rate.low * 100),
      },
      {
        type: 'bar',
        stack: 'range',
        name: 'range',
        barWidth: 6,
        itemStyle: { color: chartColour('data'), opacity: 0.45 },
        data: shown.map(({ rate }) => (rate.high - rate.low) * 100),
      },
      {
        type: 'scatter',
        name: 'held',
        symbolSize: 10,
        itemStyle: { color: chartColour('brass') },
        data: shown.map(({ rate }) => rate.share * 100),
      },
    ],
  }
}
