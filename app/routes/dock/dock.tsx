import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, Link as RouterLink } from 'react-router'
import { orderNeeds } from '../../../core/change/changes/needs'
import { type DockLine, type DockView, dockView, secondDisplayTrap } from '../../../core/dock/dock'
import { formatPictureMode, parsePictureMode } from '../../../core/picture/mode-text'
import { byId } from '../../../core/plan/lookup'
import { formatBytesPerSecond, formatRate } from '../../../core/quantity/rate'
import { formatWatts } from '../../../core/quantity/watts'
import { linkModeFacts } from '../../../core/standards/link-modes'
import { passesThrough } from '../../../core/vocabulary/device'
import { refused, unlessSo } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { baseOf, change, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Chart } from '../../ui/chart'
import { chartColour } from '../../ui/chart-colour'
import { Notice } from '../../ui/controls'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { PlainSelect } from '../../ui/field'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import type { Route } from './+types/dock'
import look from './dock.module.css'
import { ServingOrder } from './serving-order'

export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const device = byId(copy.plan.devices).get(params.device)
  if (!device || !passesThrough(device)) throw data(null, { status: 404 })
  return null
}

/** Saves in which order the pictures come up. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const wanted = String(form.get('order') ?? '').split(' ')
  const saved = await change(request, form, params.site, ({ plan }) => {
    const needs = wanted.flatMap((id) => byId(plan.needs).get(id) ?? [])
    return needs.length > 0
      ? unlessSo(orderNeeds(plan, baseOf(form), needs))
      : refused('order', 'none of these needs is there any more')
  })
  if (saved?.outcome === 'saved') return data({ problem: null })
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** What one more display may be. */
const MORE = ['1920x1080@60', '2560x1440@60', '3840x2160@30', '3840x2160@60', '3840x2160@60 10 bit', '5120x2880@60']

/** What a dock's uplink carries each way, in the order it admits, what is left, and what one more display would do. */
export default function Dock({ params, actionData }: Route.ComponentProps) {
  const { plan, index, assessed } = useSite()
  const device = index.devices.get(params.device)
  const [more, setMore] = useState('')
  const oneMore = useMemo(() => {
    const mode = parsePictureMode(more)
    return mode.ok ? mode.value : null
  }, [more])
  const view = useMemo(() => (device ? dockView(assessed, device.id, oneMore) : null), [assessed, device, oneMore])
  const trap = useMemo(() => (device ? secondDisplayTrap(assessed, device.id) : null), [assessed, device])
  if (!device) return <ErrorView status={404} />
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        {device.name}
      </Heading>
      <Took />
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      {view === null ? (
        <Text>
          No run ends at it yet. Lay one, and this page shows what it carries.{' '}
          <RouterLink to={`/sites/${plan.site.id}/runs/new`} className={text.link}>
            New run
          </RouterLink>
        </Text>
      ) : (
        <>
          <Text mb="3">
            Its uplink is{' '}
            <RouterLink to={`/sites/${plan.site.id}/runs/${view.uplink.id}`} className={`${text.link} ${text.mono}`}>
              {view.uplink.tag}
            </RouterLink>
            {view.mode
              ? `: ${linkModeFacts[view.mode].name}, ${formatRate(view.carries.payload.down)} each way after coding`
              : ''}
            .
            {view.carries.forPictures !== null &&
              ` Pictures may hold ${formatRate(view.carries.forPictures)} of it together.`}
          </Text>
          {trap && <Trap trap={trap} />}
          <Flex gap="2" align="center" mb="3" wrap="wrap">
            <label htmlFor="one-more" className={text.half}>
              What would one more display do?
            </label>
            <PlainSelect
              id="one-more"
              value={more}
              onChange={({ currentTarget }) => setMore(currentTarget.value)}
              style={{ width: 'auto' }}
            >
              <option value="">none for now</option>
              {MORE.map((mode) => (
                <option key={mode}>{mode}</option>
              ))}
            </PlainSelect>
            <output aria-live="polite">{oneMore && answerTo(view)}</output>
          </Flex>
          {view.lines.length > 0 && (
            <Chart
              label={`The uplink of ${device.name} as it fills, each way; the figures stand in the table below`}
              height={220}
              of={view}
              option={() => filling(view)}
            />
          )}
          <Lines view={view} />
          <Left view={view} />
          <ServingOrder needs={view.lines.flatMap(({ need }) => (index.needs.has(need.id) ? need : []))} />
        </>
      )}
    </>
  )
}

function answerTo(view: DockView): string {
  const line = view.lines.find(({ need }) => !('name' in need) && need.id === 'one-more')
  if (!line) return ''
  if (line.grade === 'clear')
    return `It comes up as it is, and ${formatRate(view.carries.forStorage.down)} toward the dock are left for data.`
  return line.step
    ? `It comes up at ${line.step}, which is less than it asks (${formatRate(line.asked.down)}).`
    : `It is refused: ${formatRate(line.found.down)} are left, and it needs more.`
}

function Trap({ trap }: { trap: NonNullable<ReturnType<typeof secondDisplayTrap>> }) {
  return (
    <Notice tone="tight">
      <b>The second-display trap.</b> All pictures together would have room, but the {trap.fallen.label} finds only{' '}
      {formatRate(trap.fallen.found[trap.fallen.way])}: what came up first holds {formatRate(trap.unused)} more than it
      sends.{' '}
      {trap.order
        ? 'Brought up in another order all of them fit: put the smaller ones first below.'
        : 'No order of these pictures fits. Hosts that reserve by the stream would take them all; or give the first a port that speaks less.'}
    </Notice>
  )
}

function Lines({ view }: { view: DockView }) {
  if (view.lines.length === 0) return <Text my="3">No need crosses its uplink yet.</Text>
  return (
    <div className={look.table}>
      <RuledTable
        label="What the uplink admits, in order"
        columns={['In order', 'Direction', 'Verdict', 'Asks', 'Finds', 'Is held', 'Sends', 'Comes up at']}
        wide
      >
        {view.lines.map((line) => (
          <tr key={line.need.id}>
            <td>
              <b>{line.label}</b>{' '}
              {line.need.kind === 'picture' && (
                <span className={`${text.mono} ${text.tiny}`}>{formatPictureMode(line.need.mode)}</span>
              )}
            </td>
            <td>{wayWords(line)}</td>
            <td>
              <GradeMark grade={line.grade} size="xs" />
            </td>
            <Figure line={line} rate="asked" />
            <Figure line={line} rate="found" />
            <Figure line={line} rate="held" />
            <Figure line={line} rate="sent" />
            <td>{line.step ?? ''}</td>
          </tr>
        ))}
      </RuledTable>
    </div>
  )
}

const wayWords = ({ need, way }: DockLine): string =>
  need.kind === 'storage' ? 'write and read' : way === 'down' ? 'toward the dock' : 'back'

/** A figure of a line each way that it asks for. */
const Figure = ({ line, rate }: { line: DockLine; rate: 'asked' | 'found' | 'held' | 'sent' }) => (
  <td className={text.mono}>
    {(['down', 'up'] as const)
      .filter((way) => line.asked[way] > 0)
      .map((way, at) => (
        <span key={way} title={formatBytesPerSecond(line[rate][way])}>
          {at > 0 && ' / '}
          {formatRate(line[rate][way])}
        </span>
      ))}
  </td>
)

/** What storage and network find, while the pictures run and while they do not; power, and how deep hubs lie. */
function Left({ view }: { view: DockView }) {
  const both = (rate: number): string => `${formatRate(rate)} (${formatBytesPerSecond(rate)})`
  return (
    <div className={look.table}>
      <RuledTable label="What is left for data" columns={['Left for data', 'toward the dock (writes)', 'back (reads)']}>
        <tr>
          <th scope="row">while the pictures run</th>
          <td className={text.mono}>{both(view.carries.forStorage.down)}</td>
          <td className={text.mono}>{both(view.carries.forStorage.up)}</td>
        </tr>
        <tr>
          <th scope="row">while they do not</th>
          <td className={text.mono}>{both(view.carries.idle.down)}</td>
          <td className={text.mono}>{both(view.carries.idle.up)}</td>
        </tr>
        <tr>
          <th scope="row">beside all that is planned</th>
          <td className={text.mono}>{both(view.carries.left.down)}</td>
          <td className={text.mono}>{both(view.carries.left.up)}</td>
        </tr>
      </RuledTable>
      {view.supply && (
        <p className={look.line}>
          It gives its host {formatWatts(view.supply.toHost)}
          {view.supply.pool?.kind === 'shared' && `; all its ports share ${formatWatts(view.supply.pool.total)}`}
          {view.supply.pool?.kind === 'drops' && '; its ports fall as soon as another one is in use'}.
        </p>
      )}
      {view.power.map(({ label, asked, grade }) => (
        <p key={label} className={look.line}>
          <GradeMark grade={grade} size="xs" /> {label}: {formatWatts(asked)} asked over the uplink.
        </p>
      ))}
      <p className={look.line}>
        {view.hubs === 0 ? 'No hub' : `${view.hubs} ${view.hubs === 1 ? 'hub' : 'hubs'} in a row`} on the longest way
        behind it; USB allows 5. Its leads delay what crosses them by {Math.round(view.leadDelay)} ns at most; what
        docks and hubs add only a test tells.
      </p>
    </div>
  )
}

const flowColours: Record<string, string> = { picture: 'picture', camera: 'picture', headset: 'headset' }

/** Bars: what does not get in, what is held for pictures, and what really flows each way. What is held and not sent stays free for data. */
function filling(view: DockView) {
  const gigabits = (rate: number): number => Math.round(rate / 1e7) / 100
  const ink = chartColour('ink')
  const flows = (line: DockLine, way: 'down' | 'up'): number => gigabits(line.sent[way])
  const held = (line: DockLine): number =>
    view.tunnelled && line.need.kind === 'picture' ? gigabits(line.held[line.way]) : 0
  // what finds too little of the uplink; it may ask for more than there is in all
  const out = (line: DockLine): number => (line.admitted ? 0 : gigabits(Math.max(line.asked.up, line.asked.down)))
  const series = view.lines.map((line, at) => ({
    type: 'bar',
    stack: 'way',
    barWidth: 28,
    name: line.label,
    itemStyle: {
      color: chartColour(flowColours[line.need.kind] ?? 'data'),
      opacity: at % 2 === 0 ? 1 : 0.65,
      borderColor: chartColour('card'),
    },
    data: [flows(line, 'up'), flows(line, 'down'), ...(view.tunnelled ? [held(line)] : []), out(line)],
  }))
  return {
    textStyle: { color: ink, fontFamily: 'Overpass Variable' },
    grid: { left: 130, right: 24, top: 12, bottom: 56 },
    legend: { bottom: 0, textStyle: { color: ink } },
    tooltip: { trigger: 'item', valueFormatter: (value: unknown) => `${value} Gb/s` },
    xAxis: {
      type: 'value',
      max: gigabits(Math.max(view.carries.payload.down, view.carries.forPictures ?? 0)),
      axisLabel: { color: ink, formatter: '{value} Gb/s', hideOverlap: true },
      splitLine: { lineStyle: { color: chartColour('line') } },
    },
    yAxis: {
      type: 'category',
      data: ['back', 'toward the dock', ...(view.tunnelled ? ['held for pictures'] : []), 'does not get in'],
      axisLabel: { color: ink },
    },
    series,
  }
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
