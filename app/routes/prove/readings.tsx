import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import type { Assessed } from '../../../core/checks/assess'
import { predictedSituation, predictRun } from '../../../core/prove/predict-run'
import { runTests } from '../../../core/prove/run-tests'
import { durationText } from '../../../core/quantity/duration'
import { decimal } from '../../../core/quantity/parsed'
import { MEGABYTE_PER_SECOND } from '../../../core/quantity/rate'
import {
  CHUNK_SAMPLES,
  type ChunkBrief,
  COLUMNS,
  type Column,
  columnNames,
  columnUnits,
  courseOf,
  type Sample,
  type Stretch,
} from '../../../core/series/chunk'
import type { Run } from '../../../core/vocabulary/run'
import { briefsOf, putAway, type Series, samplesOf, seriesOf } from '../../../server/series/series'
import { readForm } from '../../read-form.server'
import { addressWith, load, loadSite } from '../../stored.server'
import text from '../../theme/text.module.css'
import { ChangeId } from '../../ui/change-fields'
import { Chart } from '../../ui/chart'
import { axisLook, chartColour } from '../../ui/chart-colour'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { InlineSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { handOf } from '../../who.server'
import type { Route } from './+types/readings'
import { endReadings } from './end-readings.server'
import look from './prove.module.css'

/** Of so few chunks the readings themselves are drawn. */
const DRAWN_WHOLE = 2

/** The course of what an instrument read, a stretch of time at a step: it costs the same for an hour and for ten days. */
export async function loader({ request, params }: Route.LoaderArgs) {
  await loadSite(params.site)
  const series = await load((knex) => seriesOf(knex, params.site, params.series))
  if (!series || series.run !== params.run) throw data(null, { status: 404 })
  const briefs = await load((knex) => briefsOf(knex, params.site, series.id))
  const columns = COLUMNS.filter((column) => briefs.some((brief) => brief.columns[column]))
  const wanted = new URL(request.url).searchParams.get('show')
  const column = columns.find((each) => each === wanted) ?? columns[0] ?? null
  return {
    series,
    columns,
    column,
    course: column === null ? [] : courseOf(column, await drawnFrom(params.site, series, briefs)),
    drops: briefs.reduce((sum, brief) => sum + brief.drops, 0),
  }
}

async function drawnFrom(
  site: string,
  series: Series,
  briefs: readonly ChunkBrief[],
): Promise<readonly ChunkBrief[] | readonly Sample[]> {
  if (series.samples > DRAWN_WHOLE * CHUNK_SAMPLES) return briefs
  return load(async (knex) => {
    const all: Sample[] = []
    for await (const samples of samplesOf(knex, site, series.id)) all.push(...samples)
    return all
  })
}

/** Ends them and writes down what they come to, or puts them away. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const home = `/sites/${params.site}/prove/${encodeURIComponent(params.run)}`
  const series = await load((knex) => seriesOf(knex, params.site, params.series))
  if (!series || series.run !== params.run)
    return data({ problem: 'Somebody put these readings away.' }, { status: 409 })
  switch (form.get('intent')) {
    case 'put away':
      await load((knex) => putAway(knex, params.site, series.id))
      return redirect(home)
    case 'end': {
      const { written, problems, problem, id } = await endReadings(params.site, series, await handOf(request, form))
      if (problem === null && written.length > 0) return redirect(addressWith(home, { took: id }))
      return data(
        { problem: problem ?? `Nothing was written down. ${problems.join(' ') || 'There were no figures.'}` },
        { status: 409 },
      )
    }
    default:
      return data({ problem: 'Nothing was asked for.' }, { status: 422 })
  }
}

export default function Readings({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, index, assessed } = useSite()
  const [params] = useSearchParams()
  const busy = useNavigation().state === 'submitting'
  const { series, columns, column, course, drops } = loaderData
  const run = index.runs.get(series.run)
  if (!run) return <ErrorView status={404} />
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Readings of {series.instrument}
      </Heading>
      <Text mb="2">
        On{' '}
        <RouterLink to={`/sites/${plan.site.id}/prove/${encodeURIComponent(run.id)}`} className={text.link}>
          {run.tag}
        </RouterLink>
        , since <Moment at={series.began} />
        {series.ended ? (
          <>
            , ended <Moment at={series.ended} />
          </>
        ) : (
          <>
            , last heard <Moment at={series.heard} />
          </>
        )}
        . {series.samples.toLocaleString('en')} {series.samples === 1 ? 'reading' : 'readings'}
        {drops > 0 && `, ${drops} ${drops === 1 ? 'drop' : 'drops'}`}
        {series.rubbish > 0 && `, ${series.rubbish} lines were no readings`}.
      </Text>
      {series.simulated && (
        <Notice tone="note">A simulated instrument: its readings count only on a site to practise on.</Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <p className={text.quiet}>
        {series.written
          ? 'What they come to is written down with the run. Putting the readings away leaves that as it is.'
          : 'What they come to is not written down yet. Readings that nobody wrote down go after 30 days.'}
      </p>
      <div className={row.form}>
        {!series.written && (
          <Form method="post">
            <ChangeId />
            <MainButton name="intent" value="end" loading={busy}>
              End and write down
            </MainButton>
          </Form>
        )}
        <Form method="post">
          <ChangeId />
          <QuietButton name="intent" value="put away" grave>
            Put away
          </QuietButton>
        </Form>
        <a href={`/sites/${plan.site.id}/readings/${series.id}.csv`} className={text.link} download>
          Download as CSV
        </a>
      </div>
      {column === null ? (
        <Text>No figures yet.</Text>
      ) : (
        <section className={look.section} aria-labelledby="course">
          <h2 id="course">
            {columnNames[column]}, {columnUnits[column]}
          </h2>
          {columns.length > 1 && (
            <Form className={row.form}>
              <InlineSelect name="show" defaultValue={params.get('show') ?? column} aria-label="Which figure">
                {columns.map((each) => (
                  <option key={each} value={each}>
                    {columnNames[each]}
                  </option>
                ))}
              </InlineSelect>
              <QuietButton>Show</QuietButton>
            </Form>
          )}
          <Course column={column} course={course} band={bandOf(assessed, run, column)} />
        </section>
      )}
    </>
  )
}

/** What Match predicts of a figure over a run, in the unit of its column; null where no test of the run takes it. */
type Band = { low: number; high: number } | null

function bandOf({ index, walks }: Assessed, run: Run, column: Column): Band {
  const crossings = walks.crossings.get(run.id) ?? []
  const test = runTests(index, run, crossings).find(({ kind }) => kind === column)
  const prediction = test && predictRun(predictedSituation(index, run, crossings, test.socket), test)
  if (prediction?.kind === 'rate' && !prediction.unknown)
    return { low: prediction.low / MEGABYTE_PER_SECOND, high: prediction.high / MEGABYTE_PER_SECOND }
  return prediction?.kind === 'watts' ? { low: prediction.watts, high: prediction.watts } : null
}

function Course({ column, course, band }: { column: Column; course: readonly Stretch[]; band: Band }) {
  const single = course.every(({ count }) => count === 1)
  const first = course[0]?.at ?? 0
  return (
    <>
      <Chart
        label={`${columnNames[column]} over time. The figures stand in the table below.`}
        height={260}
        of={course}
        option={() => courseOption(column, course, band)}
      />
      {band && (
        <p className={text.quiet}>
          Predicted: {decimal(band.low, 0)}
          {band.high !== band.low && ` to ${decimal(band.high, 0)}`} {columnUnits[column]}, the dashed lines.
        </p>
      )}
      <RuledTable
        label={`${columnNames[column]} over time`}
        columns={single ? ['After', 'Reading'] : ['After', 'Least', 'Mean', 'Most', 'Readings']}
        maxH="420px"
      >
        {course.map(({ at, count, least, mean, most }, position) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two readings may come at one instant, and none changes its place
          <tr key={`${at} ${position}`}>
            <td className={text.whole}>{durationText(Math.max(0, Math.round((at - first) / 100) / 10))}</td>
            {(single ? [mean] : [least, mean, most]).map((value, which) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the columns of a row stand where they are
              <td key={which} className={text.mono}>
                {decimal(value, 2)}
              </td>
            ))}
            {!single && <td className={text.mono}>{count}</td>}
          </tr>
        ))}
      </RuledTable>
    </>
  )
}

/** The mean as a line, least and most as a band around it. */
function courseOption(column: Column, course: readonly Stretch[], band: Band) {
  const points = (of: (stretch: Stretch) => number) => course.map((stretch) => [stretch.at, of(stretch)])
  const line = { type: 'line', symbol: 'none', lineStyle: { width: 1.5 } }
  const hidden = { ...line, lineStyle: { opacity: 0 }, stack: 'band', silent: true }
  return {
    grid: { left: 8, right: 16, top: 12, bottom: 24, containLabel: true },
    tooltip: { trigger: 'axis', valueFormatter: (value: number) => `${decimal(value, 2)} ${columnUnits[column]}` },
    xAxis: { type: 'time', ...axisLook(), axisLabel: { ...axisLook().axisLabel, hideOverlap: true } },
    yAxis: { type: 'value', scale: true, ...axisLook() },
    series: [
      { ...hidden, name: 'least', data: points(({ least }) => least) },
      {
        ...hidden,
        name: 'from least to most',
        areaStyle: { color: chartColour('data'), opacity: 0.25 },
        data: points(({ least, most }) => most - least),
      },
      { ...line, name: 'mean', itemStyle: { color: chartColour('data') }, data: points(({ mean }) => mean) },
      ...(band ? [...new Set([band.low, band.high])] : []).map((level) => ({
        ...line,
        name: 'predicted',
        itemStyle: { color: chartColour('brass') },
        lineStyle: { width: 1.5, type: 'dashed' },
        data: points(() => level),
      })),
    ],
  }
}
