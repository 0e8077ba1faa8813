import { Heading, Text } from '@chakra-ui/react'
import { Fragment } from 'react'
import { data, redirect, useSearchParams } from 'react-router'
import { beforeAfter, parseRepeats } from '../../../core/prove/before-after'
import { decimal } from '../../../core/quantity/parsed'
import { foldTag } from '../../../core/vocabulary/fields'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Chart } from '../../ui/chart'
import { axisLook, chartColour } from '../../ui/chart-colour'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { CheckField, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import row from '../../ui/row-form.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { handOf } from '../../who.server'
import type { Route } from './+types/compare'
import look from './prove.module.css'
import { draftProof } from './prove-action.server'

const LONGEST = 600

/** The two sides as they are asked for. */
const SIDES = [
  {
    name: 'first',
    repeats: 'one',
    label: 'First side',
    repeatsLabel: 'Its repeats',
    example: 'supplied lead, 0.8 m',
    figures: '61.2 60.8 61.5',
  },
  {
    name: 'second',
    repeats: 'two',
    label: 'Second side',
    repeatsLabel: 'Its repeats, second side',
    example: 'long lead, 5 m',
    figures: '71.4 72.0 70.9',
  },
] as const

/** Keeps a comparison as a job of the run it names. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const { plan } = (await loadSite(params.site)).copy
  const tag = foldTag(String(form.get('run') ?? ''))
  const run = plan.runs.find((each) => foldTag(each.tag) === tag)
  if (!run) return data({ problem: 'There is no run with that tag. Nothing was saved.' }, { status: 422 })
  const saved = await changeBy(hand, params.site, (copy) => draftProof(copy, run.id, form, hand))
  if (saved?.outcome !== 'saved') {
    const { problem, status } = whyNotSaved(saved)
    return data({ problem }, { status })
  }
  return redirect(addressWith(`/sites/${params.site}/prove/${encodeURIComponent(run.id)}`, { took: saved.id }))
}

/** Before and after, this against that: what the difference is, and what could not have been seen. */
export default function Compare({ actionData }: Route.ComponentProps) {
  const [params] = useSearchParams()
  const said = (name: string): string => (params.get(name) ?? '').slice(0, LONGEST)
  const names = [said('first') || 'before', said('second') || 'after'] as const
  const unit = said('unit').slice(0, 20) || 's'
  const asked = params.has('one')
  const [one, other] = [parseRepeats(said('one')), parseRepeats(said('two'))]
  const result =
    one.ok && other.ok
      ? beforeAfter({ names, figures: [one.value, other.value], unit, lessIsBetter: !params.has('more') })
      : null
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Before and after
      </Heading>
      <Text mb="2">
        Use the real job: fresh files, same settings, three times each way or more, in turn and not in blocks. Keep
        first runs and cached ones apart.
      </Text>
      <Form className={row.form} key={params.toString()}>
        {SIDES.map(({ name, repeats, label, repeatsLabel, example, figures }) => (
          <Fragment key={name}>
            <TextField field={plainField(name, said(name))} label={label} placeholder={example} maxLength={80} />
            <TextField
              field={plainField(repeats, said(repeats))}
              label={repeatsLabel}
              placeholder={figures}
              maxLength={LONGEST}
            />
          </Fragment>
        ))}
        <TextField field={plainField('unit', said('unit') || 's')} label="In" maxLength={20} />
        <CheckField
          field={{ ...plainField('more'), initialValue: params.has('more') ? 'on' : undefined }}
          label="More is better (frames, MB/s)"
        />
        <MainButton>Compare</MainButton>
      </Form>
      {asked && !one.ok && <Notice tone="blocked">First side: {one.problem}</Notice>}
      {asked && !other.ok && <Notice tone="blocked">Second side: {other.problem}</Notice>}
      {result && one.ok && other.ok && (
        <section className={look.section} aria-label="What it comes to">
          <p>
            <b>{result.verdict}</b>
          </p>
          <p>{result.could}</p>
          {result.advice && <p>{result.advice}</p>}
          <Chart
            label="Every repeat of both sides as a dot. The figures stand in the table below."
            height={180}
            of={params.toString()}
            option={() => dotsOption(names, [one.value, other.value], unit)}
          />
          <RuledTable label="Both sides" wide columns={['Side', 'Repeats', 'Mean']}>
            {[one.value, other.value].map((figures, at) => (
              <tr key={at === 0 ? 'one' : 'other'}>
                <td>{names[at]}</td>
                <td className={text.mono}>{figures.join('  ')}</td>
                <td className={text.mono}>
                  {decimal(result.comparison.means[at as 0 | 1], 2)} {unit}
                </td>
              </tr>
            ))}
          </RuledTable>
          <p className={text.small}>By rank: {decimal(result.comparison.byRank * 100, 1)} in 100 by chance alone.</p>
          <Keep problem={actionData?.problem ?? null} />
        </section>
      )}
    </>
  )
}

/** Keeps what was compared with the run that the second side went over. */
function Keep({ problem }: { problem: string | null }) {
  const { plan } = useSite()
  const [params] = useSearchParams()
  return (
    <Form method="post" className={row.form} aria-label="Keep it with a run">
      <MadeFrom />
      {['first', 'one', 'two', 'unit'].map((name) => (
        <input key={name} type="hidden" name={name} value={params.get(name) ?? ''} />
      ))}
      {params.has('more') && <input type="hidden" name="more" value="on" />}
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <TextField
        field={plainField('run')}
        label="The second side went over"
        hint="The tag of the run."
        placeholder={plan.runs[0]?.tag ?? 'R-01'}
        maxLength={40}
      />
      <TextField field={plainField('what')} label="The job" placeholder="copy the rushes, 100 GB" maxLength={120} />
      <TextField field={plainField('length')} label="How long the first side is" placeholder="0.8 m" maxLength={40} />
      <QuietButton name="intent" value="job">
        Keep it with the run
      </QuietButton>
    </Form>
  )
}

/** Each repeat as a dot beside its side. */
const dotsOption = (names: readonly [string, string], sides: readonly [number[], number[]], unit: string) => ({
  grid: { left: 8, right: 24, top: 8, bottom: 24, containLabel: true },
  tooltip: {},
  xAxis: {
    type: 'value',
    scale: true,
    ...axisLook(),
    axisLabel: { ...axisLook().axisLabel, formatter: `{value} ${unit}`, hideOverlap: true },
  },
  yAxis: { type: 'category', data: [...names].reverse(), ...axisLook() },
  series: sides.map((figures, at) => ({
    type: 'scatter',
    symbolSize: 12,
    itemStyle: { color: chartColour(at === 0 ? 'picture' : 'brass'), opacity: 0.8 },
    data: figures.map((figure) => [figure, names[at]]),
  })),
})
