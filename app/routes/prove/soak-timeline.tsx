import type { SoakTold } from '../../../core/prove/soak-timeline'
import { durationText } from '../../../core/quantity/duration'
import text from '../../theme/text.module.css'
import { Chart } from '../../ui/chart'
import { axisLook, chartColour } from '../../ui/chart-colour'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'

/** Soaks that are drawn and listed. */
export const MOST_SOAKS_SHOWN = 30

/** All soaks on a timeline, with their drops. */
export function SoakTimeline({ now, count, shown }: { now: string; count: number; shown: readonly SoakTold[] }) {
  const { plan } = useSite()
  if (shown.length === 0) return null
  return (
    <details>
      <summary className={text.link}>All soaks on a timeline, {count}</summary>
      <Chart
        label="Each soak as a bar from its beginning to its end, with its drops. The figures stand in the table below."
        height={shown.length * 26 + 60}
        of={shown}
        option={() => timelineOption(shown, Date.parse(now))}
      />
      <RuledTable label="Soaks" columns={['Run', 'Began', 'Lasted', 'Drops']} maxH="320px">
        {shown.map((soak) => (
          <tr key={`${soak.run} ${soak.from} ${soak.to}`}>
            <td className={text.mono}>{soak.tag}</td>
            <td>
              <Moment at={new Date(soak.from).toISOString()} />
            </td>
            <td>
              {durationText(Math.round((soak.to - soak.from) / 1000))}
              {soak.underWay && ' asked, under way'}
            </td>
            <td className={text.mono}>{soak.drops}</td>
          </tr>
        ))}
      </RuledTable>
      <p className={text.small}>
        <a href={`/sites/${plan.site.id}/record/soaks.csv`} className={text.link} download>
          Download all as CSV
        </a>
      </p>
    </details>
  )
}

/** A bar a soak; what is still to come of it is paler, drops are dots. */
function timelineOption(soaks: readonly SoakTold[], now: number) {
  const rows = soaks.toReversed()
  const names = rows.map(({ tag }, at) => `${at} ${tag}`)
  const first = Math.min(...soaks.map(({ from }) => from))
  const bar = { type: 'bar', stack: 'soak', barWidth: 10, barMinHeight: 2, silent: true }
  const done = ({ from, to }: SoakTold) => Math.max(0, Math.min(to, now) - from)
  return {
    grid: { left: 8, right: 16, top: 8, bottom: 24, containLabel: true },
    // bars are stacked along an axis of values: one of time does not add them up
    xAxis: {
      type: 'value',
      min: first,
      max: Math.max(...soaks.map(({ to }) => to)),
      ...axisLook(),
      axisLabel: {
        ...axisLook().axisLabel,
        hideOverlap: true,
        formatter: (at: number) => new Date(at).toISOString().slice(0, 10),
      },
    },
    yAxis: {
      type: 'category',
      data: names,
      ...axisLook(),
      axisLabel: { ...axisLook().axisLabel, formatter: (name: string) => name.replace(/^\d+ /, '') },
    },
    series: [
      { ...bar, itemStyle: { color: 'transparent' }, data: rows.map(({ from }) => from) },
      { ...bar, name: 'watched', itemStyle: { color: chartColour('data') }, data: rows.map(done) },
      {
        ...bar,
        name: 'to come',
        itemStyle: { color: chartColour('data'), opacity: 0.3 },
        data: rows.map((soak) => soak.to - soak.from - done(soak)),
      },
      {
        type: 'scatter',
        name: 'drops',
        symbol: 'diamond',
        symbolSize: 12,
        itemStyle: { color: chartColour('blocked') },
        data: rows.flatMap(({ at }, row) => at.map((drop) => [drop, names[row]])),
      },
    ],
  }
}
