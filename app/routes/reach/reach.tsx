import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useNavigate } from 'react-router'
import { gradeWords } from '../../../core/checks/wording'
import { covers, type Make, type ReachDot, reachDots, spotsOf } from '../../../core/match/reach-chart'
import { formatLength, type LengthUnit } from '../../../core/quantity/length'
import { formatRate } from '../../../core/quantity/rate'
import text from '../../theme/text.module.css'
import { Chart } from '../../ui/chart'
import { chartColour } from '../../ui/chart-colour'
import { GradeMark } from '../../ui/grade'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'

const makeColours: Record<Make, string> = {
  passive: 'data',
  active: 'brass',
  optical: 'picture',
  'category cable': 'headset',
}

/** Length against rate: what each construction covers, and every run of the site where its way and its need fall. */
export default function Reach() {
  const { plan, assessed } = useSite()
  const unit = useUnit()
  const navigate = useNavigate()
  const areas = useMemo(covers, [])
  const dots = useMemo(() => reachDots(assessed), [assessed])
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Reach
      </Heading>
      <Text mb="3">
        How far each construction carries a rate by the book, and where every run falls. A run under an edge can be done
        in that construction; one above them all needs a lower rate or a shorter route.
      </Text>
      <Chart
        label="Length against rate: what passive, active, optical and category cable cover, and every run as a dot. The runs stand in the table below."
        height={420}
        of={dots}
        picked={(tag) => {
          const dot = dots.find((each) => each.tag === tag)
          if (dot) navigate(`/sites/${plan.site.id}/runs/${dot.id}`)
        }}
        option={() => reachOption(areas, dots, unit)}
      />
      <Heading as="h2" size="md" mt="5" mb="2">
        The runs in it
      </Heading>
      {dots.length === 0 ? (
        <Text>No run is asked for a rate yet.</Text>
      ) : (
        <LongTable
          label="Runs by length and rate"
          columns={['Run', 'Verdict', 'Route', 'Needs', 'Covered by']}
          rows={dots}
          keyOf={({ id }) => id}
        >
          {(dot, props) => (
            <tr key={dot.id} {...props}>
              <td>
                <RouterLink
                  to={`/sites/${plan.site.id}/runs/${dot.id}`}
                  className={`${text.link} ${text.mono} ${text.strong}`}
                >
                  {dot.tag}
                </RouterLink>
              </td>
              <td>
                <GradeMark grade={dot.grade} size="xs" />
              </td>
              <td>
                <Length metres={dot.length} />
              </td>
              <td className={text.mono}>{formatRate(dot.rate)}</td>
              <td>{coveredBy(areas, dot)}</td>
            </tr>
          )}
        </LongTable>
      )}
      <Heading as="h2" size="md" mt="5" mb="2">
        What each construction covers
      </Heading>
      <ul>
        {areas.map(({ make, corners }) => (
          <li key={make}>
            <b>{make}</b>:{' '}
            {corners.map(({ length, rate }) => `${formatRate(rate)} to ${formatLength(length, unit)}`).join(', ')}
          </li>
        ))}
      </ul>
    </>
  )
}

function coveredBy(areas: ReturnType<typeof covers>, { length, rate }: ReachDot): string {
  const makes = areas.filter(({ corners }) => corners.some((corner) => corner.length >= length && corner.rate >= rate))
  return makes.length > 0 ? makes.map(({ make }) => make).join(', ') : 'nothing by the book'
}

const TAGS_TOLD = 4
const DOT = 11
const LARGEST = 30

/** The runs on one spot. */
function tagsOf(spot: readonly ReachDot[]): string {
  const tags = spot.map(({ tag }) => tag)
  const told = tags.length <= TAGS_TOLD ? tags : tags.slice(0, TAGS_TOLD - 1)
  return told.join(', ') + (told.length < tags.length ? ` and ${tags.length - told.length} more` : '')
}

const SHORTEST = 0.2
const LONGEST = 1000

/** Areas under steps, both axes logarithmic. */
function reachOption(areas: ReturnType<typeof covers>, dots: readonly ReachDot[], unit: LengthUnit) {
  const ink = chartColour('ink')
  const axis = {
    axisLabel: { color: ink },
    nameTextStyle: { color: ink },
    splitLine: { lineStyle: { color: chartColour('line') } },
  }
  return {
    textStyle: { color: ink, fontFamily: 'Overpass Variable' },
    grid: { left: 72, right: 24, top: 40, bottom: 48 },
    // on a phone the legend takes two lines
    media: [{ query: { maxWidth: 600 }, option: { grid: { top: 88 } } }, { option: { grid: { top: 40 } } }],
    legend: { top: 4, textStyle: { color: ink } },
    tooltip: { trigger: 'item' },
    xAxis: {
      type: 'log',
      min: SHORTEST,
      max: LONGEST,
      name: 'route length',
      nameLocation: 'middle',
      nameGap: 28,
      ...axis,
      axisLabel: { color: ink, formatter: (metres: number) => formatLength(metres, unit) },
    },
    yAxis: {
      type: 'log',
      min: 0.01,
      max: 100,
      name: 'rate',
      ...axis,
      axisLabel: { color: ink, formatter: (gigabits: number) => formatRate(gigabits * 1e9) },
    },
    series: [
      ...areas.map(({ make, corners }) => ({
        name: make,
        type: 'line',
        symbol: 'none',
        lineStyle: { color: chartColour(makeColours[make]), width: 2 },
        itemStyle: { color: chartColour(makeColours[make]) },
        areaStyle: { color: chartColour(makeColours[make]), opacity: 0.08, origin: 'start' },
        silent: true,
        data: edgeOf(corners),
      })),
      ...(['clear', 'tight', 'blocked'] as const).map((grade) => ({
        name: gradeWords[grade],
        type: 'scatter',
        symbol: { clear: 'circle', tight: 'diamond', blocked: 'rect' }[grade],
        itemStyle: { color: chartColour(grade), borderColor: chartColour('card'), borderWidth: 1 },
        data: spotsOf(dots.filter((dot) => dot.grade === grade)).map((spot) => ({
          name: spot[0].tag,
          value: [spot[0].length, spot[0].rate / 1e9, tagsOf(spot)],
          // many on one spot are a larger one
          symbolSize: Math.min(LARGEST, DOT + 2 * Math.log2(spot.length)),
        })),
        tooltip: {
          formatter: ({ value: [length, rate, tags] }: { value: [number, number, string] }) =>
            `${tags}: ${formatRate(rate * 1e9)} over ${formatLength(length, unit)}`,
        },
      })),
    ],
  }
}

/** The edge of an area from the shortest way to where it ends: between two corners the slower of them holds. */
function edgeOf(corners: readonly { length: number; rate: number }[]): [number, number][] {
  const byLength = [...corners].sort((one, other) => one.length - other.length)
  const points: [number, number][] = []
  let from = SHORTEST
  for (const { length, rate } of byLength) {
    points.push([from, rate / 1e9], [length, rate / 1e9])
    from = length
  }
  const last = byLength.at(-1)
  if (last) points.push([last.length, 0.01])
  return points
}
