import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Form, Link as RouterLink, useSearchParams } from 'react-router'
import { adviceOf, adviceSentences } from '../../../core/prove/advice'
import {
  portMatrix,
  RECORD_GRAINS,
  type RecordGrain,
  type RecordRow,
  recordOf,
  recordRows,
  wattsTable,
} from '../../../core/prove/record'
import { dropsText, shareText } from '../../../core/prove/record-sheets'
import { durationText } from '../../../core/quantity/duration'
import { formatLength } from '../../../core/quantity/length'
import { formatWatts } from '../../../core/quantity/watts'
import { linkModeFacts } from '../../../core/standards/link-modes'
import { elsewhere } from '../../elsewhere.server'
import { loadSite } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Chart } from '../../ui/chart'
import { axisLook, chartColour } from '../../ui/chart-colour'
import { QuietButton } from '../../ui/controls'
import { InlineSelect } from '../../ui/field'
import row from '../../ui/row-form.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import type { Route } from './+types/record'
import look from './prove.module.css'
import { grainOf } from './record-grain'

/** What other sites of this Hallway know of the same kinds. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  return { others: (await elsewhere(copy.plan)).record }
}

const grainWords: Record<RecordGrain, string> = {
  kind: 'by kind',
  length: 'by kind and length',
  controller: 'by kind, length and controller',
}
const MOST_ROWS = 100
const MOST_BARS = 24
const MOST_PORTS = 12

/** The site's own record: what held where, and what it advises. */
export default function RecordPage({ loaderData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const [params] = useSearchParams()
  const grain = grainOf(params)
  const rows = useMemo(
    () => recordRows({ own: recordOf(index), others: loaderData.others }, grain),
    [index, loaderData.others, grain],
  )
  const advice = useMemo(() => adviceOf(index), [index])
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Record
      </Heading>
      <Text mb="2">
        What cables did here and at the other sites of this Hallway, each cable counted once. Few tries leave much open:
        the range says how much.
      </Text>
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
          <QuietButton>Show</QuietButton>
          <a href={`${home}/record/record.csv?by=${grain}`} className={text.link} download>
            Download as CSV
          </a>
          <RouterLink to={`${home}/policy`} className={text.link}>
            What it would change by the bench
          </RouterLink>
        </Form>
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
              columns={['Kind', 'Length', 'Mode', 'Controller', 'Held', 'Drops', 'Of other sites']}
            >
              {rows.slice(0, MOST_ROWS).map((row) => (
                <tr key={`${row.kind} ${row.length} ${row.mode} ${row.controller}`}>
                  <td>{row.kind}</td>
                  <td className={text.whole}>{row.length === null ? 'all' : <Length metres={row.length} brief />}</td>
                  <td>{linkModeFacts[row.mode].name}</td>
                  <td>{row.controller ?? 'all'}</td>
                  <td className={text.mono}>{shareText(row)}</td>
                  <td className={text.mono}>{dropsText(row)}</td>
                  <td className={text.mono}>{row.elsewhere}</td>
                </tr>
              ))}
            </RuledTable>
          </>
        )}
        {rows.length > MOST_ROWS && <p className={text.quiet}>and {rows.length - MOST_ROWS} more in the CSV.</p>}
      </section>
      <Matrix />
      <WattsSeen />
    </>
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

/** Which cable did what in which socket. */
function Matrix() {
  const { plan, index } = useSite()
  const { ports, rows } = useMemo(() => portMatrix(index), [index])
  const shown = ports.slice(0, MOST_PORTS)
  if (rows.length === 0) return null
  const portName = (address: string): string => {
    const [device = '', port] = address.split('/')
    const found = index.devices.get(device)
    return found ? `${found.name}, ${found.ports.find(({ id }) => id === port)?.name ?? port}` : address
  }
  return (
    <section className={look.section} aria-labelledby="matrix">
      <h2 id="matrix">Cable and port</h2>
      <RuledTable label="Cable and port" columns={['Cable', ...shown.map(portName)]} maxH="480px">
        {rows.slice(0, MOST_ROWS).map(({ cable, cells }) => (
          <tr key={cable}>
            <td className={text.mono}>
              <RouterLink to={`/sites/${plan.site.id}/cables/${cable}`} className={text.link}>
                {index.cables.get(cable)?.tag ?? cable}
              </RouterLink>
            </td>
            {shown.map((port) => {
              const cell = cells.get(port)
              return (
                <td key={port} className={text.tiny}>
                  {cell &&
                    `${cell.mode ? linkModeFacts[cell.mode].name : cell.dropped ? 'dropped' : 'nothing'}${cell.seconds ? `, ${durationText(cell.seconds)}` : ''}`}
                </td>
              )
            })}
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}

/** Which charger gave what over which lead to which device. */
function WattsSeen() {
  const { plan, index } = useSite()
  const rows = useMemo(() => wattsTable(index), [index])
  if (rows.length === 0) return null
  const nameOf = (id: string): string => index.devices.get(id)?.name ?? id
  return (
    <section className={look.section} aria-labelledby="watts">
      <h2 id="watts">Charger, lead and device</h2>
      <p className={text.quiet}>
        A ceiling may belong to all three together: another charger may give more over the same lead.
      </p>
      <RuledTable label="Watts" columns={['Charger', 'Lead', 'Device', 'Arrived']} maxH="480px">
        {rows.slice(0, MOST_ROWS).map(({ charger, cable, device, least, most, times }) => (
          <tr key={`${charger} ${cable} ${device}`}>
            <td>{nameOf(charger)}</td>
            <td className={text.mono}>
              <RouterLink to={`/sites/${plan.site.id}/cables/${cable}`} className={text.link}>
                {index.cables.get(cable)?.tag ?? cable}
              </RouterLink>
            </td>
            <td>{nameOf(device)}</td>
            <td className={text.mono}>
              {times > 1 && least !== most ? `${formatWatts(least)} to ${formatWatts(most)}` : formatWatts(most)}
            </td>
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}
